import { withMaterialLeft } from "../contour/materialLeft.ts";
import { windingNumber } from "../contour/winding.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { offset, type Corners } from "../offset/index.ts";
import {
  arcsRound,
  blob,
  comb,
  dumbbell,
  gear,
  mapped,
  meander,
  polygon,
  roundedCorners,
  roundedRectangle,
  roundedTo,
  spiral,
  star,
  steps,
  traced,
  type Random,
  randomFrom,
} from "./contours.ts";
import {
  crossingsOf,
  distanceError,
  distanceTo,
  isWelded,
  placesBeside,
  placesRound,
  wrongPlaces,
} from "./offsetChecks.ts";

export const FAMILY_NAMES = [
  "stars of lines and arcs",
  "blobs",
  "combs",
  "dumbbells",
  "gears",
  "steps on a grid",
  "rounded stars",
  "necks of just twice the distance",
  "steps shaken within the resolution",
  "tracings in short straight pieces",
  "long arcs that nearly join smoothly",
  "circles of arcs with 2 to 6 decimals",
  "rounded plates with 2 to 6 decimals",
  "rounded stars with 2 to 6 decimals",
  "joints that miss the tangent by 1e-6 to 1e-3",
  "spirals of half circles",
  "contours that touch",
] as const;

type Made = {
  readonly pieces: readonly Piece[];
  readonly by?: number;
  /** Further contours beside or in the first. */
  readonly others?: readonly (readonly Piece[])[];
};

/** Made-up contours of every family: what a number turns into is always the same. */
const FAMILIES: readonly ((random: Random) => Made)[] = [
  (random) => ({ pieces: star(8 + Math.floor(random() * 20), random) }),
  (random) => ({ pieces: blob(10 + Math.floor(random() * 30), 50, 0.6 * random(), random) }),
  (random) => ({ pieces: comb(2 + Math.floor(random() * 8)) }),
  (random) => ({ pieces: dumbbell(1 + 5 * random()) }),
  (random) => ({ pieces: gear(5 + Math.floor(random() * 20)) }),
  (random) => ({ pieces: steps(3 + Math.floor(random() * 12), random) }),
  (random) => ({
    pieces: roundedCorners(
      star(8, random).map(({ a }) => a),
      0.9 * random(),
    ),
  }),
  // a neck of just twice the distance, or a hair more or less
  (random) => {
    const by = Math.ceil(random() * 8) / 4;
    const hair = [0, 1e-9, 1e-8, 5e-8, 1e-7, 2e-7, 1e-6][Math.floor(random() * 7)]!;
    return { pieces: dumbbell(2 * by + (random() < 0.5 ? -hair : hair)), by };
  },
  // corners that miss the grid by up to the resolution
  (random) => {
    const shaken = ({ x, y }: Point): Point => ({
      x: x + 1e-8 * Math.sin(1e3 * x + 77 * y),
      y: y + 1e-7 * Math.sin(931 * y + 13 * x),
    });
    return { pieces: mapped(steps(3 + Math.floor(random() * 12), random), shaken) };
  },
  // as fine beside the distance as chance has it
  (random) => {
    const step = 0.2 + 2 * random();
    return {
      pieces: traced(
        blob(6 + Math.floor(random() * 10), 30, 0.4 * random(), random),
        step,
        0.2 * step * random(),
        random,
      ),
    };
  },
  // joints that miss the tangent by a hair
  (random) => {
    const hair = [0, 1e-9, 1e-8, 1e-7, 1e-6, 1e-5][Math.floor(random() * 6)]!;
    const lobes = 2 + Math.floor(random() * 5);
    const sweep = Math.PI * (0.4 + 1.4 * random());
    return { pieces: meander(lobes, sweep, 0.2 + 0.6 * random(), () => hair * (2 * random() - 1)) };
  },
  (random) => {
    const radius = 2 + 100 * random();
    const left = radius * 0.95 * random() ** 2;
    const pieces = arcsRound(radius, 2 + Math.floor(random() * 5), 6 * random());
    return { pieces: asWritten(pieces, random), by: random() < 0.8 ? radius - left : -left };
  },
  (random) => {
    const radius = 1 + 20 * random();
    const pieces = roundedRectangle(2 * radius + 100 * random(), 2 * radius + 50 * random(), radius);
    return { pieces: asWritten(pieces, random), by: radius * (0.85 + 0.2 * random()) };
  },
  (random) => {
    const corners = star(8, random).map(({ a }) => a);
    return { pieces: asWritten(roundedCorners(corners, 0.9 * random()), random) };
  },
  (random) => {
    const hair = 10 ** (-6 + 3 * random());
    const lobes = 2 + Math.floor(random() * 5);
    const sweep = Math.PI * (0.4 + 1.4 * random());
    return { pieces: meander(lobes, sweep, 0.2 + 0.6 * random(), () => hair * (2 * random() - 1)) };
  },
  // windings that grow together, or thin out to nothing: at just that distance, a hair beside it, or anywhere
  (random) => {
    const pitch = 2 + 8 * random();
    const width = pitch * (0.2 + 0.6 * random());
    const half = (random() < 0.5 ? width : width - pitch) / 2;
    const beside = [1, 1 + 0.2 * (random() - 0.5), 3 * random()][Math.floor(random() * 3)]!;
    return { pieces: spiral(2 + Math.floor(random() * 8), pitch * (1 + random()), pitch, width), by: half * beside };
  },
  touching,
];

/** As customers' files have it: 2 to 6 decimals of places, of bulges as many, or all. */
const asWritten = (pieces: readonly Piece[], random: Random): Piece[] => {
  const decimals = 2 + Math.floor(random() * 5);
  return roundedTo(pieces, decimals, random() < 0.3 ? decimals : undefined);
};

/** Squares that share an edge, discs and holes that touch, holes that touch the outline, gaps as thin as rounding. */
function touching(random: Random): Made {
  const size = 5 + 20 * random();
  const gap = random() < 0.5 ? 0 : 10 ** (-9 + 6 * random());
  const by = (random() < 0.5 ? -1 : 1) * size * 0.3 * random();
  const box = (x: number, y: number, w: number, h: number): Piece[] =>
    polygon([
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ]);
  const disc = (x: number, y: number, r: number): Piece[] =>
    arcsRound(r, 2, 0).map(({ a, b, bulge }) => ({
      a: { x: a.x + x, y: a.y + y },
      b: { x: b.x + x, y: b.y + y },
      bulge,
    }));
  const shift = random() < 0.5 ? 0 : size * random();
  const r = size * (0.1 + 0.3 * random());
  const lean = 6 * random();
  switch (Math.floor(random() * 6)) {
    case 0:
      return { pieces: box(0, 0, size, size), others: [box(size + gap, shift, size, size)], by };
    case 1:
      return { pieces: disc(0, 0, size), others: [disc(2 * size + gap, 0, size)], by };
    case 2: // holes that touch in a plate
      return {
        pieces: box(-3 * size, -2 * size, 8 * size, 4 * size),
        others: [disc(0, 0, size), disc(2 * size + gap, 0, size)],
        by,
      };
    case 3: // a hole that touches its outline from inside
      return { pieces: box(0, 0, 4 * size, 2 * size), others: [disc(size + shift, 2 * size - r - gap, r)], by };
    case 4:
      return {
        pieces: disc(0, 0, size),
        others: [disc((size - r - gap) * Math.cos(lean), (size - r - gap) * Math.sin(lean), r)],
        by,
      };
    default: // a slot to the edge
      return { pieces: box(0, 0, 4 * size, 2 * size), others: [box(size, size, r, size - gap)], by };
  }
}

export type Trial = {
  readonly family: number;
  readonly corners: Corners;
  readonly by: number;
  readonly contours: readonly (readonly Piece[])[];
  readonly runs: number;
  /** What is wrong with the result; nothing where it holds. */
  readonly faults: readonly string[];
  /** The worst difference from the distance, for round corners. */
  readonly error: number;
};

/**
 * Contours, turned, scaled and moved, offset one way or the other and looked at: closed, ends the same numbers, nothing
 * crossing; with round corners every place at the distance to two resolutions, and places at random inside or outside
 * as their own distance says; with others what no corner can reach.
 */
export const offsetTrial = (seed: number): Trial => {
  const random = randomFrom(seed);
  const family = seed % FAMILIES.length;
  const drawn = FAMILIES[family]!(random);
  // arcs that cross at a narrow tip are made straight
  const straight = !drawn.others && crossingsOf([drawn.pieces]) > 0;
  const made = straight ? { ...drawn, pieces: drawn.pieces.map(({ a, b }) => ({ a, b, bulge: 0 })) } : drawn;
  const turn = random() < 0.5 ? 0 : random() * 6;
  const far = random() < 0.3 ? 1e5 : 0;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  // from what lies on a coin to slabs of ten metres
  const scale = [1, 1, 1, 1e-2, 1e2][Math.floor(random() * 5)]!;
  const contours = [made.pieces, ...(made.others ?? [])].map((pieces) =>
    mapped(pieces, ({ x, y }) => ({ x: scale * (x * c - y * s) + far, y: scale * (x * s + y * c) + far })),
  );
  const corners = (["round", "sharp", "flat"] as const)[Math.floor(random() * 3)]!;
  const any = random() < 0.3 ? Math.ceil(random() * 16) / 4 : 0.1 + 12 * random() ** 2;
  const by = scale * (made.by ?? (random() < 0.5 ? -any : any));
  return { family, corners, by, contours, ...lookedAt(contours, by, corners, random) };
};

/** What an offset of some contours is like, and what is wrong with it. */
const lookedAt = (
  contours: readonly (readonly Piece[])[],
  by: number,
  corners: Corners,
  random: Random,
): Pick<Trial, "runs" | "faults" | "error"> => {
  const sources = withMaterialLeft(contours);
  const pieces = sources.flat();
  const runs = offset(
    sources.map((own) => ({ pieces: own, closed: true })),
    by,
    { corners },
  );
  const made = runs.map((run) => run.pieces);
  const away = distanceTo(pieces);
  const size = Math.abs(by);
  const inside = (p: Point): boolean | undefined => {
    const within = windingNumber(pieces, p) !== 0;
    const d = away(p);
    if (corners === "round")
      return Math.abs(d - size) < 1e-6 ? undefined : by > 0 ? within && d > size : within || d < size;
    if (by > 0 ? !within : within) return by < 0;
    return d > (corners === "flat" ? size : 4 * size) + 1e-6 ? by > 0 : undefined;
  };
  const faults: string[] = [];
  if (runs.some(({ closed }) => !closed)) faults.push("open");
  if (!made.every(isWelded)) faults.push("not welded");
  if (crossingsOf(made) > 0) faults.push("crossing");
  const error = corners === "round" ? distanceError(made, away, size) : 0;
  if (error > 2e-7) faults.push(`off by ${error}`);
  const wrong =
    wrongPlaces(made, inside, placesRound([...made.flat(), ...pieces], 200, random)) +
    wrongPlaces(made, inside, placesBeside(pieces, by, 200, random));
  if (wrong > 0) faults.push(`${wrong} places wrong`);
  return { runs: runs.length, faults, error };
};
