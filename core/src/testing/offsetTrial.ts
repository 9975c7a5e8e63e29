import { windingNumber } from "../contour/winding.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { offset, type Corners } from "../offset/index.ts";
import {
  blob,
  comb,
  dumbbell,
  gear,
  mapped,
  meander,
  roundedCorners,
  star,
  steps,
  traced,
  type Random,
  randomFrom,
} from "./contours.ts";
import { crossingsOf, distanceError, distanceTo, isWelded, wrongPlaces } from "./offsetChecks.ts";

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
] as const;

/** Made-up contours of every family: what a number turns into is always the same. */
const FAMILIES: readonly ((random: Random) => { readonly pieces: readonly Piece[]; readonly by?: number })[] = [
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
];

export type Trial = {
  readonly family: number;
  readonly corners: Corners;
  readonly by: number;
  readonly pieces: readonly Piece[];
  readonly runs: number;
  /** What is wrong with the result; nothing where it holds. */
  readonly faults: readonly string[];
  /** The worst difference from the distance, for round corners. */
  readonly error: number;
};

/**
 * One contour, turned and moved, offset one way or the other and looked at: closed, ends the same numbers, nothing
 * crossing; with round corners every place at the distance to two resolutions, and places at random inside or outside
 * as their own distance says; with others what no corner can reach.
 */
export const offsetTrial = (seed: number): Trial => {
  const random = randomFrom(seed);
  const family = seed % FAMILIES.length;
  const drawn = FAMILIES[family]!(random);
  // arcs that cross at a narrow tip are made straight
  const straight = crossingsOf([drawn.pieces]) > 0;
  const made = straight ? { ...drawn, pieces: drawn.pieces.map(({ a, b }) => ({ a, b, bulge: 0 })) } : drawn;
  const turn = random() < 0.5 ? 0 : random() * 6;
  const far = random() < 0.3 ? 1e5 : 0;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const pieces = mapped(made.pieces, ({ x, y }) => ({ x: x * c - y * s + far, y: x * s + y * c + far }));
  const corners = (["round", "sharp", "flat"] as const)[Math.floor(random() * 3)]!;
  const any = random() < 0.3 ? Math.ceil(random() * 16) / 4 : 0.1 + 12 * random() ** 2;
  const by = made.by ?? (random() < 0.5 ? -any : any);
  const runs = offset([{ pieces, closed: true }], by, { corners });
  const contours = runs.map((run) => run.pieces);
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
  if (!contours.every(isWelded)) faults.push("not welded");
  if (crossingsOf(contours) > 0) faults.push("crossing");
  const error = corners === "round" ? distanceError(contours, away, size) : 0;
  if (error > 2e-7) faults.push(`off by ${error}`);
  const wrong = wrongPlaces(contours, inside, [...contours.flat(), ...pieces], 200, random);
  if (wrong > 0) faults.push(`${wrong} places wrong`);
  return { family, corners, by, pieces, runs: runs.length, faults, error };
};
