import { expect, it } from "vitest";
import { applyEdit, entitiesOf, newDrawing, PROFILE_LAYER, type Drawing } from "../../drawing/index.ts";
import { transformEntities } from "../../edits/copies/transformEntities.ts";
import { pieceNearest, pieceRadius, type Piece } from "../../geometry/piece.ts";
import { distance, type Point } from "../../geometry/point.ts";
import { moving } from "../../geometry/transform.ts";
import { profileOf } from "../../profile/index.ts";
import { randomFrom } from "../../testing/contours.ts";
import { acceptShapes, tracePicture, type PictureTrace } from "./index.ts";
import type { Pixels } from "../straighten.ts";

/** A sheet with strokes so wide about pieces and circles, grey where they end, on paper that is not quite even. */
const sheet = (
  width: number,
  height: number,
  pieces: readonly Piece[],
  circles: readonly { readonly centre: Point; readonly radius: number }[],
  stroke: number,
  noise = 0,
): Pixels => {
  const random = randomFrom(7);
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const p = { x: x + 0.5, y: y + 0.5 };
      let far = Infinity;
      for (const piece of pieces) far = Math.min(far, pieceNearest(piece, p).distance);
      for (const { centre, radius } of circles) far = Math.min(far, Math.abs(distance(p, centre) - radius));
      const ink = Math.min(1, Math.max(0, stroke / 2 - far + 0.5));
      const light = 235 - 180 * ink + noise * (random() - 0.5);
      const at = 4 * (y * width + x);
      data[at] = data[at + 1] = data[at + 2] = light;
      data[at + 3] = 255;
    }
  return { width, height, data };
};

/** A rectangle with round corners about a place, turned. */
const rounded = ({ x, y }: Point, w: number, h: number, r: number, angle: number): readonly Piece[] => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const at = (u: number, v: number): Point => ({ x: x + u * c - v * s, y: y + u * s + v * c });
  const [p, q] = [w / 2, h / 2];
  const bulge = Math.tan(Math.PI / 8);
  return [
    { a: at(r - p, -q), b: at(p - r, -q), bulge: 0 },
    { a: at(p - r, -q), b: at(p, r - q), bulge },
    { a: at(p, r - q), b: at(p, q - r), bulge: 0 },
    { a: at(p, q - r), b: at(p - r, q), bulge },
    { a: at(p - r, q), b: at(r - p, q), bulge: 0 },
    { a: at(r - p, q), b: at(-p, q - r), bulge },
    { a: at(-p, q - r), b: at(-p, r - q), bulge: 0 },
    { a: at(-p, r - q), b: at(r - p, -q), bulge },
  ];
};

const traced = (pixels: Pixels): PictureTrace => {
  const answer = tracePicture(pixels);
  if (!answer.ok) throw new Error(answer.refusal.code);
  return answer.value;
};
const outline = ({ proposals }: PictureTrace) => proposals.filter(({ group }) => group === "outline");
const accepted = (found: PictureTrace, scale: number): Drawing => {
  const drawing = newDrawing("mm");
  const shapes = outline(found).map(({ shape }) => ({ shape, layer: PROFILE_LAYER }));
  return applyEdit(drawing, acceptShapes(drawing, { at: { x: 0, y: 0 }, scale, angle: 0 }, shapes)!);
};

it.each([
  [0, 1, 3],
  [0.3, 1, 3],
  [1.1, 1, 5],
  [0.02, 1.6, 3],
  [0, 0.7, 2.5],
  [0.2, 0.5, 2.5],
  [0.7, 2.5, 6],
])(
  "a plate with round corners and a hole, turned by %f, %f times as large, is a closed chain and a circle",
  (angle, by, stroke) => {
    const middle = { x: 240 * by, y: 200 * by };
    const hole = { centre: { x: 280 * by, y: 190 * by }, radius: 34 * by };
    const found = traced(
      sheet(480 * by, 400 * by, rounded(middle, 280 * by, 180 * by, 45 * by, angle), [hole], stroke, 12),
    );
    const drawing = accepted(found, 0.5);
    const kinds = [...entitiesOf(drawing)].map(({ kind }) => kind).filter((kind) => kind !== "endless");
    expect(kinds.sort()).toEqual(["chain", "circle"]);
    const [chain] = [...entitiesOf(drawing)].flatMap((one) => (one.kind === "chain" ? [one] : []));
    expect(chain).toMatchObject({ closed: true });
    expect(chain!.vertices).toHaveLength(8);
    // a tenth of a stroke's width in every size: areas by w·h - (4 - π)·r² and π·r²
    const [plate, disc] = profileOf(drawing).contours.map(({ area }) => area / (0.5 * by) ** 2);
    expect(Math.abs(plate! / (280 * 180 - (4 - Math.PI) * 45 ** 2) - 1)).toBeLessThan(0.01);
    expect(Math.abs(disc! / (Math.PI * 34 ** 2) - 1)).toBeLessThan(0.02);
    // smooth joints are smooth
    const radii = profileOf(drawing)
      .contours[0]!.pieces.filter(({ bulge }) => bulge !== 0)
      .map(pieceRadius);
    for (const radius of radii) expect(Math.abs(radius / (22.5 * by) - 1)).toBeLessThan(0.06);
  },
);

it("no strokes, no drawing, strokes too thin and too much on it are refused by their names; progress goes up", () => {
  const random = randomFrom(3);
  const flat = (width: number, height: number, light: () => number): Pixels => {
    const data = new Uint8ClampedArray(4 * width * height).fill(255);
    for (let i = 0; i < width * height; i++) data[4 * i] = data[4 * i + 1] = data[4 * i + 2] = light();
    return { width, height, data };
  };
  const codeOf = (pixels: Pixels): string => {
    const answer = tracePicture(pixels);
    return answer.ok ? "" : answer.refusal.code;
  };
  expect(codeOf(flat(300, 200, () => 250))).toBe("trace-no-strokes");
  expect(codeOf(flat(300, 200, () => 240 + 8 * random()))).toMatch(/^trace-no-strokes$/);
  // dark and light squares, each smaller than what paper is told by
  let at = 0;
  const squares = flat(304, 200, () => (((at++ >> 3) + (Math.floor(at / 304) >> 3)) % 2 === 0 ? 240 : 20));
  expect(codeOf(squares)).toBe("trace-no-drawing");
  expect(codeOf(sheet(300, 200, [{ a: { x: 20, y: 20 }, b: { x: 280, y: 150 }, bulge: 0 }], [], 0.6))).toBe(
    "trace-thin",
  );
  // four hundred and eighty bars
  let bar = 0;
  const bars = flat(1280, 480, () => {
    const [x, y] = [bar % 1280, Math.floor(bar++ / 1280)];
    return x % 16 >= 3 && x % 16 <= 5 && y % 80 >= 3 && y % 80 < 77 ? 40 : 240;
  });
  expect(codeOf(bars)).toBe("trace-busy");
  const parts: number[] = [];
  tracePicture(sheet(300, 200, [], [{ centre: { x: 150, y: 100 }, radius: 60 }], 3), (part) => parts.push(part));
  expect(parts.length).toBeGreaterThan(3);
  expect(parts).toEqual([...parts].sort((p, q) => p - q));
});

it("ends of what is accepted go to loose ends of what was accepted before, wherever these were moved to", () => {
  const found = traced(sheet(420, 320, rounded({ x: 210, y: 160 }, 280, 180, 45, 0.2), [], 3));
  const [lie, all] = [{ at: { x: 0, y: 0 }, scale: 0.5, angle: 0 }, outline(found)];
  expect(all).toHaveLength(8);
  const onLayer = (some: typeof all) => some.map(({ shape }) => ({ shape, layer: PROFILE_LAYER }));
  const empty = newDrawing("mm");
  // all but one line; then it is moved a little, as making numbers true does
  const line = all.find(({ shape }) => shape.kind === "piece" && shape.bulge === 0)!;
  const most = acceptShapes(empty, lie, onLayer(all.filter((one) => one !== line)))!;
  const drawing = applyEdit(empty, most);
  const [chain] = [...entitiesOf(drawing)].filter(({ kind }) => kind === "chain");
  const moved = transformEntities(drawing, [chain!.id], moving({ x: 1.3, y: -0.8 }), "Move", "move");
  if (!moved.ok) throw new Error(moved.refusal.code);
  const now = applyEdit(drawing, moved.value);
  const endsOf = (one: Drawing): readonly Point[] =>
    [...entitiesOf(one)].flatMap((entity) =>
      entity.kind === "piece"
        ? [entity.a, entity.b]
        : entity.kind === "chain"
          ? [entity.vertices[0]!.at, entity.vertices.at(-1)!.at]
          : [],
    );
  const meeting = (reach: number): number => {
    const ends = endsOf(applyEdit(now, acceptShapes(now, lie, onLayer([line]), reach)!));
    return ends.filter((p, i) => ends.some((q, k) => k !== i && p.x === q.x && p.y === q.y)).length;
  };
  expect(meeting(0)).toBe(0);
  expect(meeting(1)).toBe(0); // not in reach
  expect(meeting(4)).toBe(4);
});
