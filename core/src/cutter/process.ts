import { greatest } from "../numeric/greatest.ts";

/** Ways in which the test cutter cuts. It is made up; its figures are of a middling machine, common practice. */
export const PROCESS_KINDS = ["waterjet", "plasma", "router", "drag knife"] as const;
export type ProcessKind = (typeof PROCESS_KINDS)[number];

/** What a process of the test cutter can do. Lengths in mm, speeds in mm/min, times in s. */
export type Process = {
  readonly kind: ProcessKind;
  readonly bed: readonly [width: number, height: number];
  readonly feed: number;
  readonly rapid: number;
  readonly pierce: number;
  readonly kerf: number;
  /** Arcs below this radius are cut slower, in proportion. */
  readonly slowBelow: number;
  readonly leadIn: number;
  /** It makes single holes where a file has points. */
  readonly points: boolean;
};

export const PROCESSES: Readonly<Record<ProcessKind, Process>> = {
  waterjet: {
    kind: "waterjet",
    bed: [3000, 1500],
    feed: 300,
    rapid: 12_000,
    pierce: 4,
    kerf: 0.9,
    slowBelow: 10,
    leadIn: 3,
    points: true,
  },
  plasma: {
    kind: "plasma",
    bed: [3000, 1500],
    feed: 2500,
    rapid: 20_000,
    pierce: 0.8,
    kerf: 1.5,
    slowBelow: 15,
    leadIn: 5,
    points: true,
  },
  router: {
    kind: "router",
    bed: [2500, 1250],
    feed: 3000,
    rapid: 15_000,
    pierce: 1.5,
    kerf: 6,
    slowBelow: 12,
    leadIn: 4,
    points: true,
  },
  "drag knife": {
    kind: "drag knife",
    bed: [1600, 1200],
    feed: 9000,
    rapid: 30_000,
    pierce: 0.1,
    kerf: 0,
    slowBelow: 3,
    leadIn: 0,
    points: false,
  },
};

/** No arc is cut slower than this part of the feed. */
const SLOWEST = 0.1;

/** How fast an arc is cut, mm/min; a line as an arc without end. */
export const feedAt = ({ feed, slowBelow }: Process, radius: number): number =>
  feed * Math.min(1, greatest([SLOWEST, radius / slowBelow]));
