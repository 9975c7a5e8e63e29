import { profileOf, type Contour, type OpenChain } from "@ash-edge/core/contour";
import { applyEdit, draftEdit, entityOf, layerOf, newDrawing, type Drawing } from "@ash-edge/core/drawing";
import type { ReadDrawing } from "@ash-edge/core/formats/dxf";
import { faultsOf, type Fault } from "@ash-edge/core/prove";
import { sayFault } from "@ash-edge/core/say";
import type { Unit } from "@ash-edge/core/numeric";

export type Finding = {
  readonly code: string;
  readonly severity: "error" | "warning" | "info";
  readonly fixed: boolean;
  readonly at: readonly [number, number] | null;
  readonly message: string;
};

/** What the command line prints as JSON; described in docs/formats.md. */
export type Inspection = {
  readonly units: Unit;
  readonly entities: Readonly<
    Record<"line" | "arc" | "circle" | "ellipse" | "spline" | "chain" | "point" | "text" | "other", number>
  >;
  readonly contours: readonly {
    readonly closed: boolean;
    readonly role: "outside" | "inside" | "open";
    readonly depth: number;
    readonly area: number | null;
    readonly length: number;
    readonly lines: number;
    readonly arcs: number;
    readonly circle: boolean;
    readonly layer: string;
    readonly bounds: readonly [number, number, number, number];
  }[];
  readonly findings: readonly Finding[];
  readonly ready: boolean;
};

/** Ends closer than this count as joined in a file as it is. */
const JOINED_WITHIN = 1e-6;

/** The codes of the command line for what stands against cutting. */
const CODES: Readonly<Record<Fault["code"], string>> = {
  "nothing-closed": "open",
  "not-joined": "open",
  open: "open",
  crossing: "crossing",
  "not-arcs": "open",
  touching: "crossing",
  doubled: "overlap",
};

/** Reports on a file as it is: nothing is mended but that ends which meet are taken as joined. */
export const inspect = (read: ReadDrawing, asked?: Unit): Inspection => {
  const units = read.unit ?? asked ?? "mm";
  const drawing = drawingOf(read, units);
  const profile = profileOf(drawing, JOINED_WITHIN);
  const faults = faultsOf(profile).filter(({ code }) => code !== "not-joined" && code !== "nothing-closed");
  const findings: Finding[] = [
    ...unitFindings(read, asked),
    ...faults.map((fault): Finding => ({
      code: CODES[fault.code],
      severity: fault.severity,
      fixed: false,
      at: fault.at ? [fault.at.x, fault.at.y] : null,
      message: sayFault(fault, units),
    })),
    ...read.degenerate.map(({ type, line }): Finding => ({
      code: "degenerate",
      severity: "error",
      fixed: false,
      at: null,
      message: `${type} at line ${line}: its numbers make no geometry, so it was left out.`,
    })),
    ...read.shapes
      .filter(({ kind }) => kind === "point")
      .map((): Finding => ({
        code: "stray",
        severity: "info",
        fixed: false,
        at: null,
        message: "A point is no cut geometry.",
      })),
  ];
  const count = (test: (shape: ReadDrawing["shapes"][number]) => boolean): number => read.shapes.filter(test).length;
  return {
    units,
    entities: {
      line: count((shape) => shape.kind === "piece" && shape.bulge === 0),
      arc: count((shape) => shape.kind === "piece" && shape.bulge !== 0),
      circle: count(({ kind }) => kind === "circle"),
      ellipse: read.leftOut.ELLIPSE ?? 0,
      spline: read.leftOut.SPLINE ?? 0,
      chain: count(({ kind }) => kind === "chain"),
      point: count(({ kind }) => kind === "point"),
      text: (read.leftOut.TEXT ?? 0) + (read.leftOut.MTEXT ?? 0),
      other: Object.entries(read.leftOut).reduce(
        (sum, [type, n]) => (/^(ELLIPSE|SPLINE|M?TEXT)$/.test(type) ? sum : sum + n),
        0,
      ),
    },
    contours: [...profile.contours, ...profile.open].map((contour) => rowOf(drawing, contour)),
    findings,
    ready: profile.contours.length > 0 && findings.every(({ severity }) => severity !== "error"),
  };
};

const unitFindings = (read: ReadDrawing, asked?: Unit): Finding[] => {
  const say = (message: string): Finding[] => [{ code: "units", severity: "warning", fixed: false, at: null, message }];
  if (!read.unit) return asked ? [] : say("The file names no unit that is known here; taken as mm.");
  return asked && asked !== read.unit ? say(`The file says ${read.unit}, not ${asked}; the file wins.`) : [];
};

const drawingOf = (read: ReadDrawing, unit: Unit): Drawing => {
  const drawing = newDrawing(unit);
  const draft = draftEdit(drawing, "Open a file", "open");
  const layers = new Map<string, number>();
  for (const shape of read.shapes) {
    if (shape.kind === "point") continue;
    if (!layers.has(shape.layer)) {
      const id = draft.newId();
      layers.set(shape.layer, id);
      draft.set("layer", id, { id, name: shape.layer, role: "profile", shown: true, locked: false });
    }
    const layer = layers.get(shape.layer)!;
    if (shape.kind === "circle") draft.add({ kind: "circle", centre: shape.centre, radius: shape.radius }, layer);
    else if (shape.kind === "piece") draft.add({ kind: "piece", a: shape.a, b: shape.b, bulge: shape.bulge }, layer);
    else {
      const vertices = shape.pieces.map(({ a, bulge }) => ({ id: draft.newId(), at: a, bulge }));
      if (!shape.closed) vertices.push({ id: draft.newId(), at: shape.pieces.at(-1)!.b, bulge: 0 });
      draft.add({ kind: "chain", closed: shape.closed, vertices }, layer);
    }
  }
  return applyEdit(drawing, draft.finish());
};

const rowOf = (drawing: Drawing, contour: Contour | OpenChain): Inspection["contours"][number] => {
  const { minX, minY, maxX, maxY } = contour.bounds;
  const entity = entityOf(drawing, contour.ids[0]!)!;
  return {
    closed: contour.closed,
    role: contour.closed ? (contour.depth % 2 === 0 ? "outside" : "inside") : "open",
    depth: contour.closed ? contour.depth : 0,
    area: contour.closed ? contour.area : null,
    length: contour.length,
    lines: contour.lines,
    arcs: contour.arcs,
    circle: contour.closed && contour.circle !== undefined,
    layer: layerOf(drawing, entity.layer)!.name,
    bounds: [minX, minY, maxX, maxY],
  };
};
