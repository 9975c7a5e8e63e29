import { calloutsOf, curveAt, entityOf, isLayout, settingsOf, unitOf, type Drawing } from "../drawing/drawing.ts";
import { DATUM, sameTarget, type Ref } from "../drawing/ref.ts";
import { carrierOf, isSmooth } from "../geometry/curve.ts";
import { halfAxes } from "../geometry/ellipse.ts";
import { pieceLength } from "../geometry/piece.ts";
import { subtract, type Point } from "../geometry/point.ts";
import { derivedNumber, showLength } from "../numeric/showValue.ts";

/** A short name of what a reference points at, as the sentence shows it: its callout's name, else kind and size. */
export const describeRef = (drawing: Drawing, ref: Ref): string => {
  if (ref.id === DATUM.id) return "datum";
  const entity = entityOf(drawing, ref.id);
  if (!entity) return "gone";
  if (entity.kind === "point") return "point";
  const curve = curveAt(drawing, ref);
  if (!curve) return entity.kind === "chain" ? (entity.closed ? "contour" : "chain") : entity.kind;
  const layout = isLayout(drawing, entity) ? "layout " : "";
  const carrier = carrierOf(curve);
  const callout = calloutsOf(drawing).find(
    ({ kind, links }) => (kind === "radius" || kind === "diameter") && links.some((link) => sameTarget(link, ref)),
  );
  if (isSmooth(curve)) {
    const name = curve.kind === "ellipse" ? "ellipse" : "free curve";
    if (curve.kind === "free") return `${layout}${name}`;
    const [a, b] = halfAxes(curve).map((half) => showLength(derivedNumber(2 * half), unitOf(drawing)));
    return `${layout}${name} ${a} × ${b}`;
  }
  if (carrier?.kind === "circle") {
    const name = callout?.name ?? `${layout}${curve.kind === "circle" ? "circle" : "arc"}`;
    const size =
      curve.kind === "circle"
        ? `Ø ${showLength(2 * carrier.radius, unitOf(drawing))}`
        : `R ${showLength(derivedNumber(carrier.radius), unitOf(drawing))}`;
    return `${name} ${size}`;
  }
  if (curve.kind === "endless") return "layout line";
  return `${layout}line ${showLength(pieceLength(curve as never), unitOf(drawing))}`;
};

/** A point as words: `x 1.5, y 0.25`. */
export const describePoint = (drawing: Drawing, p: Point): string => {
  const unit = unitOf(drawing);
  const { x, y } = subtract(p, settingsOf(drawing).datum);
  return x === 0 && y === 0 ? "datum" : `x ${showLength(x, unit)}, y ${showLength(y, unit)}`;
};
