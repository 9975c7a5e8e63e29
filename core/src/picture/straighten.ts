import { NO_LENGTH } from "../numeric/tolerance.ts";
import { greatest, least } from "../numeric/greatest.ts";
import { cross, distance, subtract, type Point } from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { homographyOf, throughHomography, type Homography } from "./homography.ts";

/** Pixels, row by row from the top left, as red, green, blue and opacity. */
export type Pixels = { readonly width: number; readonly height: number; readonly data: Uint8ClampedArray };

/** How a photo becomes a straight picture: pixel places (y down) there and back, and the picture's scale. */
export type StraightenPlan = {
  readonly width: number;
  readonly height: number;
  /** Units of the job per pixel of the straight picture. */
  readonly scale: number;
  readonly toPhoto: Homography;
  readonly fromPhoto: Homography;
};

/** The straight picture is at most this many pixels long: enough for 0.2 mm on a three metre slab. */
const LONGEST = 6000;
/**
 * What lies beyond the rectangle is kept as far as this many times its size, and no nearer to the horizon than w =
 * 0.15.
 */
const BEYOND = 1;
const HORIZON = 0.15;
/** Corners nearer to each other, or to the line of two others, than this part of the photo say nothing. */
const LEAST = 0.01;

/**
 * The plan by which a photo is straightened: the four `corners` (pixels, y down, clicked round the rectangle either
 * way) belong to a rectangle whose side from the first to the second corner is `width` long and whose next side is
 * `height`. The picture keeps the way the photo was held. Refused: corners that cross over, three in a line, too near
 * to each other, or no lengths.
 */
export const planStraighten = (
  corners: readonly [Point, Point, Point, Point],
  width: number,
  height: number,
  photo: { readonly width: number; readonly height: number },
): Outcome<StraightenPlan> => {
  if (!(width > 0 && height > 0)) return refuse("value-not-positive", { what: "A side of the rectangle" });
  const least = LEAST * Math.max(photo.width, photo.height);
  const turns = corners.map((p, i) => {
    const [q, r] = [corners[(i + 1) % 4]!, corners[(i + 2) % 4]!];
    return cross(subtract(q, p), subtract(r, q)) / Math.max(distance(p, q), distance(q, r), NO_LENGTH);
  });
  const near = corners.some((p, i) => corners.slice(i + 1).some((q) => distance(p, q) < least));
  if (near || turns.some((turn) => Math.abs(turn) < least)) return refuse("corners-in-line");
  if (turns.some((turn) => turn > 0) && turns.some((turn) => turn < 0)) return refuse("corners-crossed");

  // the rectangle, its first side pointing the way it points in the photo, to the nearest quarter turn
  const side = subtract(corners[1], corners[0]);
  const quarter = Math.round(Math.atan2(side.y, side.x) / (Math.PI / 2));
  const sense = turns[0]! > 0 ? 1 : -1; // y down: positive turns run clockwise as seen
  const turned = ({ x, y }: Point): Point => {
    const [c, s] = [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ][((quarter % 4) + 4) % 4] as [number, number];
    return { x: c * x - s * y, y: s * x + c * y };
  };
  const rectangle = [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: sense * height },
    { x: 0, y: sense * height },
  ].map(turned);
  const fromPhoto = homographyOf(corners, rectangle);
  const back = homographyOf(rectangle, corners);
  if (!fromPhoto || !back) return refuse("corners-in-line");

  const box = seenBox(fromPhoto, rectangle, photo);
  const density = greatest(corners.map((p, i) => distance(p, corners[(i + 1) % 4]!) / (i % 2 === 0 ? width : height)));
  const long = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  const scale = Math.max(1 / density, long / LONGEST);
  const place = (h: Homography): Homography => shifted(h, box, scale);
  return done({
    width: Math.max(1, Math.round((box.maxX - box.minX) / scale)),
    height: Math.max(1, Math.round((box.maxY - box.minY) / scale)),
    scale,
    toPhoto: place(back),
    fromPhoto: withOutput(fromPhoto, box, scale),
  });
};

type Box = { minX: number; minY: number; maxX: number; maxY: number };

/** The part of the straight plane that the photo shows, as far as it is of use. */
const seenBox = (fromPhoto: Homography, rectangle: readonly Point[], photo: { width: number; height: number }): Box => {
  const of = (points: readonly Point[]): Box => ({
    minX: least(points.map(({ x }) => x)),
    minY: least(points.map(({ y }) => y)),
    maxX: greatest(points.map(({ x }) => x)),
    maxY: greatest(points.map(({ y }) => y)),
  });
  const inner = of(rectangle);
  const reach = BEYOND * Math.max(inner.maxX - inner.minX, inner.maxY - inner.minY);
  const middle = throughHomography(fromPhoto, { x: photo.width / 2, y: photo.height / 2 }).w;
  const edge: Point[] = [];
  for (let i = 0; i <= 24; i++)
    for (const p of [
      { x: (photo.width * i) / 24, y: 0 },
      { x: (photo.width * i) / 24, y: photo.height },
      { x: 0, y: (photo.height * i) / 24 },
      { x: photo.width, y: (photo.height * i) / 24 },
    ]) {
      const { x, y, w } = throughHomography(fromPhoto, p);
      if (w > HORIZON * Math.abs(middle)) edge.push({ x, y });
    }
  const seen = of([...edge, ...rectangle]);
  return {
    minX: Math.max(seen.minX, inner.minX - reach),
    minY: Math.max(seen.minY, inner.minY - reach),
    maxX: Math.min(seen.maxX, inner.maxX + reach),
    maxY: Math.min(seen.maxY, inner.maxY + reach),
  };
};

/** `h` of the plane, asked with pixels of the picture instead. */
const shifted = (h: Homography, { minX, minY }: Box, scale: number): Homography => [
  h[0] * scale,
  h[1] * scale,
  h[0] * minX + h[1] * minY + h[2],
  h[3] * scale,
  h[4] * scale,
  h[3] * minX + h[4] * minY + h[5],
  h[6] * scale,
  h[7] * scale,
  h[6] * minX + h[7] * minY + h[8],
];

/** `h` to the plane, answering with pixels of the picture instead. */
const withOutput = (h: Homography, { minX, minY }: Box, scale: number): Homography => [
  (h[0] - minX * h[6]) / scale,
  (h[1] - minX * h[7]) / scale,
  (h[2] - minX * h[8]) / scale,
  (h[3] - minY * h[6]) / scale,
  (h[4] - minY * h[7]) / scale,
  (h[5] - minY * h[8]) / scale,
  h[6],
  h[7],
  h[8],
];

/**
 * Fills rows `from` to `to` of the straight picture from the photo, each pixel by the four around its place (bilinear).
 * Beyond the photo it stays clear. Rows, so that a worker can say how far it is and be stopped.
 */
export const straightenRows = (photo: Pixels, plan: StraightenPlan, target: Pixels, from: number, to: number): void => {
  const { width, height, data } = photo;
  for (let row = from; row < to; row++) {
    for (let column = 0; column < target.width; column++) {
      const { x, y, w } = throughHomography(plan.toPhoto, { x: column + 0.5, y: row + 0.5 });
      const [left, top] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
      if (!(w > 0) || left < -1 || top < -1 || left >= width || top >= height) continue;
      const [u, v] = [x - 0.5 - left, y - 0.5 - top];
      const [x0, x1] = [Math.max(left, 0), Math.min(left + 1, width - 1)];
      const [y0, y1] = [Math.max(top, 0) * width, Math.min(top + 1, height - 1) * width];
      const at = 4 * (row * target.width + column);
      for (let channel = 0; channel < 4; channel++) {
        const upper = data[4 * (y0 + x0) + channel]! * (1 - u) + data[4 * (y0 + x1) + channel]! * u;
        const lower = data[4 * (y1 + x0) + channel]! * (1 - u) + data[4 * (y1 + x1) + channel]! * u;
        target.data[at + channel] = upper * (1 - v) + lower * v;
      }
    }
  }
};
