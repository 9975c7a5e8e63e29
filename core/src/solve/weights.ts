import { settingsOf } from "../drawing/drawing.ts";
import { distance } from "../geometry/point.ts";
import { linAt, spotAt } from "./lin.ts";
import type { Model } from "./model.ts";

/** What helps to tell a place is held nowhere; a flat arc's centre hardly. */
const [HELP, LEAST] = [1e-6, 1e-3];
/** What lies near the datum stays rather than what lies far from it, by so much. */
const NEAR_DATUM = 0.01;

/** How much each unknown is wanted where it is. */
export const weightsOf = (model: Model): Float64Array => {
  const weights = Float64Array.from(model.sorts, (sort) => (sort === "help" ? HELP : 1));
  const { datum } = settingsOf(model.drawing);
  const from = { x: (datum.x - model.origin.x) / model.size, y: (datum.y - model.origin.y) / model.size };
  const bias = (at: { readonly x: number; readonly y: number }): number =>
    1 + NEAR_DATUM / (1 + 4 * distance(at, from));
  for (const { a, b } of model.edges)
    for (const end of [a, b])
      for (const lin of [end.x, end.y]) if (lin.at.length > 0) weights[lin.at[0]!] = bias(spotAt(end, model.start));
  for (const { centre } of model.rounds)
    for (const lin of [centre.x, centre.y])
      if (lin.at.length > 0) weights[lin.at[0]!] = bias(spotAt(centre, model.start));
  for (const { arc, piece } of model.edges) {
    if (!arc) continue;
    // how much an arc's middle moves with its centre and its radius, while its ends stay
    const part = distance(piece.a, piece.b) / (2 * linAt(arc.radius, model.start));
    const weight = Math.abs(arc.sweep) >= Math.PI ? 1 : Math.max(LEAST, part * part);
    for (const lin of [arc.centre.x, arc.centre.y, arc.radius]) if (lin.at.length > 0) weights[lin.at[0]!] = weight;
  }
  return weights;
};
