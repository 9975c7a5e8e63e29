import { exampleDot } from "../example/exampleShapes.ts";
import { freeThrough } from "@ash-edge/core/construct";
import { directionAt, subtract, distance, type Point } from "@ash-edge/core/geometry";
import { RESOLUTION } from "@ash-edge/core/numeric";
import { pickedCurve, makingWay } from "../making.ts";
import { nothing, refused, type ToolContext, type Tool, type Proposal, type Part } from "../tool.ts";

/** As many points as a free curve takes in one go. */
const MOST_POINTS = 60;
const POINTS = Array.from({ length: MOST_POINTS }, (_, i) => `p${i + 1}`);

/** The direction in which a free curve should leave an end that lies on something, away from or towards `inner`. */
const tangentThere = (
  drawing: ToolContext["drawing"],
  picked: Parameters<typeof pickedCurve>[1],
  inner: Point,
): Point | undefined => {
  const ref = picked?.ref && {
    id: picked.ref.id,
    ...(picked.ref.vertex === undefined ? {} : { vertex: picked.ref.vertex }),
  };
  const curve = ref && pickedCurve(drawing, { ...picked, ref });
  if (!curve || !picked) return undefined;
  const angle = directionAt(curve, picked.at);
  const direction = { x: Math.cos(angle), y: Math.sin(angle) };
  const way = subtract(inner, picked.at);
  return way.x * direction.x + way.y * direction.y < 0 ? { x: -direction.x, y: -direction.y } : direction;
};

const freeProposal = (given: Parameters<Tool["propose"]>[0], { drawing, layer }: ToolContext): Proposal => {
  const picks = POINTS.map((name) => given.picks[name]).filter((one) => one !== undefined);
  const closed = isClosing(picks.map(({ at }) => at));
  const places = (closed ? picks.slice(0, -1) : picks).map(({ at }) => at);
  const distinct = places.filter((p, i) => i === 0 || distance(p, places[i - 1]!) > RESOLUTION);
  if (distinct.length < 2) return nothing;
  const tangent = given.choice("ends") === "tangent" && !closed;
  const start = tangent ? tangentThere(drawing, picks[0], distinct[1]!) : undefined;
  const back = tangent ? tangentThere(drawing, picks.at(-1), distinct.at(-2)!) : undefined;
  const end = back && { x: -back.x, y: -back.y };
  const made = freeThrough(distinct, { start, end }, closed);
  if (!made.ok) return refused(made);
  return {
    ways: [makingWay(freeCurve, drawing, layer, [{ kind: "free", ...made.value }])],
    note: `${distinct.length} points · ${closed ? "the first one again closes" : "Enter ends"}`,
  };
};
const isClosing = (places: readonly Point[]): boolean =>
  places.length > 3 && distance(places[0]!, places.at(-1)!) <= RESOLUTION;

export const freeCurve: Tool = {
  kind: "tool",
  id: "free-curve",
  name: "Free curve",
  help:
    "Click the points it should run through, then Enter; a click on the first closes it. Its ends can leave what " +
    "they start from and meet what they end on tangent. Free curve points moves them afterwards. It must become " +
    "arcs before it is cut.",
  drawing: ["M3 17 C7 5 11 5 13 12 C15 19 19 17 21 7"],
  example: {
    layout: [exampleDot(0, 0), exampleDot(20, 25), exampleDot(45, 5), exampleDot(70, 30)],
    clicks: [
      [0, 0],
      [20, 25],
      [45, 5],
      [70, 30],
    ],
    finish: true,
  },
  parts: [
    { kind: "words", text: "through" },
    ...POINTS.map((name, i): Part => ({
      kind: "pick",
      name,
      label: "points",
      takes: "point",
      ...(i > 0 ? { silent: true } : {}),
    })),
    { kind: "words", text: "· ends" },
    {
      kind: "choice",
      name: "ends",
      label: "ends",
      options: [
        ["free", "free"],
        ["tangent", "tangent to what they meet"],
      ],
    },
  ],
  from: "p1",
  wants: ({ picks }) => {
    const placed = POINTS.filter((name) => name in picks);
    return isClosing(placed.map((name) => picks[name]!.at)) ? placed : POINTS.slice(0, placed.length + 1);
  },
  propose: freeProposal,
  finish: freeProposal,
};
