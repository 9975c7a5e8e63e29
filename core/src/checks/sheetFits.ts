import { arcOf, piecePoint, type Piece } from "../geometry/piece.ts";
import { unionBounds, type Bounds } from "../geometry/bounds.ts";
import { cross, dot, subtract, type Point } from "../geometry/point.ts";
import { normalAngle, unitAt } from "../numeric/angle.ts";
import { SAME_SIZE } from "../numeric/tolerance.ts";
import { lengthIn, type Check } from "./check.ts";

/** How far pieces reach in a direction, arcs with their own bulge. */
const reach = (pieces: readonly Piece[], angle: number): number => {
  const way = unitAt(angle);
  let most = -Infinity;
  for (const piece of pieces) {
    most = Math.max(most, dot(piece.a, way), dot(piece.b, way));
    const arc = arcOf(piece);
    if (!arc) continue;
    const turn = normalAngle(arc.sweep > 0 ? angle - arc.from : arc.from - angle);
    if (turn <= Math.abs(arc.sweep)) most = Math.max(most, dot(arc.centre, way) + arc.radius);
  }
  return most;
};

/** So many places of an arc are looked at for whether any of it reaches out. */
const ALONG_ARC = 8;

/** The pieces that reach out anywhere: those with a place on the convex hull of all (monotone chain, Andrew 1979). */
const reachingOut = (pieces: readonly Piece[]): readonly Piece[] => {
  const places = pieces.flatMap((piece, of) =>
    Array.from({ length: piece.bulge === 0 ? 1 : ALONG_ARC }, (_, k) => ({ of, at: piecePoint(piece, k / ALONG_ARC) })),
  );
  places.sort((p, q) => p.at.x - q.at.x || p.at.y - q.at.y);
  const kept = new Set<number>();
  for (const side of [1, -1]) {
    const half: typeof places = [];
    for (const place of places) {
      const turns = (): boolean => {
        const [p, q] = [half.at(-2)!.at, half.at(-1)!.at];
        return side * cross(subtract(q, p), subtract(place.at, q)) <= 0;
      };
      while (half.length > 1 && turns()) half.pop();
      half.push(place);
    }
    for (const { of } of half) {
      kept.add(of);
      kept.add((of + pieces.length - 1) % pieces.length);
    }
  }
  return pieces.filter((_, i) => kept.has(i));
};

/** Turns that are tried at first, and how often a valley among them is looked at more closely. */
const TURNS = 180;
const CLOSER = 40;

/** A turn that is off by more than this part is in no valley that could fit within a degree of it. */
const FAR_OFF = 1.1;

/**
 * True where pieces fit into a sheet in some turn: tried every degree, and in each valley of that closer and closer,
 * to a millionth of the size.
 */
export const fitsTurned = (all: readonly Piece[], width: number, height: number): boolean => {
  const pieces = reachingOut(all);
  const over = (angle: number): number => {
    const size = (at: number): number => reach(pieces, at) + reach(pieces, at + Math.PI);
    return Math.max(size(angle) / width, size(angle + Math.PI / 2) / height);
  };
  const tried = Array.from({ length: TURNS }, (_, k) => over((Math.PI * k) / TURNS));
  const fits = (value: number): boolean => value <= 1 + SAME_SIZE;
  if (tried.some(fits)) return true;
  return tried.some((own, k) => {
    const isValley = own <= tried[(k + TURNS - 1) % TURNS]! && own <= tried[(k + 1) % TURNS]!;
    if (!isValley || own > FAR_OFF) return false;
    let best = { angle: (Math.PI * k) / TURNS, over: own };
    for (let n = 0, step = Math.PI / TURNS; n < CLOSER && !fits(best.over); n++, step /= 1.6)
      for (const by of [-step, -step / 2, step / 2, step]) {
        const turned = over(best.angle + by);
        if (turned < best.over) best = { angle: best.angle + by, over: turned };
      }
    return fits(best.over);
  });
};

const sizeOf = ({ minX, minY, maxX, maxY }: Bounds): Point => ({ x: maxX - minX, y: maxY - minY });
const MM_IN_INCH = 25.4;

/** What is cut is larger than its sheet, or would fit it in the other unit. */
export const sheetFits: Check = {
  id: "sheet",
  name: "It fits the sheet",
  source: "Definition, in any turn.",
  find: ({ profile: { contours }, making: { sheet } }) => {
    const outer = contours.filter(({ role, depth }) => role !== "mark" && depth === 0);
    const box = unionBounds(outer.map(({ bounds }) => bounds));
    if (!sheet || !box) return [];
    const { x, y } = sizeOf(box);
    const fits = (w: number, h: number): boolean =>
      (x <= w * (1 + SAME_SIZE) && y <= h * (1 + SAME_SIZE)) || (y <= w * (1 + SAME_SIZE) && x <= h * (1 + SAME_SIZE));
    const { width, height, name } = sheet;
    if (fits(width, height)) return [];
    const ids = outer.flatMap((one) => one.ids);
    const values = { x, y, sheet: name };
    if (fits(width * MM_IN_INCH, height * MM_IN_INCH) && x > 4 * width)
      return [{ code: "unit-by-sheet", severity: "warning", ids, values }];
    const pieces = outer.flatMap((one) => one.pieces);
    return fitsTurned(pieces, width, height) ? [] : [{ code: "too-large", severity: "warning", ids, values }];
  },
  says: {
    "too-large": ({ x, y, sheet }, unit) =>
      `${lengthIn(x, unit)} × ${lengthIn(y, unit)} ${unit} does not fit on ${sheet}, however it is turned.`,
    "unit-by-sheet": ({ x, y, sheet }, unit) =>
      `${lengthIn(x, unit)} × ${lengthIn(y, unit)} ${unit} is far larger than ${sheet}: ` +
      `the same numbers in ${unit === "mm" ? "inches" : "millimetres"} would not be. Look whether the unit is right.`,
  },
};
