import type { Edit } from "@ash-edge/core/drawing";
import { copyEntities, transformEntities } from "@ash-edge/core/edits";
import { angleOf, subtract, type Similarity, type Point } from "@ash-edge/core/geometry";
import { done, readList, refuse, type Id, type Outcome } from "@ash-edge/core/numeric";
import { thingsPreview } from "../things.ts";
import { refused, type Part, type Tool, type ToolContext, type Proposal, type Given } from "../tool.ts";

export const what: Part = { kind: "pick", name: "what", label: "what", takes: "things" };

/** What is selected, moved by a similarity in place or as a copy. */
export const moved = (
  tool: Pick<Tool, "id" | "name">,
  ids: readonly Id[],
  m: Similarity,
  copy: boolean,
  { drawing }: ToolContext,
): Proposal => {
  const made: Outcome<Edit> = copy
    ? copyEntities(drawing, ids, [m], tool.name, tool.id)
    : transformEntities(drawing, ids, m, tool.name, tool.id);
  if (!made.ok) return refused(made);
  return {
    ways: [{ preview: thingsPreview(drawing, ids, m).map((shape) => ({ shape })), edit: () => done(made.value) }],
  };
};

export const keeps: Part = {
  kind: "choice",
  name: "keep",
  label: "the original",
  options: [
    ["replace", "moves"],
    ["keep", "stays"],
  ],
};

/** The angle of a picked edge or of the way between two points. */
export const angleOfTwo = (p: Point, q: Point): number => angleOf(subtract(q, p));

/** Which of the copies are left out, counted from 1 in the order in which they come. */
const skipped = (given: Given): ReadonlySet<number> => {
  const read = readList(given.text("skip") ?? "");
  return read.ok ? read.value : new Set();
};
export const skipPart: Part = { kind: "list", name: "skip", label: "leave out" };

/** A shape and its copies as previews, and the edit that makes them. */
export const repeated = (
  tool: Tool,
  given: Given,
  { drawing }: ToolContext,
  places: readonly Similarity[],
): Proposal => {
  const left = skipped(given);
  const beyond = [...left].find((n) => n < 1 || n > places.length + 1);
  if (beyond !== undefined) return refused(refuse("leave-out-beyond", { typed: beyond, limit: places.length + 1 }));
  // the first is what is selected itself
  const to = places.filter((_, i) => !left.has(i + 2));
  const made = copyEntities(drawing, given.things, to, `${tool.name} × ${to.length + 1}`, tool.id);
  if (!made.ok) return refused(made);
  return {
    ways: [
      {
        preview: to
          .slice(0, 400)
          .flatMap((m) => thingsPreview(drawing, given.things, m))
          .map((shape) => ({ shape })),
        edit: () => done(made.value),
        said: `${to.length} ${to.length === 1 ? "copy" : "copies"} made.`,
      },
    ],
    note: `${to.length + 1} in all · click or Enter makes them`,
  };
};
