import { tangentLinesFromPoint, tangentLinesOfCircles, type TangentLine } from "@ash-edge/core/construct";
import { curveAt, draftEdit, type Drawing } from "@ash-edge/core/drawing";
import { carrierOf, curveNearest, distance, type Circle, type Point } from "@ash-edge/core/geometry";
import { refuse, RESOLUTION, type Outcome } from "@ash-edge/core/numeric";
import { nothing, refused, type Picked, type Tool } from "./tool.ts";

/** The circle that a pick stands for; undefined when it is a bare point. */
const circleOf = (drawing: Drawing, picked: Picked): Circle | "straight" | undefined => {
  const curve = picked.ref && !picked.ref.place && curveAt(drawing, picked.ref);
  if (!curve) return undefined;
  const carrier = carrierOf(curve);
  return carrier.kind === "circle" ? carrier : "straight";
};

const solutions = (drawing: Drawing, from: Picked, to: Picked): Outcome<readonly TangentLine[]> => {
  const [a, b] = [circleOf(drawing, from), circleOf(drawing, to)];
  if (a === "straight" || b === "straight" || (!a && !b)) return refuse("not-a-curve");
  if (a && b) return tangentLinesOfCircles(a, b);
  if (b) return tangentLinesFromPoint(from.at, b);
  const back = tangentLinesFromPoint(to.at, a!);
  return back.ok ? { ok: true, value: back.value.map((line) => ({ from: line.to, to: line.from })) } : back;
};

/** On an arc, a tangent must touch where the arc really is. */
const reallyTouches = (drawing: Drawing, picked: Picked, at: Point): boolean => {
  const curve = picked.ref && !picked.ref.place ? curveAt(drawing, picked.ref) : undefined;
  return curve?.kind !== "piece" || curveNearest(curve, at).distance <= RESOLUTION;
};

export const tangentLine: Tool = {
  kind: "tool",
  id: "tangent-line",
  name: "Tangent line",
  bank: "KeyR",
  help: "Pick a point or a circle, then another circle, each near where the line should touch. Space shows the next of its solutions.",
  drawing: [
    "M4 6 L20 9",
    "M11 12 A4.5 4.5 0 1 1 2 12 A4.5 4.5 0 1 1 11 12 M22 14 A3.5 3.5 0 1 1 15 14 A3.5 3.5 0 1 1 22 14",
  ],
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point or circle", takes: "either", round: true },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "circle or point", takes: "either", round: true },
  ],
  from: "from",
  propose: (given, { drawing, layer }) => {
    const { from, to } = given.picks;
    if (!from || !to || !given.isFirm("from")) return nothing;
    if (!to.ref && !given.isFirm("to") && !circleOf(drawing, from)) return nothing;
    const found = solutions(drawing, from, to);
    if (!found.ok) return refused(found);
    const real = found.value.filter(
      (line) =>
        reallyTouches(drawing, from, line.from) &&
        reallyTouches(drawing, to, line.to) &&
        distance(line.from, line.to) > RESOLUTION,
    );
    if (real.length === 0) return refused(refuse("no-tangent"));
    const miss = (line: TangentLine): number => distance(line.from, from.at) + distance(line.to, to.at);
    const ways = [...real]
      .sort((p, q) => miss(p) - miss(q))
      .map((line) => {
        const shape = { kind: "piece", a: line.from, b: line.to, bulge: 0 } as const;
        const edit = () => {
          const draft = draftEdit(drawing, "Tangent line", "tangent-line");
          draft.add(shape, layer);
          return draft.finish();
        };
        return { preview: [{ shape }], edit };
      });
    return { ways };
  },
};
