import {
  addAnnotations,
  changeAnnotations,
  displayOf,
  senseless,
  wayAngle,
  withCallout,
  type NewAnnotation,
  type Way,
} from "@ash-edge/core/annotate";
import {
  annotationOf,
  curveAt,
  DATUM,
  roundAt,
  threadMarkOn,
  styleOf,
  type Annotation,
  type Drawing,
  type Edit,
  type Ref,
} from "@ash-edge/core/drawing";
import { pointedOn } from "@ash-edge/core/attach";
import type { Point } from "@ash-edge/core/geometry";
import { refuse, type Id, type Outcome, type Refusal } from "@ash-edge/core/numeric";
import {
  nothing,
  refused,
  type Given,
  type Part,
  type Picked,
  type Proposal,
  under,
  type Tool,
  type ToolContext,
} from "../tool.ts";

/** What a pick holds on to; undefined for a bare place. */
export const heldBy = (picked: Picked | undefined): Ref | undefined =>
  picked?.ref ?? (picked?.snap === "datum" ? DATUM : undefined);

/** True where a pick is a place on nothing: there a dimension is put, and nothing is measured. */
export const isBare = (picked: Picked | undefined): boolean => picked !== undefined && !heldBy(picked);

/** What is measured to where a thing was picked: of a round curve its centre, else the thing or the place itself. */
export const measuredRef = (drawing: Drawing, ref: Ref): Ref =>
  ref.place === undefined && roundAt(drawing, ref) ? { ...ref, place: "centre" } : ref;

/** The size that a round curve is called by: Ø of whole circles, R of arcs. */
export const ownSize = (drawing: Drawing, ref: Ref): "radius" | "diameter" =>
  curveAt(drawing, ref)?.kind === "circle" ? "diameter" : "radius";

/** What a leader points to where a thing was picked: the very place on it; a whole circle by its edge. */
export const pointedRef = (drawing: Drawing, picked: Picked): Ref | undefined => {
  const ref = heldBy(picked);
  const curve = ref && ref.place === undefined ? curveAt(drawing, ref) : undefined;
  return ref && curve ? pointedOn(ref, curve, picked.at) : ref;
};

/** The words of what annotations would show, for the note beside the sentence. */
const wordsOf = (drawing: Drawing, all: readonly NewAnnotation[]): string =>
  all
    .flatMap((annotation) => displayOf(drawing, { ...annotation, id: 0 }, styleOf(drawing), 1).drawn)
    .flatMap((one) => (one.kind === "text" ? [one.text] : []))
    .slice(0, 6)
    .join(" · ");

/**
 * A proposal that adds annotations, each tied to the callout that it answers. What would say nothing is refused where
 * its picks are `firm`, and shown as nothing while the pointer is only passing.
 */
export const annotating = (
  tool: Pick<Tool, "id" | "name">,
  { drawing, selection }: Pick<ToolContext, "drawing" | "selection">,
  all: readonly NewAnnotation[],
  firm: boolean,
): Proposal => {
  if (all.length === 0) return nothing;
  const refusal = all.map((one) => senseless(drawing, one)).find((one): one is Refusal => one !== undefined);
  if (refusal) return firm ? refused({ refusal }) : nothing;
  const made = all.map((one) => withCallout(drawing, one));
  const lost = made.length === 1 ? lostAmong(drawing, selection, made[0]!) : undefined;
  const [first] = made;
  // a hole bears one thread
  const before = lost ?? (first?.kind === "thread mark" ? threadMarkOn(drawing, first.refs[0]!) : undefined);
  const edit = (): Outcome<Edit> =>
    before
      ? changeAnnotations(drawing, [{ ...before, ...first! }], lost ? "Put on something" : tool.name, tool.id)
      : addAnnotations(drawing, made, tool.name, tool.id);
  return {
    ways: [{ preview: [], annotations: made, edit }],
    note: wordsOf(drawing, made),
  };
};

/** The one selected annotation that lost what it measured, of the kind that is made: that is put on what is picked. */
const lostAmong = (drawing: Drawing, selection: ReadonlySet<Id>, made: NewAnnotation): Annotation | undefined => {
  const [id] = selection;
  const only = selection.size === 1 && id !== undefined ? annotationOf(drawing, id) : undefined;
  return only?.lost && only.kind === made.kind ? only : undefined;
};

/** So many places can be picked one after another. */
const MOST = 40;
const placeName = (i: number): string => `many ${i + 1}`;
const MANY = Array.from({ length: MOST }, (_, i) => placeName(i));
/** Filled by Enter, which ends the picking of several places. */
const ENDED = "ended";

/** Blanks for several picks one after another, the first of them shown; Enter ends them. */
export const manyParts = (
  label: string,
  takes: "point" | "curve" | "either",
  rest: { readonly onlyIf?: (choices: Readonly<Record<string, string>>) => boolean; readonly round?: true } = {},
): readonly Part[] => [
  ...MANY.map((name, i): Part => ({
    kind: "pick",
    name,
    label: i === 0 ? label : "another, or Enter",
    takes,
    ...rest,
    ...(i > 0 ? { silent: true } : {}),
  })),
  { kind: "pick", name: ENDED, label: "Enter", takes: "place", silent: true },
];

/** The picks made so far, and, behind them, the pointer's own. */
export const manyPicks = (given: Pick<Given, "picks">): readonly Picked[] =>
  MANY.flatMap((name) => given.picks[name] ?? []).filter(
    // the pointer is still on the last one that was picked
    (picked, i, all) => i === 0 || picked.at.x !== all[i - 1]!.at.x || picked.at.y !== all[i - 1]!.at.y,
  );

/** What is wanted next of several picks, and of `then` once they are ended. */
export const manyWanted = (picks: Given["picks"], then: readonly string[]): readonly string[] =>
  picks[ENDED] ? then : [...MANY.filter((name) => picks[name]), placeName(MANY.filter((name) => picks[name]).length)];

/** Enter among several picks: they are ended, and what comes then is said; refused below `least` of them. */
export const endMany = (given: Given, least: number, what: string, said: string): Proposal => {
  const picks = Object.fromEntries(
    Object.entries(given.picks).filter((one): one is [string, Picked] => one[1] !== undefined && given.isFirm(one[0])),
  );
  const count = MANY.filter((name) => picks[name]).length;
  if (picks[ENDED]) return nothing;
  if (count < least) return refused(refuse("pick-wanted", { what }));
  return { ways: [{ preview: [], next: { ...picks, [ENDED]: { at: picks[placeName(count - 1)]!.at } }, said }] };
};

/** True once several picks were ended. */
export const isEnded = (given: Pick<Given, "picks">): boolean => given.picks[ENDED] !== undefined;

/** Where what is made is to stand. */
export const standsAt = (label = "place"): Part => ({ kind: "pick", name: "at", label, takes: "place" });
/** Where that is: what was picked for it, else where the pointer is. */
export const placeFor = ({ picks, pointer }: Pick<Given, "picks" | "pointer">): Point | undefined =>
  picks.at?.at ?? pointer;

/** In which direction a length is measured, and the angle of it where that is asked for. */
export const measuredParts: readonly Part[] = [
  {
    kind: "choice",
    name: "way",
    label: "measured",
    options: [
      ["along", "along"],
      ["level", "level"],
      ["upright", "upright"],
      ["angle", "at an angle"],
    ],
  },
  {
    kind: "value",
    name: "angle",
    label: "angle",
    expects: "angle",
    stays: true,
    signed: true,
    onlyIf: under("way", "angle"),
  },
];
/** The direction that those blanks say (radians); undefined for along. */
export const measuredAngle = (given: Pick<Given, "choice" | "value">): number | undefined =>
  wayAngle(given.choice("way") as Way, given.value("angle") ?? 0);
