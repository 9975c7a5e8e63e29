import { distanceFrom, feetOf, freeThrough, parallelPiece, shortestLine, squareEnd } from "@ash-edge/core/construct";
import { curveNearest, directionAt, distance, subtract, type Point } from "@ash-edge/core/geometry";
import { refuse, RESOLUTION, toDegrees } from "@ash-edge/core/numeric";
import { lineEnd } from "./line.ts";
import { linkCallout } from "./linking.ts";
import { makingWay, pickedCurve, pieceShape } from "./making.ts";
import { nothing, refused, under, type Part, type Proposal, type Tool, type ToolContext } from "./tool.ts";

export const lineAtAnAngle: Tool = {
  kind: "tool",
  id: "line-at-an-angle",
  name: "Line at an angle",
  bank: "KeyW",
  help: "Type the angle, click the start; a second click, or the typed length, gives the end. The angle counts from level or from a picked edge.",
  drawing: ["M4 19 L19 8", "M4 19 L20 19 M13 19 A9 9 0 0 0 11.5 13.6"],
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "at" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: true, signed: true },
    {
      kind: "choice",
      name: "counted",
      label: "counted from",
      options: [
        ["level", "from level"],
        ["edge", "from an edge"],
      ],
    },
    { kind: "pick", name: "edge", label: "edge", takes: "curve", onlyIf: under("counted", "edge") },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "pick", name: "to", label: "end", takes: "point", silent: true },
  ],
  from: "from",
  wants: ({ choice }) => [...(choice("counted") === "edge" ? ["edge"] : []), "from", "to"],
  propose: (given, { drawing, layer }) => {
    const { from, edge } = given.picks;
    const to = given.picks.to?.at ?? given.pointer;
    const typed = given.value("angle");
    if (!from || !given.isFirm("from") || !to) return nothing;
    if (typed === undefined) return { ways: [], note: "Type the angle" };
    const along = pickedCurve(drawing, edge);
    const base = along && edge ? toDegrees(directionAt(along, edge.at)) : 0;
    const length = given.value("length");
    const end = lineEnd(from.at, to, length, base + typed);
    if (distance(from.at, end) <= RESOLUTION) return nothing;
    const way = makingWay(
      lineAtAnAngle,
      drawing,
      layer,
      [pieceShape({ a: from.at, b: end, bulge: 0 })],
      (draft, [id]) => {
        linkCallout(draft, given.callout("length"), [{ id: id! }]);
        linkCallout(draft, given.callout("angle"), edge?.ref ? [{ id: id! }, edge.ref] : [{ id: id! }]);
      },
    );
    return { ways: [way], ...(length === undefined ? { live: { length: distance(from.at, end) } } : {}) };
  },
};

export const perpendicular: Tool = {
  kind: "tool",
  id: "perpendicular",
  name: "Perpendicular",
  bank: "KeyW",
  help: "Click a curve, then a point: the line from the point square to the curve; Space takes its other feet. A point on the curve itself starts a line square to it there, as long as typed or as a further click says.",
  drawing: ["M14 4 L14 17", "M4 17 L21 17 M14 13 L18 13 L18 17"],
  parts: [
    { kind: "words", text: "square to" },
    { kind: "pick", name: "curve", label: "curve", takes: "curve" },
    { kind: "words", text: "through" },
    { kind: "pick", name: "through", label: "point", takes: "point" },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "pick", name: "to", label: "end", takes: "point", silent: true },
  ],
  wants: ({ picks }) => (picks.through?.snap === "on the curve" ? ["curve", "through", "to"] : ["curve", "through"]),
  propose: (given, { drawing, layer }) => {
    const { curve: picked, through } = given.picks;
    const curve = pickedCurve(drawing, picked);
    if (!curve || !through || !given.isFirm("curve")) return nothing;
    const foot = curveNearest(curve, through.at);
    const length = given.value("length");
    const link = (draft: Parameters<typeof linkCallout>[0], ids: readonly number[]): void =>
      linkCallout(draft, given.callout("length"), [{ id: ids[0]! }]);
    if (foot.distance <= RESOLUTION) {
      const to = given.picks.to?.at ?? given.pointer;
      // the first click sets the place, the second the end
      if (!given.picks.to && through.snap !== "on the curve")
        return {
          ways: [{ preview: [], next: { curve: picked!, through: { ...through, at: foot.at, snap: "on the curve" } } }],
        };
      if (!to) return nothing;
      const end = squareEnd(directionAt(curve, foot.at), foot.at, to, length);
      if (distance(foot.at, end) <= RESOLUTION) return nothing;
      const way = makingWay(perpendicular, drawing, layer, [pieceShape({ a: foot.at, b: end, bulge: 0 })], link);
      return { ways: [way], ...(length === undefined ? { live: { length: distance(foot.at, end) } } : {}) };
    }
    const feet = feetOf(curve, through.at).filter(
      (at) => curveNearest(curve, at).distance <= RESOLUTION || curve.kind === "piece",
    );
    if (feet.length === 0) return given.isFirm("through") ? refused(refuse("no-foot")) : nothing;
    const ways = feet.map((at) => {
      const b = length === undefined ? at : lineEnd(through.at, at, length, undefined);
      return makingWay(perpendicular, drawing, layer, [pieceShape({ a: through.at, b, bulge: 0 })], link);
    });
    return { ways, ...(length === undefined ? { live: { length: distance(through.at, feet[0]!) } } : {}) };
  },
};

export const parallelLine: Tool = {
  kind: "tool",
  id: "parallel-line",
  name: "Parallel line",
  bank: "KeyW",
  help: "Click a line or an arc, then its side: a piece just as long, parallel at the typed distance, or through the point clicked.",
  drawing: ["M4 8 L18 8", "M6 16 L20 16 M12 10.5 L12 13.5"],
  parts: [
    { kind: "words", text: "to" },
    { kind: "pick", name: "of", label: "line or arc", takes: "curve" },
    { kind: "words", text: "at" },
    { kind: "value", name: "distance", label: "distance", expects: "length", stays: true },
    { kind: "pick", name: "side", label: "side", takes: "point", silent: true },
  ],
  propose: (given, { drawing, layer }) => {
    const { of } = given.picks;
    const curve = pickedCurve(drawing, of);
    const side = given.picks.side?.at ?? given.pointer;
    if (!of?.ref || !curve || !side || !given.isFirm("of")) return nothing;
    if (curve.kind !== "piece") return refused(refuse("cannot-parallel"));
    const typed = given.value("distance");
    const by = typed ?? distanceFrom(curve, side);
    if (by <= RESOLUTION) return nothing;
    const made = parallelPiece(curve, side, by);
    if (!made.ok) return refused(made);
    const source = of.ref;
    const way = makingWay(parallelLine, drawing, layer, [pieceShape(made.value)], (draft, [id]) =>
      linkCallout(draft, given.callout("distance"), [source, { id: id! }]),
    );
    return { ways: [way], ...(typed === undefined ? { live: { distance: by } } : {}) };
  },
};

export const shortest: Tool = {
  kind: "tool",
  id: "shortest-line",
  name: "Shortest line",
  bank: "KeyW",
  help: "Click two curves that do not meet: the shortest line between them, also of ellipses and free curves.",
  drawing: ["M10 12 L15 12", "M8 12 m-5 0 a5 5 0 1 1 7 0 M17 4 L17 20"],
  parts: [
    { kind: "words", text: "between" },
    { kind: "pick", name: "one", label: "curve", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other curve", takes: "curve" },
  ],
  propose: (given, { drawing, layer }) => {
    const [a, b] = [pickedCurve(drawing, given.picks.one), pickedCurve(drawing, given.picks.other)];
    if (!a || !b || !given.isFirm("one")) return nothing;
    const line = shortestLine(a, b);
    if (!line.ok) return given.isFirm("other") ? refused(line) : nothing;
    return { ways: [makingWay(shortest, drawing, layer, [pieceShape(line.value)])] };
  },
};

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
  bank: "KeyW",
  help: "Click the points it should run through, then Enter; a click on the first closes it. Its ends can leave what they start from and meet what they end on tangent. Free curve points moves them afterwards. It must become arcs before it is cut.",
  drawing: ["M3 17 C7 5 11 5 13 12 C15 19 19 17 21 7"],
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
