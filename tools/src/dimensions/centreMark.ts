import { addAnnotations, equalRounds, type NewAnnotation } from "@ash-edge/core/annotate";
import { cutEntities, curvesOf, roundAt, type Drawing, type Ref } from "@ash-edge/core/drawing";
import { exampleCircle } from "../example/exampleShapes.ts";
import { nothing, type Tool } from "../tool.ts";
import { annotating, heldBy } from "./dimensioning.ts";

const allCircles = (drawing: Drawing): readonly Ref[] =>
  cutEntities(drawing).flatMap((entity) => (entity.kind === "circle" ? curvesOf(entity).map(({ ref }) => ref) : []));

export const centreMark: Tool = {
  kind: "tool",
  id: "centre-mark",
  name: "Centre mark",
  help: "Click a circle or an arc: it is given a cross in its centre, past its edge. Or all equal ones, or all holes.",
  drawing: ["M12 3 L12 21 M3 12 L21 12", "M12 12 m-6 0 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0"],
  example: { cut: [exampleCircle(0, 0, 14)], clicks: [[14, 0]] },
  parts: [
    { kind: "words", text: "on" },
    { kind: "pick", name: "on", label: "arc or circle", takes: "curve", round: true },
    {
      kind: "choice",
      name: "how",
      label: "on how many",
      options: [
        ["one", "this one"],
        ["equal", "all that are equal"],
        ["all", "all circles"],
      ],
    },
  ],
  propose: (given, context) => {
    const { drawing } = context;
    const ref = heldBy(given.picks.on);
    if (!ref || !roundAt(drawing, ref)) return nothing;
    const how = given.choice("how");
    const refs = how === "one" ? [ref] : how === "equal" ? equalRounds(drawing, ref) : allCircles(drawing);
    const made = refs.map((one): NewAnnotation => ({ kind: "centre mark", refs: [one], at: { x: 0, y: 0 } }));
    const proposal = annotating(centreMark, context, made, given.isFirm("on"));
    return {
      ways: proposal.ways.map((way) => ({
        ...way,
        edit: () =>
          addAnnotations(
            drawing,
            made,
            made.length === 1 ? "Centre mark" : `Centre mark × ${made.length}`,
            "centre-mark",
          ),
      })),
      ...(proposal.refusal ? { refusal: proposal.refusal } : {}),
      note: made.length === 1 ? "1 centre mark" : `${made.length} centre marks`,
    };
  },
};
