import { commonLook, type Look } from "../drawing/entity.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import {
  annotationsOf,
  cutEntities,
  entitiesOf,
  entityOf,
  isLayout,
  layersOf,
  settingsOf,
  unitOf,
  type Drawing,
} from "../drawing/drawing.ts";
import { boundsSize, growBounds, type Bounds } from "../geometry/bounds.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import type { Unit } from "../numeric/units.ts";
import { allowanceFor, type Allowance } from "../offset/allowance.ts";
import { nestingDepths } from "../contour/nesting.ts";
import { profileOf, type Contour } from "../profile/profile.ts";
import type { Fault, Stock } from "./check.ts";
import { roundOf } from "./holes.ts";
import { fileLayerNames, type NameLetters } from "./fileLayers.ts";
import { faultsOf, gravestFirst, subjectOf } from "./list.ts";
import { isReady } from "./ready.ts";

/** One contour, or an open mark, as it goes into a file. */
export type ReleasedContour = { readonly layer: string; readonly colour?: string; readonly line?: string } & (
  | { readonly kind: "circle"; readonly centre: Point; readonly radius: number }
  | { readonly kind: "polyline"; readonly pieces: readonly Piece[]; readonly closed: boolean }
);

/** With what it is cut as, whatever its layer is called. */
export type PlannedContour = ReleasedContour & {
  readonly role: Contour["role"];
  /** A hole that bears a thread mark. */
  readonly tapped?: true;
};

/** A layer as a file has it: its name, and a number of the standard palette. */
export type FileLayer = { readonly name: string; readonly colour?: string };

/** Which layer, colour and line style a contour has in the file. */
type LookFor = (contour: { readonly ids: readonly Id[]; readonly role: Contour["role"] }) => Omit<Look, "layer"> & {
  readonly layer: string;
};

/** Our own line styles as files name them. */
const FILE_LINES: Readonly<Record<string, string>> = { solid: "CONTINUOUS", dashed: "DASHED", dotted: "DOTTED" };

/** What a release would write, and what stands against it. */
export type ReleasePlan = {
  readonly unit: Unit;
  readonly contours: readonly PlannedContour[];
  /** The drawing's own layers as the file names them, where it is to have them, with their colours. */
  readonly layers: readonly FileLayer[];
  readonly faults: readonly Fault[];
  /** True when something closes and no fault is an error. */
  readonly ready: boolean;
};

/** What is asked of a release. */
export type ReleaseAsked = {
  /** The diameter of a cutter to allow for, in the job's unit; 0 for none. */
  readonly cutter?: number;
  /** Only these things are written; everything where it is left out. */
  readonly among?: ReadonlySet<Id> | undefined;
  /** The file's layers: by what is cut how, or as the drawing names its own. */
  readonly layers?: LayersBy;
  /** The letters that the file has for names. */
  readonly letters?: NameLetters;
  /** Tapped holes are drilled: a cutter is not allowed for there. */
  readonly tappedApart?: boolean;
  /** What it is cut from, as the job's head says. */
  readonly stock?: Stock;
};

export type LayersBy = "role" | "own";

/** Layer names by cut role: common practice, plain words in capitals. */
export const ROLE_LAYERS = { outside: "OUTSIDE", inside: "INSIDE", mark: "MARK" } as const;

/**
 * Sorts a drawing's contours onto layers, by what their layers say, else by nesting; layout never gets here. The
 * deepest come first, as they are cut first, marks last, open ones too. With a cutter's diameter contours are the way
 * of its middle, outside of outer contours and inside of inner ones, and where it can't get is told.
 */
export const planRelease = (
  drawing: Drawing,
  { cutter = 0, among, layers = "role", letters = "plain", tappedApart = false, stock }: ReleaseAsked = {},
): ReleasePlan => {
  const things = cutEntities(drawing).filter(({ id }) => !among || among.has(id));
  const profile = profileOf(drawing, undefined, things);
  const cut = profile.contours
    .filter(({ joined, role }) => joined && role !== "mark")
    .sort((p, q) => q.depth - p.depth || Number(q.role === "inside") - Number(p.role === "inside"));
  const found = faultsOf(subjectOf(drawing, profile, stock));
  const blocked = found.some(({ severity }) => severity === "error");
  const all = layersOf(drawing);
  const written = fileLayerNames(
    all.map(({ name }) => name),
    letters,
  );
  const names = new Map(all.map(({ id }, i) => [id, written[i]!]));
  // by role a file is for the machine, and what customers coloured says nothing there
  const lookFor: LookFor = ({ ids, role }) => {
    if (layers === "role") return { layer: ROLE_LAYERS[role] };
    const { layer, colour, line } = commonLook(ids.map((id) => entityOf(drawing, id)!));
    return {
      layer: names.get(layer) ?? ROLE_LAYERS[role],
      ...(colour === undefined ? {} : { colour }),
      ...(line === undefined ? {} : { line: FILE_LINES[line] ?? line }),
    };
  };
  const tapped = tappedHoles(drawing);
  const bears = ({ ids }: Contour): boolean => ids.some((id) => tapped.has(id));
  const isTapped = (contour: Contour): boolean => bears(contour) && roundOf(contour) !== undefined;
  const released = (contour: Contour): PlannedContour => {
    const [look, { role, pieces }] = [lookFor(contour), contour];
    const drill = isTapped(contour);
    // one that is drilled is a circle, however it is drawn
    const circle = contour.circle ?? (drill && tappedApart ? roundOf(contour) : undefined);
    return circle
      ? { kind: "circle", ...look, role, ...circle, ...(drill ? { tapped: true } : {}) }
      : { kind: "polyline", ...look, role, pieces, closed: true };
  };
  const marks = [
    ...profile.contours.filter(({ role }) => role === "mark").map(released),
    ...profile.marks.map(({ ids, pieces }): PlannedContour => {
      const role = "mark";
      return { kind: "polyline", ...lookFor({ ids, role }), role, pieces, closed: false };
    }),
  ];
  const drilled = tappedApart ? cut.filter(isTapped) : [];
  const milled = drilled.length > 0 ? cut.filter((contour) => !isTapped(contour)) : cut;
  const allowed = cutter > 0 && !blocked ? withAllowance(milled, cutter / 2, lookFor) : undefined;
  // what a tool of the job that is as large does not get into is said already
  const known = (settingsOf(drawing).making?.tool?.diameter ?? 0) >= cutter;
  const ofWay = (allowed?.faults ?? []).filter(({ severity }) => severity === "error" || !known);
  const odd = tappedApart
    ? cut.filter((contour) => contour.role === "inside" && bears(contour) && !isTapped(contour))
    : [];
  const ofTapped = odd.map(({ ids, pieces }): Fault => ({
    code: "tapped-odd",
    severity: "warning",
    at: pieces[0]!.a,
    ids,
    values: {},
  }));
  const faults = gravestFirst([...found, ...ofWay, ...ofTapped, ...ofLayers(drawing, things, among)]);
  return {
    unit: unitOf(drawing),
    contours: [...(allowed ? [...drilled.map(released), ...allowed.contours] : cut.map(released)), ...marks],
    layers:
      layers === "role" ? [] : all.map(({ id, colour }) => ({ name: names.get(id)!, ...(colour ? { colour } : {}) })),
    faults,
    ready: isReady(cut.length > 0, faults),
  };
};

/** The things that a thread mark is put on. */
const tappedHoles = (drawing: Drawing): ReadonlySet<Id> =>
  new Set(annotationsOf(drawing).flatMap(({ kind, refs }) => (kind === "thread mark" ? refs.map(({ id }) => id) : [])));

/** What is to be said of the layers that are written, and the points that are not. */
const ofLayers = (
  drawing: Drawing,
  things: readonly { readonly id: Id; readonly layer: Id }[],
  among: ReadonlySet<Id> | undefined,
): readonly Fault[] => {
  const on = new Map<Id, Id[]>();
  for (const { id, layer } of things) void (on.get(layer)?.push(id) ?? on.set(layer, [id]));
  const points = [...entitiesOf(drawing)].filter(
    (entity) => entity.kind === "point" && !isLayout(drawing, entity) && (!among || among.has(entity.id)),
  );
  return [
    ...layersOf(drawing).flatMap(({ id, name, shown, locked }): Fault[] => {
      const ids = on.get(id);
      if (!ids || (shown && !locked)) return [];
      const code = shown ? "locked-layer" : "hidden-layer";
      return [{ code, severity: "warning", ids, values: { layer: name, things: ids.length } }];
    }),
    ...(points.length === 0
      ? []
      : [
          {
            code: "points",
            severity: "warning" as const,
            ids: points.map(({ id }) => id),
            values: { points: points.length },
          },
        ]),
  ];
};

/**
 * The ways of a cutter's middle, in two kinds: where what the layers say is what follows from the nesting all are taken
 * together, and a contour of which its layer says otherwise is taken alone, in a frame that makes it a hole where it is
 * to be one.
 */
const waysOf = (cut: readonly Contour[], radius: number): readonly (readonly [Allowance, readonly Contour[]])[] => {
  let nested = cut;
  const alone: Contour[] = [];
  for (;;) {
    const depths = nestingDepths(nested.map(({ pieces }) => pieces));
    const otherwise = nested.filter(({ role }, i) => role !== (depths[i]! % 2 === 0 ? "outside" : "inside"));
    if (otherwise.length === 0) break;
    for (const contour of otherwise) alone.push(contour);
    nested = nested.filter((contour) => !otherwise.includes(contour));
  }
  const together = allowanceFor(
    nested.map(({ pieces }) => pieces),
    radius,
  );
  return [
    [together, nested] as const,
    ...alone.map((contour) => {
      if (contour.role === "outside") return [allowanceFor([contour.pieces], radius), [contour]] as const;
      const reach = boundsSize(contour.bounds) + 10 * radius;
      const all = allowanceFor([contour.pieces, frame(growBounds(contour.bounds, reach))], radius);
      return [{ ...all, runs: all.runs.filter(({ sources }) => sources[0] === 0) }, [contour]] as const;
    }),
  ];
};

const frame = ({ minX, minY, maxX, maxY }: Bounds): readonly Piece[] => {
  const corners = [
    { x: minX, y: minY },
    { x: maxX, y: minY },
    { x: maxX, y: maxY },
    { x: minX, y: maxY },
  ];
  return corners.map((a, i) => ({ a, b: corners[(i + 1) % 4]!, bulge: 0 }));
};

const withAllowance = (
  cut: readonly Contour[],
  radius: number,
  lookFor: LookFor,
): { readonly contours: readonly PlannedContour[]; readonly faults: readonly Fault[] } => {
  const values = { cutter: 2 * radius };
  const at = (place: Point, ids: Fault["ids"], code: Fault["code"], severity: Fault["severity"]): Fault => ({
    code,
    severity,
    at: place,
    ids,
    values,
  });
  const ways = waysOf(cut, radius).map(([{ runs, unreached, vanished, failed, merged }, own]) => ({
    contours: runs.map(({ circle, pieces, sources }) => {
      const source = own[sources[0]!]!;
      const [look, role] = [lookFor(source), source.role];
      return circle
        ? ({ kind: "circle", ...look, role, ...circle } as const)
        : ({ kind: "polyline", ...look, role, pieces, closed: true } as const);
    }),
    faults: [
      ...vanished.map((i) => at(own[i]!.pieces[0]!.a, own[i]!.ids, "cutter-gone", "error")),
      ...merged.map((all) =>
        at(
          own[all[0]!]!.pieces[0]!.a,
          all.flatMap((i) => own[i]?.ids ?? []),
          "cutter-merged",
          "error",
        ),
      ),
      ...failed.map((place) => at(place, [], "cutter-gone", "error")),
      ...unreached.flatMap((one) => {
        const contour = own[one.contour];
        const code = one.kind === "corner" ? "cutter-corner" : "cutter-narrow";
        return contour ? [at(one.at, contour.ids, code, "warning")] : [];
      }),
    ],
  }));
  return {
    contours: ways
      .flatMap(({ contours }) => contours)
      .sort((p, q) => Number(q.role === "inside") - Number(p.role === "inside")),
    faults: ways.flatMap(({ faults }) => faults),
  };
};

/** The area that a contour encloses, in square drawing units, whichever way round it runs; of an open mark none. */
export const releasedArea = (contour: ReleasedContour): number | undefined => {
  if (contour.kind === "circle") return Math.PI * contour.radius ** 2;
  return contour.closed ? Math.abs(enclosedArea(contour.pieces)) : undefined;
};
