import { exampleCircle } from "../example/exampleShapes.ts";
import { arcsByPicks, runTo } from "@ash-edge/core/construct";
import { entityOf, curveAt, type Ref } from "@ash-edge/core/drawing";
import { arcBetweenCurves } from "@ash-edge/core/edits";
import type { Curve, Point } from "@ash-edge/core/geometry";
import { refuse } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { changingWay } from "../making.ts";
import { touchingTwo } from "../round/circleTouchingTwo.ts";
import { nothing, refused, type Tool, type Way } from "../tool.ts";
import { WHERE_TOUCHED, canTouch } from "../touching.ts";

export const tangentArc: Tool = {
  kind: "tool",
  id: "tangent-arc",
  name: "Tangent arc",
  help:
    "Pick two of line, circle, arc and ellipse, each near where the arc should touch, with R or Ø typed. Space " +
    "shows the next solution: outside or inside, short or long way round. Single lines and arcs are trimmed to it " +
    "if wanted; circles stay whole.",
  drawing: ["M5 9 Q12 16 19 9", "M9 6 A4 4 0 1 1 1 6 A4 4 0 1 1 9 6 M23 6 A4 4 0 1 1 15 6 A4 4 0 1 1 23 6"],
  example: {
    cut: [exampleCircle(0, 0, 20), exampleCircle(80, 0, 14)],
    typed: { size: "110r" },
    clicks: [
      [0, -20],
      [80, -14],
    ],
  },
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "line or circle", takes: "curve" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "line or circle", takes: "curve" },
    { kind: "words", text: "with" },
    { kind: "size", name: "size", first: "R" },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "trim",
      label: "edges",
      options: [
        ["trim", "trim both"],
        ["keep", "keep"],
      ],
    },
    { kind: "words", text: "·" },
    WHERE_TOUCHED,
  ],
  propose: (given, { drawing, layer }) => {
    const { from, to } = given.picks;
    const radius = given.radius("size");
    if (!from?.ref || !to?.ref || !given.isFirm("from")) return nothing;
    if (radius === undefined)
      return given.isFirm("to") ? refused(refuse("value-empty")) : { ways: [], note: "Type R or Ø" };
    const [a, b] = [curveAt(drawing, from.ref), curveAt(drawing, to.ref)];
    if (!a || !b) return refused(refuse("not-a-curve"));
    const found = touchingTwo(a, b, radius, from.at, to.at);
    if (!found.ok) return refused(found);
    const touches = canTouch(given);
    const arcs = arcsByPicks(
      found.value.filter(({ onA, onB }) => touches(a, onA) && touches(b, onB)),
      from.at,
      to.at,
    );
    if (arcs.length === 0) return refused(refuse("touch-beyond-end"));
    const [refA, refB] = [from.ref, to.ref];
    const ways: Way[] = [];
    for (const arc of arcs) {
      // single lines and arcs are trimmed, what belongs to a chain stays as it is
      const side = (ref: Ref, curve: Curve, at: Point, touch: Point) => {
        const loose = given.choice("trim") === "trim" && entityOf(drawing, ref.id)?.kind === "piece";
        const piece = loose ? runTo(curve, at, touch) : undefined;
        return { ref, ...(piece ? { piece } : {}) };
      };
      const sides = [side(refA, a, from.at, arc.a), side(refB, b, to.at, arc.b)] as const;
      const edit = arcBetweenCurves(drawing, "Tangent arc", "tangent-arc", arc, sides, layer, (draft, ref) =>
        linkCallout(draft, given.callout("size"), [ref]),
      );
      if (!edit.ok) return refused(edit);
      ways.push(changingWay(edit.value));
    }
    return { ways };
  },
};
