import { carrierNearest, carrierOf, curveNearest } from "../../../geometry/curve.ts";
import { distance, type Point } from "../../../geometry/point.ts";
import { done, refuse, type Outcome } from "../../../numeric/outcome.ts";
import { inkOff } from "../proposal.ts";
import {
  ended,
  endsOf,
  FEWEST,
  fitted,
  found,
  kindOf,
  nearestEnds,
  onCarrier,
  pieceOn,
  withShape,
  type Kind,
  type Proposals,
} from "./pieces.ts";

/** A line is meant where its ink lies no more than so many times as far off as off an arc; or so much of its length. */
const [STRAIGHTER, BOWS] = [1.25, 0.012];

/**
 * A proposal as a line, an arc or a circle: the nearest to its own ink, so that what was found to hold at it holds no
 * more. What it met it meets still, where both go. Refused where its ink tells no such piece.
 */
export const asKind = (all: Proposals, id: number, kind: Kind): Outcome<Proposals> => {
  const own = found(all, id);
  const carrier = own && fitted(own.ink, kind);
  if (!own || !carrier) return refuse("trace-no-fit", { kind });
  if (kind === "circle" && carrier.kind === "circle")
    return done(all.map((one) => (one.id === id ? withShape(own, carrier) : one)));
  const [a, b] = endsOf(own).map(({ at }) => at);
  return done(onCarrier(all, own, carrier, a && b ? [a, b] : [own.ink[0]!, own.ink.at(-1)!]));
};

/** Two proposals as one from their far ends, of the kind that lies nearer to the ink of both; it has the first's id. */
export const mergedInto = (all: Proposals, one: number, other: number): Outcome<Proposals> => {
  const [p, q] = [ended(all, one), ended(all, other)];
  if (!p || !q) return refuse("trace-no-merge");
  const [own, into] = nearestEnds(p, q);
  const ink = [...(own.end === "b" ? p.ink : p.ink.toReversed()), ...(into.end === "a" ? q.ink : q.ink.toReversed())];
  const [a, b] = [p.shape[own.end === "b" ? "a" : "b"], q.shape[into.end === "a" ? "b" : "a"]];
  const [line, arc] = (["line", "arc"] as const).map((kind) => {
    const carrier = fitted(ink, kind);
    if (!carrier) return undefined;
    const piece = pieceOn(carrier, carrierNearest(carrier, a), carrierNearest(carrier, b), ink);
    return { carrier, off: inkOff(ink, { kind: "piece", ...piece }) };
  });
  // a hand's line bows a little: of two lines one is meant
  const bows = kindOf(p) === "line" && kindOf(q) === "line" ? BOWS * distance(a, b) : 0;
  const best = line && (!arc || line.off <= Math.max(STRAIGHTER * arc.off, bows)) ? line : arc;
  if (!best) return refuse("trace-no-merge");
  // it lies between their far ends, where others meet it
  const whole = withShape(p, { kind: "piece", a, b, bulge: 0 }, ink);
  const rest = all.flatMap((two) => (two.id === one ? [whole] : two.id === other ? [] : [two]));
  return done(onCarrier(rest, whole, best.carrier, [a, b]));
};

/** A proposal as two on what it lies on, parted where its ink comes nearest to a place; the second has the id given. */
export const splitAt = (all: Proposals, id: number, at: Point, next: number): Outcome<Proposals> => {
  const own = ended(all, id);
  if (!own) return refuse("trace-no-split");
  const near = own.ink.reduce((best, p, i) => (distance(p, at) < distance(own.ink[best]!, at) ? i : best), 0);
  const inks = [own.ink.slice(0, near + 1), own.ink.slice(near)] as const;
  const fewest = FEWEST[kindOf(own)] + 1;
  if (inks.some((ink) => ink.length < fewest)) return refuse("trace-no-split");
  const { at: place } = curveNearest(own.shape, at);
  const carrier = carrierOf(own.shape)!;
  const first = withShape(own, { kind: "piece", ...pieceOn(carrier, own.shape.a, place, inks[0]) }, inks[0]);
  const second = withShape(own, { kind: "piece", ...pieceOn(carrier, place, own.shape.b, inks[1]) }, inks[1]);
  return done(all.flatMap((one) => (one.id === id ? [first, { ...second, id: next }] : [one])));
};
