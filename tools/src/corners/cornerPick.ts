import { entityOf, type Ref } from "@ash-edge/core/drawing";
import {
  cornerAt,
  cutCorners,
  cutCornersInBox,
  cutLooseCorner,
  type Corner,
  type Tie,
  type CornersCut,
  type CornerCut,
  type SizedCut,
} from "@ash-edge/core/edits";
import { boundsOf, type Point } from "@ash-edge/core/geometry";
import type { Outcome } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import { linkCallout } from "../linking.ts";
import { changingWay } from "../making.ts";
import {
  refused,
  nothing,
  type ToolContext,
  type Picked,
  type Wanting,
  type Given,
  type Proposal,
  type Part,
} from "../tool.ts";

/** A pick that stands for a corner: an end snapped to at which two edges meet. */
export const pickedCorner = ({ index }: ToolContext, picked: Picked | undefined): Corner | undefined =>
  picked?.ref && (picked.ref.place === "start" || picked.ref.place === "end")
    ? cornerAt(index, picked.ref, picked.at)
    : undefined;

/** True where an end was picked rather than a place along the thing. */
export const isEnd = (picked: Picked | undefined): boolean =>
  picked?.ref?.place === "start" || picked?.ref?.place === "end";

/** The corner, then, where a curve was picked instead, the other curve. */
export const wantsCorner = ({ picks, choice }: Wanting): readonly string[] =>
  isEnd(picks.corner) || choice("how") === "whole" ? ["corner"] : ["corner", "other"];

/** What links the typed size of a corner to the callout that it answers. */
export const linker =
  (given: Given, blank: string) =>
  (draft: Tie, refs: readonly Ref[]): void =>
    linkCallout(draft, given.callout(blank), refs);

/** A cut of corners as a proposal; what can't be cut is refused once the corner is picked firmly. */
export const cutProposal = (
  cut: Outcome<CornersCut>,
  firm: boolean,
  unit: ToolContext["unit"],
  word: string,
): Proposal => {
  if (!cut.ok) return firm ? refused(cut) : nothing;
  const { edit, count, refusals } = cut.value;
  const left =
    refusals.length > 0
      ? ` ${refusals.length} left as ${refusals.length === 1 ? "it was" : "they were"}: ` +
        `${sayRefusal(refusals[0]!, unit)}`
      : "";
  return {
    ways: [
      changingWay(edit, count > 1 || left ? { said: `${count} corner${count === 1 ? "" : "s"} ${word}.${left}` } : {}),
    ],
    ...(count > 1 || left
      ? { note: `${count} corner${count === 1 ? "" : "s"}${left ? `, ${refusals.length} left` : ""}` }
      : {}),
  };
};

/** A cut made at one corner, or at all of its contour. */
export const atCorner = (
  given: Given,
  context: ToolContext,
  corner: Corner,
  cut: CornerCut,
  name: string,
  blank: string,
  sized?: SizedCut,
): Outcome<CornersCut> => {
  const whole = given.choice("how") === "whole";
  if (corner.kind === "chain")
    return cutCorners(
      context.drawing,
      corner.id,
      whole ? "all" : [corner.vertex],
      cut,
      whole ? `${name}, whole contour` : name,
      linker(given, blank),
      { keepEdges: given.choice("edges") === "keep", ...(sized ? { sized } : {}) },
    );
  return cutLooseCorner(context.drawing, corner, cut, name, given.choice("edges") === "keep", linker(given, blank));
};

/** The corners inside a box, of contours and loose pieces alike, cut in one edit. */
export const inBox = (
  given: Given,
  context: ToolContext,
  path: readonly Point[],
  cut: CornerCut,
  name: string,
  link: ReturnType<typeof linker>,
  word: string,
): Proposal => {
  const keep = given.choice("edges") === "keep";
  const made = cutCornersInBox(context.index, boundsOf(path), cut, name, link, keep);
  return cutProposal(made, true, context.unit, word);
};

export const how: Part = {
  kind: "choice",
  name: "how",
  label: "how many",
  options: [
    ["one", "one corner"],
    ["whole", "whole contour"],
  ],
};
export const edges: Part = {
  kind: "choice",
  name: "edges",
  label: "edges",
  options: [
    ["trim", "trim the edges"],
    ["keep", "keep"],
  ],
};

/** A corner of the chain under the pointer, for the whole contour: any of its pieces will do. */
export const anyCorner = ({ drawing }: ToolContext, picked: Picked | undefined): Corner | undefined => {
  const entity = picked?.ref && entityOf(drawing, picked.ref.id);
  if (entity?.kind !== "chain") return undefined;
  const vertex = entity.vertices[1]!;
  return { kind: "chain", id: entity.id, vertex: vertex.id, at: vertex.at };
};

/** Two picked pieces of one chain that are neighbours are its corner. */
export const chainCorner = ({ drawing }: ToolContext, one: Picked, other: Picked): Corner | undefined => {
  const entity = entityOf(drawing, one.ref!.id);
  if (entity?.kind !== "chain" || one.ref!.id !== other.ref!.id) return undefined;
  const at = (picked: Picked): number => entity.vertices.findIndex(({ id }) => id === picked.ref!.vertex);
  const n = entity.vertices.length;
  const [i, j] = [at(one), at(other)];
  const after = (i + 1) % n === j ? j : (j + 1) % n === i ? i : undefined;
  if (after === undefined) return undefined;
  return { kind: "chain", id: entity.id, vertex: entity.vertices[after]!.id, at: entity.vertices[after]!.at };
};
