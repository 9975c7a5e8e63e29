import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { showLengthUnit } from "../numeric/showValue.ts";
import { convertLength, type Unit } from "../numeric/units.ts";

/** How much room a bolt has in its hole. */
export const FITS = ["fine", "medium", "coarse"] as const;
export type Fit = (typeof FITS)[number];

/** One thread, its lengths in its own unit. */
export type Thread = {
  /** As drawings write it: `M20`, `M20x1.5`, `3/8-16`, `#10-24`. */
  readonly name: string;
  readonly series: "metric coarse" | "metric fine" | "unified coarse" | "unified fine";
  readonly unit: Unit;
  readonly diameter: number;
  readonly pitch: number;
  /** The drill before tapping. */
  readonly drill: number;
  /** Between what the minor diameter of the nut thread may lie (6H); metric only. */
  readonly minor?: readonly [least: number, most: number];
  readonly clearance?: Readonly<Record<Fit, number>>;
};

/**
 * Where the numbers come from, for the screen that shows them. All quoted from memory, and checked against each other
 * in the tests.
 */
export const THREAD_SOURCES: Readonly<Record<string, string>> = {
  "metric coarse": "ISO 261 and ISO 724; drills ISO 2306; minor diameter 6H ISO 965-1; clearance holes ISO 273",
  "metric fine":
    "ISO 261 and ISO 724; drill = diameter − pitch (ISO 2306); minor diameter 6H ISO 965-1; clearance ISO 273",
  "unified coarse":
    "ASME B1.1; drills common practice, about three quarters of a full thread; clearance holes ASME B18.2.8",
  "unified fine":
    "ASME B1.1; drills common practice, about three quarters of a full thread; clearance holes ASME B18.2.8",
};

/**
 * Tolerance of the minor diameter of a nut thread in class 6H by pitch, in mm (ISO 965-1, table of T_D1; from memory).
 */
const MINOR_6H: Readonly<Record<string, number>> = {
  "0.35": 0.1,
  "0.4": 0.112,
  "0.45": 0.125,
  "0.5": 0.14,
  "0.6": 0.16,
  "0.7": 0.18,
  "0.75": 0.19,
  "0.8": 0.2,
  "1": 0.236,
  "1.25": 0.265,
  "1.5": 0.3,
  "1.75": 0.335,
  "2": 0.375,
  "2.5": 0.45,
  "3": 0.5,
  "3.5": 0.56,
  "4": 0.6,
  "4.5": 0.67,
  "5": 0.71,
  "5.5": 0.75,
  "6": 0.8,
};

/** Diameter, coarse pitch, drill, then clearance holes fine, medium and coarse. */
const METRIC: readonly (readonly [number, number, number, number, number, number])[] = [
  [1.6, 0.35, 1.25, 1.7, 1.8, 2],
  [2, 0.4, 1.6, 2.2, 2.4, 2.6],
  [2.5, 0.45, 2.05, 2.7, 2.9, 3.1],
  [3, 0.5, 2.5, 3.2, 3.4, 3.6],
  [3.5, 0.6, 2.9, 3.7, 3.9, 4.2],
  [4, 0.7, 3.3, 4.3, 4.5, 4.8],
  [5, 0.8, 4.2, 5.3, 5.5, 5.8],
  [6, 1, 5, 6.4, 6.6, 7],
  [7, 1, 6, 7.4, 7.6, 8],
  [8, 1.25, 6.8, 8.4, 9, 10],
  [10, 1.5, 8.5, 10.5, 11, 12],
  [12, 1.75, 10.2, 13, 13.5, 14.5],
  [14, 2, 12, 15, 15.5, 16.5],
  [16, 2, 14, 17, 17.5, 18.5],
  [18, 2.5, 15.5, 19, 20, 21],
  [20, 2.5, 17.5, 21, 22, 24],
  [22, 2.5, 19.5, 23, 24, 26],
  [24, 3, 21, 25, 26, 28],
  [27, 3, 24, 28, 30, 32],
  [30, 3.5, 26.5, 31, 33, 35],
  [33, 3.5, 29.5, 34, 36, 38],
  [36, 4, 32, 37, 39, 42],
  [39, 4, 35, 40, 42, 45],
  [42, 4.5, 37.5, 43, 45, 48],
  [45, 4.5, 40.5, 46, 48, 52],
  [48, 5, 43, 50, 52, 56],
  [52, 5, 47, 54, 56, 62],
  [56, 5.5, 50.5, 58, 62, 66],
  [60, 5.5, 54.5, 62, 66, 70],
  [64, 6, 58, 66, 70, 74],
];
/** Diameter, fine pitch, and the drill where it is not simply the difference. */
const METRIC_FINE: readonly (readonly [number, number, number?])[] = [
  [4, 0.5],
  [5, 0.5],
  [6, 0.75, 5.2],
  [8, 1],
  [8, 0.75, 7.2],
  [10, 1],
  [10, 1.25, 8.8],
  [12, 1],
  [12, 1.25, 10.8],
  [12, 1.5],
  [14, 1.5],
  [16, 1],
  [16, 1.5],
  [18, 1.5],
  [18, 2],
  [20, 1.5],
  [20, 2],
  [22, 1.5],
  [22, 2],
  [24, 1.5],
  [24, 2],
  [27, 2],
  [30, 1.5],
  [30, 2],
  [33, 2],
  [36, 2],
  [36, 3],
  [39, 3],
  [42, 3],
  [48, 3],
];

type UnifiedRow = readonly [
  size: string,
  diameter: number,
  coarse: number,
  coarseDrill: number,
  fine: number,
  fineDrill: number,
  fits?: readonly [number, number, number],
];
/**
 * Size, diameter, threads to the inch and drill, coarse then fine, and clearance holes close, normal and loose; inches.
 */
const UNIFIED: readonly UnifiedRow[] = [
  ["#4", 0.112, 40, 0.089, 48, 0.0935, [0.12, 0.128, 0.144]],
  ["#5", 0.125, 40, 0.1015, 44, 0.104, [0.141, 0.156, 0.172]],
  ["#6", 0.138, 32, 0.1065, 40, 0.113, [0.154, 0.17, 0.185]],
  ["#8", 0.164, 32, 0.136, 36, 0.136, [0.18, 0.196, 0.213]],
  ["#10", 0.19, 24, 0.1495, 32, 0.159, [0.206, 0.221, 0.238]],
  ["#12", 0.216, 24, 0.177, 28, 0.182],
  ["1/4", 0.25, 20, 0.201, 28, 0.213, [0.266, 0.281, 0.297]],
  ["5/16", 0.3125, 18, 0.257, 24, 0.272, [0.328, 0.344, 0.359]],
  ["3/8", 0.375, 16, 0.3125, 24, 0.332, [0.391, 0.406, 0.422]],
  ["7/16", 0.4375, 14, 0.368, 20, 0.390625, [0.453, 0.469, 0.484]],
  ["1/2", 0.5, 13, 0.421875, 20, 0.453125, [0.531, 0.562, 0.609]],
  ["9/16", 0.5625, 12, 0.484375, 18, 0.515625],
  ["5/8", 0.625, 11, 0.53125, 18, 0.578125, [0.656, 0.688, 0.734]],
  ["3/4", 0.75, 10, 0.65625, 16, 0.6875, [0.781, 0.812, 0.906]],
  ["7/8", 0.875, 9, 0.765625, 14, 0.8125, [0.906, 0.938, 1.031]],
  ["1", 1, 8, 0.875, 12, 0.921875, [1.031, 1.094, 1.156]],
  ["1-1/8", 1.125, 7, 0.984375, 12, 1.046875, [1.156, 1.219, 1.312]],
  ["1-1/4", 1.25, 7, 1.109375, 12, 1.171875, [1.281, 1.344, 1.438]],
  ["1-3/8", 1.375, 6, 1.21875, 12, 1.296875, [1.438, 1.5, 1.609]],
  ["1-1/2", 1.5, 6, 1.34375, 12, 1.421875, [1.562, 1.625, 1.734]],
];

/** D1 = D - 1.082532 P (ISO 724); the height of the basic profile, 5/8 √3, is 1.0825318 pitches. */
export const basicMinor = (diameter: number, pitch: number): number => diameter - (5 / 8) * Math.sqrt(3) * pitch;

const fits = ([fine, medium, coarse]: readonly [number, number, number]): Record<Fit, number> => ({
  fine,
  medium,
  coarse,
});

const metric = (diameter: number, pitch: number, drill: number, series: Thread["series"], name: string): Thread => {
  const room = METRIC.find(([d]) => d === diameter);
  const tolerance = MINOR_6H[String(pitch)];
  const least = Number(basicMinor(diameter, pitch).toFixed(3));
  return {
    name,
    series,
    unit: "mm",
    diameter,
    pitch,
    drill,
    ...(tolerance === undefined ? {} : { minor: [least, Number((least + tolerance).toFixed(3))] as const }),
    ...(room ? { clearance: fits([room[3], room[4], room[5]]) } : {}),
  };
};

/** Every thread of the tables, metric before unified, small before large. */
export const THREADS: readonly Thread[] = [
  ...METRIC.map(([d, p, drill]) => metric(d, p, drill, "metric coarse", `M${d}`)),
  ...METRIC_FINE.map(([d, p, drill]) => metric(d, p, drill ?? d - p, "metric fine", `M${d}x${p}`)),
  ...(["coarse", "fine"] as const).flatMap((series) =>
    UNIFIED.map(([size, diameter, coarse, coarseDrill, fine, fineDrill, room]): Thread => {
      const threads = series === "coarse" ? coarse : fine;
      return {
        name: `${size}-${threads}`,
        series: `unified ${series}`,
        unit: "in",
        diameter,
        pitch: 1 / threads,
        drill: series === "coarse" ? coarseDrill : fineDrill,
        ...(room ? { clearance: fits(room) } : {}),
      };
    }),
  ),
];

/**
 * What is written as what is looked up: `m 20 x 2,5` and `M20×2.5` are M20; `10-24` is #10-24; `1 1/8-7` is 1-1/8-7.
 */
const bareName = (text: string): string => {
  const clean = text.trim().toUpperCase().replace(/×/g, "X").replace(/,/g, ".").replace(/^#/, "");
  return clean
    .replace(/^(\d+)\s+(\d+\/)/, "$1-$2")
    .replace(/\s+/g, "")
    .replace(/X/g, "x");
};
const namesOf = ({ name, series, pitch }: Thread): readonly string[] => {
  const own = bareName(name);
  return series === "metric coarse" ? [own, `${own}x${pitch}`] : [own];
};

/** The thread that a text names; "thread-unknown" for one that is in no table. */
export const findThread = (text: string): Outcome<Thread> => {
  const wanted = bareName(text);
  const found = THREADS.find((thread) => namesOf(thread).includes(wanted));
  return found ? done(found) : refuse("thread-unknown", { text: text.trim() });
};

/** What is drilled for a thread, in words: its drill, or another one, and the limits of its minor diameter. */
export const drillWords = (thread: Thread, unit: Unit, drill = threadLength(thread, thread.drill, unit)): string => {
  const [least, most] = (thread.minor ?? []).map((length) => showLengthUnit(threadLength(thread, length, unit), unit));
  const limits = least && most ? ` (6H: ${least} to ${most})` : "";
  return `drill Ø ${showLengthUnit(drill, unit)}${limits}`;
};

/** Threads whose names begin with what is typed, at most `count`, those of `first` before the others. */
export const searchThreads = (text: string, count: number, first: Unit = "mm"): readonly Thread[] => {
  const wanted = bareName(text);
  const found = THREADS.filter((thread) => namesOf(thread).some((name) => name.startsWith(wanted)));
  const own = found.filter(({ unit }) => unit === first);
  return [...own, ...found.filter(({ unit }) => unit !== first)].slice(0, count);
};

/** A length of a thread in the job's unit. */
export const threadLength = (thread: Thread, length: number, unit: Unit): number =>
  convertLength(length, thread.unit, unit);
