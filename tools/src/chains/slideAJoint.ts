import { exampleArcs } from "../example/exampleShapes.ts";
import { entityOf } from "@ash-edge/core/drawing";
import { jointNear, slideJoint } from "@ash-edge/core/edits";
import { done, refuse } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { nothing, refused, type Tool } from "../tool.ts";

export const slideAJoint: Tool = {
  kind: "tool",
  id: "slide-joint",
  name: "Slide a joint",
  help:
    "Where does this arc end? Click a chain near the place where one arc or line runs on smoothly into the next, " +
    "then where that place should be: both pieces change and stay tangent to each other and to their neighbours.",
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
    const made = slideJoint(drawing, chain.ref.id, joint, to.at);
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
  },
};
