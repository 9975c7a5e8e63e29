import { exampleLine } from "../example/exampleShapes.ts";
import { circlesTouchingThree } from "@ash-edge/core/construct";
import { carrierOf, distance, type Point } from "@ash-edge/core/geometry";
import { refuse } from "@ash-edge/core/numeric";
import { pickedCurve, makingWay } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { WHERE_TOUCHED, canTouch } from "../touching.ts";

export const circleTouchingThree: Tool = {
  kind: "tool",
  id: "circle-touching-three",
  name: "Circle touching three",
  help:
    "Pick three of line, circle and arc, each near where the circle should touch. There are up to eight: Space " +
    "shows the next.",
  drawing: ["M18 12 A6 6 0 1 1 6 12 A6 6 0 1 1 18 12", "M2 20 L9 2 M22 20 L15 2 M2 18 L22 18"],
  example: {
    cut: [exampleLine([0, 0], [90, 0]), exampleLine([0, 0], [30, 60]), exampleLine([90, 0], [30, 60])],
    clicks: [
      [45, 0],
      [15, 30],
      [60, 30],
    ],
  },
  parts: [
    { kind: "words", text: "touching" },
    { kind: "pick", name: "one", label: "curve", takes: "curve" },
    { kind: "pick", name: "two", label: "curve 2", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "three", label: "curve 3", takes: "curve" },
    { kind: "words", text: "·" },
    WHERE_TOUCHED,
  ],
  propose: (given, { drawing, layer }) => {
    const picks = ["one", "two", "three"].map((name) => given.picks[name]);
    const curves = picks.map((picked) => pickedCurve(drawing, picked));
    if (curves.some((curve) => !curve) || !given.isFirm("two")) return nothing;
    const carriers = curves.map((curve) => carrierOf(curve!));
    if (carriers.some((carrier) => !carrier)) return refused(refuse("smooth-not-here"));
    const found = circlesTouchingThree(carriers[0]!, carriers[1]!, carriers[2]!);
    if (!found.ok) return given.isFirm("three") ? refused(found) : nothing;
    const reaches = canTouch(given);
    const real = found.value.filter(({ touches }) => touches.every((at, i) => reaches(curves[i]!, at)));
    if (real.length === 0) return given.isFirm("three") ? refused(refuse("touch-beyond-end")) : nothing;
    const miss = (touches: readonly Point[]): number =>
      touches.reduce((sum, at, i) => sum + distance(at, picks[i]!.at), 0);
    return {
      ways: [...real]
        .sort((p, q) => miss(p.touches) - miss(q.touches))
        .map(({ centre, radius }) =>
          makingWay(circleTouchingThree, drawing, layer, [{ kind: "circle", centre, radius }]),
        ),
    };
  },
};
