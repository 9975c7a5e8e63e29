import { curvesOf, type Entity } from "../../drawing/entity.ts";
import { carrierOf, curveNearest, curvePoint, type Carrier } from "../../geometry/curve.ts";
import { cross, distance, subtract } from "../../geometry/point.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import type { EditDraft } from "../draftEdit.ts";

const sameCarrier = (p: Carrier, q: Carrier): boolean => {
  if (p.kind === "circle")
    return q.kind === "circle" && distance(p.centre, q.centre) <= RESOLUTION && Math.abs(p.radius - q.radius) <= RESOLUTION; // prettier-ignore
  return (
    q.kind === "line" &&
    Math.abs(cross(p.direction, q.direction)) <= RESOLUTION &&
    Math.abs(cross(p.direction, subtract(q.at, p.at))) <= RESOLUTION
  );
};

/** What was attached to pieces that go follows to the pieces that lie on them now: on the same line or circle, and there. */
export const followCarriers = (draft: EditDraft, gone: readonly Entity[], added: readonly Entity[]): void => {
  const now = added.flatMap(curvesOf).map((one) => ({ ...one, carrier: carrierOf(one.curve) }));
  for (const { curve, ref } of gone.flatMap(curvesOf)) {
    const carrier = carrierOf(curve);
    if (!carrier) continue;
    const to = now.filter(
      (one) =>
        one.carrier &&
        sameCarrier(carrier, one.carrier) &&
        curveNearest(curve, curvePoint(one.curve, 0.5)).distance <= RESOLUTION,
    );
    if (to.length > 0) draft.follow(ref, to.map((one) => one.ref)); // prettier-ignore
  }
};
