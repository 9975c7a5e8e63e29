import {
  arcFrom,
  arcFromWithRadius,
  arcsAbout,
  arcsByHeight,
  arcsByRadius,
  arcsBySweep,
  arcsBySweepAbout,
  arcThrough,
  circleOnDiameter,
  circlesTouchingThree,
  circleThrough,
  ellipseByAxes,
  ellipsePart,
  ellipseThrough,
  tangentCircles,
  tangentCirclesSmooth,
} from "@ash-edge/core/construct";
import type { Drawing } from "@ash-edge/core/drawing";
import { outlineEnd } from "@ash-edge/core/edits";
import {
  carrierOf,
  distance,
  isSmooth,
  midpoint,
  pieceRadius,
  type Curve,
  type Piece,
  type Point,
} from "@ash-edge/core/geometry";
import { done, refuse, RESOLUTION, toRadians, type Outcome } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { linkCallout } from "./linking.ts";
import { makingWay, pickedCurve, pieceShape } from "./making.ts";
import {
  nothing,
  refused,
  under,
  type Given,
  type Picked,
  type Proposal,
  type Tool,
  type ToolContext,
} from "./tool.ts";
import { canTouch, WHERE_TOUCHED } from "./touching.ts";

const dot = (x: number, y: number): string => `M${x} ${y} m-1.6 0 a1.6 1.6 0 1 0 3.2 0 a1.6 1.6 0 1 0 -3.2 0`;
const RING = "M20 12 A8 8 0 1 1 4 12 A8 8 0 1 1 20 12";

const circleProposal = (
  tool: Tool,
  circle: Outcome<{ centre: Point; radius: number }>,
  firm: boolean,
  { drawing, layer }: ToolContext,
): Proposal => {
  if (!circle.ok) return firm ? refused(circle) : nothing;
  const { centre, radius } = circle.value;
  return { ways: [makingWay(tool, drawing, layer, [{ kind: "circle", centre, radius }])], live: { size: radius } };
};

export const circleByTwoPoints: Tool = {
  kind: "tool",
  id: "circle-by-two-points",
  name: "Circle by two points",
  bank: "KeyE",
  help: "Click the two ends of a diameter.",
  drawing: [RING, `M4 12 L20 12 ${dot(4, 12)} ${dot(20, 12)}`],
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "one", label: "point", takes: "point" },
    { kind: "words", text: "across to" },
    { kind: "pick", name: "other", label: "other point", takes: "point" },
  ],
  from: "one",
  propose: (given, context) => {
    const { one, other } = given.picks;
    if (!one || !other || !given.isFirm("one")) return nothing;
    return circleProposal(circleByTwoPoints, circleOnDiameter(one.at, other.at), given.isFirm("other"), context);
  },
};

export const circleByThreePoints: Tool = {
  kind: "tool",
  id: "circle-by-three-points",
  name: "Circle by three points",
  bank: "KeyE",
  help: "Click three points that its rim runs through, in any order.",
  drawing: [RING, `${dot(12, 4)} ${dot(5.1, 16)} ${dot(18.9, 16)}`],
  parts: [
    { kind: "words", text: "through" },
    { kind: "pick", name: "one", label: "point", takes: "point" },
    { kind: "pick", name: "two", label: "point 2", takes: "point" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "three", label: "point 3", takes: "point" },
  ],
  propose: (given, context) => {
    const { one, two, three } = given.picks;
    if (!one || !two || !given.isFirm("one")) return nothing;
    if (!three || !given.isFirm("two"))
      return circleProposal(circleByThreePoints, circleOnDiameter(one.at, two.at), false, context).ways.length > 0
        ? { ways: [], note: "Click the third point" }
        : nothing;
    return circleProposal(circleByThreePoints, circleThrough(one.at, two.at, three.at), given.isFirm("three"), context);
  },
};

/** Circles of a radius that touch two curves, the nearest to the picks first; arcs only where they really are. */
export const touchingTwo = (
  a: Curve,
  b: Curve,
  radius: number,
  pickA: Point,
  pickB: Point,
): ReturnType<typeof tangentCircles> => {
  const [onA, onB] = [carrierOf(a), carrierOf(b)];
  if (onA && onB) return tangentCircles(onA, onB, radius, midpoint(pickA, pickB));
  if (isSmooth(a)) return tangentCirclesSmooth(a, b, radius);
  const turned = tangentCirclesSmooth(b as Extract<Curve, { kind: "ellipse" | "free" }>, a, radius);
  return turned.ok ? done(turned.value.map(({ centre, onA: p, onB: q }) => ({ centre, onA: q, onB: p }))) : turned;
};

export const circleTouchingTwo: Tool = {
  kind: "tool",
  id: "circle-touching-two",
  name: "Circle touching two",
  bank: "KeyE",
  help: "Pick two of line, circle, arc and ellipse, each near where the circle should touch, with R or Ø typed. Space shows the next: outside or inside.",
  drawing: [RING, "M2 20 L22 20 M20 2 L20 22"],
  parts: [
    { kind: "words", text: "touching" },
    { kind: "pick", name: "one", label: "curve", takes: "curve" },
    { kind: "words", text: "and" },
    { kind: "pick", name: "other", label: "other curve", takes: "curve" },
    { kind: "words", text: "with" },
    { kind: "size", name: "size", first: "R" },
    { kind: "words", text: "·" },
    WHERE_TOUCHED,
  ],
  propose: (given, { drawing, layer }) => {
    const { one, other } = given.picks;
    const [a, b] = [pickedCurve(drawing, one), pickedCurve(drawing, other)];
    if (!a || !b || !one || !other || !given.isFirm("one")) return nothing;
    const radius = given.radius("size");
    if (radius === undefined)
      return given.isFirm("other") ? refused(refuse("value-empty")) : { ways: [], note: "Type R or Ø" };
    const found = touchingTwo(a, b, radius, one.at, other.at);
    if (!found.ok) return refused(found);
    const miss = ({ onA, onB }: { onA: Point; onB: Point }): number => distance(onA, one.at) + distance(onB, other.at);
    const touches = canTouch(given);
    const real = found.value.filter(({ onA, onB }) => touches(a, onA) && touches(b, onB));
    if (real.length === 0) return refused(refuse("touch-beyond-end"));
    return {
      ways: [...real]
        .sort((p, q) => miss(p) - miss(q))
        .map(({ centre }) =>
          makingWay(circleTouchingTwo, drawing, layer, [{ kind: "circle", centre, radius }], (draft, [id]) =>
            linkCallout(draft, given.callout("size"), [{ id: id! }]),
          ),
        ),
    };
  },
};

export const circleTouchingThree: Tool = {
  kind: "tool",
  id: "circle-touching-three",
  name: "Circle touching three",
  bank: "KeyE",
  help: "Pick three of line, circle and arc, each near where the circle should touch. There are up to eight: Space shows the next.",
  drawing: ["M18 12 A6 6 0 1 1 6 12 A6 6 0 1 1 18 12", "M2 20 L9 2 M22 20 L15 2 M2 18 L22 18"],
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

const arcProposal = (
  tool: Tool,
  arcs: Outcome<readonly Piece[]>,
  firm: boolean,
  given: Given,
  { drawing, layer }: ToolContext,
): Proposal => {
  if (!arcs.ok) return firm ? refused(arcs) : nothing;
  return {
    ways: arcs.value.map((arc) =>
      makingWay(tool, drawing, layer, [pieceShape(arc)], (draft, [id]) =>
        linkCallout(draft, given.callout("size"), [{ id: id! }]),
      ),
    ),
    ...(given.radius("size") === undefined ? { live: { size: pieceRadius(arcs.value[0]!) } } : {}),
  };
};
const one = (arc: Outcome<Piece>): Outcome<readonly Piece[]> => (arc.ok ? done([arc.value]) : arc);

export const arcByThreePoints: Tool = {
  kind: "tool",
  id: "arc-by-three-points",
  name: "Arc by three points",
  bank: "KeyE",
  help: "Click its start, a point that it runs through, and its end.",
  drawing: ["M4 18 A9.5 9.5 0 0 1 20 18", `${dot(4, 18)} ${dot(12, 8.6)} ${dot(20, 18)}`],
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "through" },
    { kind: "pick", name: "through", label: "through", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "end", takes: "point" },
  ],
  from: "from",
  propose: (given, context) => {
    const { from, through, to } = given.picks;
    if (!from || !through || !given.isFirm("from")) return nothing;
    if (!to || !given.isFirm("through"))
      return { ways: [{ preview: [{ shape: pieceShape({ a: from.at, b: through.at, bulge: 0 }) }] }] };
    return arcProposal(
      arcByThreePoints,
      one(arcThrough(from.at, through.at, to.at)),
      given.isFirm("to"),
      given,
      context,
    );
  },
};

export const arcByCentre: Tool = {
  kind: "tool",
  id: "arc-by-centre",
  name: "Arc by centre",
  bank: "KeyE",
  help: "Click the centre, the start and the end; R or Ø typed puts the start at that distance, a typed sweep needs no end. Space shows the other way round.",
  drawing: ["M20 12 A8 8 0 0 0 12 4", `M12 12 L20 12 M12 12 L12 4 ${dot(12, 12)}`],
  parts: [
    { kind: "words", text: "about" },
    { kind: "pick", name: "centre", label: "centre", takes: "point" },
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "start", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "end", takes: "point" },
    { kind: "words", text: "· with" },
    { kind: "size", name: "size", first: "R" },
    { kind: "words", text: "sweep" },
    { kind: "value", name: "sweep", label: "sweep", expects: "angle", stays: false },
  ],
  from: "centre",
  wants: ({ value }) => ["centre", "from", ...(value("sweep") === undefined ? ["to"] : [])],
  propose: (given, context) => {
    const { centre, from, to } = given.picks;
    if (!centre || !from || !given.isFirm("centre")) return nothing;
    const radius = given.radius("size");
    const away = distance(centre.at, from.at);
    if (away <= RESOLUTION) return nothing;
    const start =
      radius === undefined
        ? from.at
        : {
            x: centre.at.x + ((from.at.x - centre.at.x) * radius) / away,
            y: centre.at.y + ((from.at.y - centre.at.y) * radius) / away,
          };
    const sweep = given.value("sweep");
    if (sweep !== undefined)
      return arcProposal(
        arcByCentre,
        arcsBySweepAbout(centre.at, start, toRadians(sweep)),
        given.isFirm("from"),
        given,
        context,
      );
    if (!to || !given.isFirm("from"))
      return {
        ways: [{ preview: [{ shape: pieceShape({ a: centre.at, b: start, bulge: 0 }) }] }],
        live: { size: radius ?? away },
      };
    return arcProposal(arcByCentre, arcsAbout(centre.at, start, to.at), given.isFirm("to"), given, context);
  },
};

export const arcByEnds: Tool = {
  kind: "tool",
  id: "arc-by-ends",
  name: "Arc by its ends",
  bank: "KeyE",
  help: "Click both ends, with R or Ø, the sweep, or the height over the chord typed. Space shows the other side, and of a radius the long way round.",
  drawing: ["M4 17 A10 10 0 0 1 20 17", `M4 17 L20 17 ${dot(4, 17)} ${dot(20, 17)}`],
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "end", takes: "point" },
    { kind: "words", text: "with" },
    {
      kind: "choice",
      name: "by",
      label: "by",
      options: [
        ["radius", "R"],
        ["sweep", "sweep"],
        ["height", "height"],
        ["start", "direction"],
      ],
    },
    { kind: "size", name: "size", first: "R", onlyIf: under("by", "radius") },
    { kind: "value", name: "sweep", label: "sweep", expects: "angle", stays: false, onlyIf: under("by", "sweep") },
    { kind: "value", name: "height", label: "height", expects: "length", stays: true, onlyIf: under("by", "height") },
    {
      kind: "value",
      name: "start",
      label: "start direction",
      expects: "angle",
      stays: false,
      signed: true,
      onlyIf: under("by", "start"),
    },
  ],
  from: "from",
  propose: (given, context) => {
    const { from, to } = given.picks;
    if (!from || !to || !given.isFirm("from")) return nothing;
    const by = given.choice("by");
    const typed = by === "radius" ? given.radius("size") : given.value(by);
    if (typed === undefined)
      return given.isFirm("to") ? refused(refuse("value-empty")) : { ways: [], note: "Type its size" };
    const arcs =
      by === "radius"
        ? arcsByRadius(from.at, to.at, typed)
        : by === "sweep"
          ? arcsBySweep(from.at, to.at, toRadians(typed))
          : by === "height"
            ? arcsByHeight(from.at, to.at, typed)
            : one(arcFrom(from.at, toRadians(typed), to.at));
    const short = distance(from.at, to.at) <= RESOLUTION;
    return short ? nothing : arcs.ok ? arcProposal(arcByEnds, arcs, true, given, context) : refused(arcs);
  },
};

/** The place and direction in which a picked end runs out, of a loose line or arc or an open chain. */
const runningOut = (drawing: Drawing, picked: Picked | undefined): { at: Point; direction: number } | undefined => {
  const end = picked && outlineEnd(drawing, picked);
  return picked && end?.arrives !== undefined ? { at: picked.at, direction: end.arrives } : undefined;
};

export const arcOnFromAnEnd: Tool = {
  kind: "tool",
  id: "arc-on-from-an-end",
  name: "Arc on from an end",
  bank: "KeyE",
  help: "Click the end of a line, an arc or an open chain: an arc goes on from it without a corner, to where you click, or with R or Ø and the sweep typed.",
  drawing: ["M3 17 L11 17 A7 7 0 0 0 18 10 L18 7", dot(11, 17)],
  parts: [
    { kind: "words", text: "on from" },
    { kind: "pick", name: "from", label: "end", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "point", takes: "point" },
    { kind: "words", text: "· with" },
    { kind: "size", name: "size", first: "R" },
    { kind: "words", text: "sweep" },
    { kind: "value", name: "sweep", label: "sweep", expects: "angle", stays: false },
  ],
  from: "from",
  propose: (given, context) => {
    const start = runningOut(context.drawing, given.picks.from);
    const to = given.picks.to?.at ?? given.pointer;
    if (!given.picks.from || !given.isFirm("from")) return nothing;
    if (!start) return refused(refuse("no-end-here"));
    if (!to) return nothing;
    const radius = given.radius("size");
    const sweep = given.value("sweep");
    const arc =
      radius === undefined
        ? arcFrom(start.at, start.direction, to)
        : arcFromWithRadius(start.at, start.direction, radius, to, sweep === undefined ? undefined : toRadians(sweep));
    return arcProposal(arcOnFromAnEnd, one(arc), given.isFirm("to"), given, context);
  },
};

export const ellipse: Tool = {
  kind: "tool",
  id: "ellipse",
  name: "Ellipse",
  bank: "KeyE",
  help: "Click the centre and the end of one half axis; the other half axis is typed, or the ellipse runs through a third click. A part of it runs from a fourth click round to a fifth. It must become arcs before it is cut.",
  drawing: ["M22 12 A10 6 0 1 1 2 12 A10 6 0 1 1 22 12", "M12 12 L22 12 M12 12 L12 6"],
  parts: [
    { kind: "words", text: "about" },
    { kind: "pick", name: "centre", label: "centre", takes: "point" },
    { kind: "words", text: "half axis to" },
    { kind: "pick", name: "end", label: "end of the half axis", takes: "point" },
    { kind: "words", text: "· long" },
    { kind: "value", name: "long", label: "half axis", expects: "length", stays: true },
    { kind: "words", text: "the other" },
    { kind: "value", name: "half", label: "other half axis", expects: "length", stays: true },
    { kind: "pick", name: "on", label: "point of it", takes: "point", silent: true },
    {
      kind: "choice",
      name: "much",
      label: "how much",
      options: [
        ["whole", "whole"],
        ["part", "a part"],
      ],
    },
    { kind: "pick", name: "first", label: "from", takes: "point", onlyIf: under("much", "part") },
    { kind: "pick", name: "last", label: "round to", takes: "point", onlyIf: under("much", "part") },
  ],
  from: "centre",
  wants: ({ value, choice }) => [
    "centre",
    "end",
    ...(value("half") === undefined ? ["on"] : []),
    ...(choice("much") === "part" ? ["first", "last"] : []),
  ],
  propose: (given, { drawing, layer }) => {
    const { centre, end, on, first, last } = given.picks;
    if (!centre || !end || !given.isFirm("centre")) return nothing;
    const away = distance(centre.at, end.at);
    if (away <= RESOLUTION) return nothing;
    const long = given.value("long");
    const tip =
      long === undefined
        ? end.at
        : {
            x: centre.at.x + ((end.at.x - centre.at.x) * long) / away,
            y: centre.at.y + ((end.at.y - centre.at.y) * long) / away,
          };
    const half = given.value("half");
    const live = { ...(long === undefined ? { long: away } : {}) };
    if (half === undefined && (!on || !given.isFirm("end")))
      return { ways: [{ preview: [{ shape: pieceShape({ a: centre.at, b: tip, bulge: 0 }) }] }], live };
    const made = half === undefined ? ellipseThrough(centre.at, tip, on!.at) : ellipseByAxes(centre.at, tip, half);
    if (!made.ok) return given.isFirm("on") ? refused(made) : nothing;
    const whole: Shape = { kind: "ellipse", ...made.value };
    if (given.choice("much") === "whole")
      return given.isFirm("end") || half !== undefined
        ? { ways: [makingWay(ellipse, drawing, layer, [whole])], live }
        : nothing;
    if (!first || !last || !given.isFirm("first")) return { ways: [{ preview: [{ shape: whole }] }], live };
    const part = ellipsePart(made.value, first.at, last.at);
    if (!part.ok) return given.isFirm("last") ? refused(part) : nothing;
    return { ways: [makingWay(ellipse, drawing, layer, [{ kind: "ellipse", ...part.value }])], live };
  },
};
