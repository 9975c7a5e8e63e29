import { exampleArcs } from "../example/exampleShapes.ts";
import { entityOf, type Drawing } from "@ash-edge/core/drawing";
import { jointNear, slideJoint } from "@ash-edge/core/edits";
import { curveNearest, type Point } from "@ash-edge/core/geometry";
import { nearestInIndex, type DrawingIndex } from "@ash-edge/core/look";
import { done, refuse, type Id } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { nothing, refused, type Proposal, type Tool } from "../tool.ts";

/** So many things near the beginning of a drag are looked at for the chain that it takes. */
const LOOKED_AT = 16;

const slid = (drawing: Drawing, id: Id, joint: number, to: Point): Proposal => {
  const made = slideJoint(drawing, id, joint, to);
  if (!made.ok) return refused(made);
  const { edit, pieces } = made.value;
  return {
    ways: [
      {
        preview: [
          ...pieces.map((piece) => ({ shape: { kind: "piece", ...piece } as Shape })),
          { shape: { kind: "point", at: pieces[0]!.b } },
        ],
        edit: () => done(edit),
      },
    ],
  };
};

/** The chain that lies nearest to a place. */
const chainAt = (index: DrawingIndex, at: Point): Id | undefined => {
  let best: { readonly id: Id; readonly far: number } | undefined;
  for (const item of nearestInIndex(index, at, LOOKED_AT, Infinity)) {
    if (item.kind !== "curve" || item.ref.vertex === undefined) continue;
    const far = curveNearest(item.curve, at).distance;
    if (far < (best?.far ?? Infinity)) best = { id: item.ref.id, far };
  }
  return best?.id;
};

export const slideAJoint: Tool = {
  kind: "tool",
  id: "slide-joint",
  name: "Slide a joint",
  help:
    "Where does this arc end? Click a chain near the place where one arc or line runs on smoothly into the next, " +
    "then where that place should be, or drag it there: both pieces change and stay tangent to each other and to " +
    "their neighbours.",
  drawing: ["M3 18 A10 10 0 0 1 12 9 A13 13 0 0 0 21 4", "M12 9 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0 M14 13 L19 11"],
  example: {
    cut: [exampleArcs([0, 0], [30, 22], [70, 30])],
    clicks: [
      [30, 22],
      [24, 16],
    ],
  },
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "chain", label: "chain, near it", takes: "curve" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "place", takes: "point" },
  ],
  propose: (given, { drawing }) => {
    const { chain, to } = given.picks;
    if (!chain?.ref) return nothing;
    const joint = jointNear(drawing, chain.ref.id, chain.at);
    if (joint === undefined) return refused(refuse("joint-none"));
    const entity = entityOf(drawing, chain.ref.id);
    const at = entity?.kind === "chain" ? entity.vertices[joint]!.at : chain.at;
    if (!to || !given.isFirm("chain")) return { ways: [{ preview: [{ shape: { kind: "point", at } }] }] };
    return slid(drawing, chain.ref.id, joint, to.at);
  },
  drag: "path",
  dragged: (_, { drawing, index }, path) => {
    const [from, to] = [path[0]!, path.at(-1)!];
    const id = chainAt(index, from);
    const joint = id === undefined ? undefined : jointNear(drawing, id, from);
    return id === undefined || joint === undefined ? refused(refuse("joint-none")) : slid(drawing, id, joint, to);
  },
};
