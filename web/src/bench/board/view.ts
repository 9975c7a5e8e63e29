import type { Bounds, Point } from "@ash-edge/core/geometry";

/** How the drawing lies on the board: CSS pixels x = originX + scale·X, y = originY - scale·Y. */
export type View = { readonly scale: number; readonly originX: number; readonly originY: number };
export type Size = { readonly width: number; readonly height: number };

export const toScreen = ({ scale, originX, originY }: View, { x, y }: Point): Point => ({
  x: originX + scale * x,
  y: originY - scale * y,
});
export const toDrawing = ({ scale, originX, originY }: View, { x, y }: Point): Point => ({
  x: (x - originX) / scale,
  y: (originY - y) / scale,
});

export const panned = (view: View, dx: number, dy: number): View => ({
  ...view,
  originX: view.originX + dx,
  originY: view.originY + dy,
});

/** Scales that still make sense: from a speck to a thousandth of a unit filling the board. */
const [SMALLEST, LARGEST] = [1e-4, 1e7];

/** Zoomed by `factor` with the drawing held still under `at` (CSS pixels). */
export const zoomed = (view: View, at: Point, factor: number): View => {
  const scale = Math.min(LARGEST, Math.max(SMALLEST, view.scale * factor));
  const real = scale / view.scale;
  return { scale, originX: at.x - (at.x - view.originX) * real, originY: at.y - (at.y - view.originY) * real };
};

/** The view that shows `bounds` with a margin of a tenth. */
export const fitted = ({ minX, minY, maxX, maxY }: Bounds, { width, height }: Size): View => {
  const [w, h] = [Math.max(maxX - minX, 1e-6), Math.max(maxY - minY, 1e-6)];
  const scale = Math.min(LARGEST, Math.max(SMALLEST, Math.min((width * 0.8) / w, (height * 0.8) / h)));
  return { scale, originX: width / 2 - (scale * (minX + maxX)) / 2, originY: height / 2 + (scale * (minY + maxY)) / 2 };
};

/** What of the drawing is in sight. */
export const inSight = (view: View, { width, height }: Size): Bounds => {
  const [low, high] = [toDrawing(view, { x: 0, y: height }), toDrawing(view, { x: width, y: 0 })];
  return { minX: low.x, minY: low.y, maxX: high.x, maxY: high.y };
};

/** CSS pixels per inch (96) put to the paper: `1 : 2.5` for what is shown smaller than it is. */
export const zoomRatio = ({ scale }: View, unit: "mm" | "in"): string => {
  const ratio = scale / (unit === "in" ? 96 : 96 / 25.4);
  const shown = (value: number): string =>
    value >= 10 ? value.toFixed(0) : value.toFixed(value < 2 ? 2 : 1).replace(/\.?0+$/, "");
  return ratio >= 1 ? `${shown(ratio)} : 1` : `1 : ${shown(1 / ratio)}`;
};
