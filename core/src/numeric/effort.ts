/** What is counted of work whose cost can explode: places where curves meet, and places at which a fit is tried. */
export type Effort = "meetings" | "looks";
export type Spent = Readonly<Record<Effort, number>>;

/**
 * What can be worked out while somebody waits. Beyond so many meetings an arrangement, an offset or a list of crossings
 * takes seconds and then minutes, and a drawing with so many crossings has a slip in it; so many looks take some tenths
 * of a second.
 */
export const A_MOMENT: Spent = { meetings: 10_000, looks: 3_000_000 };

/** More is asked for than was allowed for: nothing was made. */
export class TooMuch extends Error {
  readonly effort: Effort;
  readonly most: number;
  readonly at: { readonly x: number; readonly y: number };
  constructor(effort: Effort, most: number, at: { readonly x: number; readonly y: number }) {
    super(`More than ${most} ${effort}.`);
    this.effort = effort;
    this.most = most;
    this.at = at;
  }
}

const NOTHING: Spent = { meetings: 0, looks: 0 };
/** How much is done between two reports. */
const REPORTED: Spent = { meetings: 5000, looks: 2_000_000 };

let limits: Spent | undefined;
let spent = { ...NOTHING };
let report: ((spent: Spent) => void) | undefined;

const counted = <T>(within: Spent | undefined, tell: typeof report, work: () => T): T => {
  const before = [limits, spent, report] as const;
  [limits, spent, report] = [within, { ...NOTHING }, tell];
  try {
    return work();
  } finally {
    [limits, spent, report] = before;
  }
};

/** Works something out within a moment, and throws `TooMuch` beyond it; `aside` there is time for it. */
export const withinMoment = <T>(work: () => T): T => (report ? work() : counted(A_MOMENT, undefined, work));

/** Works something out where nobody waits for it, however long it takes, and tells from time to time how much it is. */
export const aside = <T>(tell: (spent: Spent) => void, work: () => T): T => counted(undefined, tell, work);

/** Counts what is done; called by whatever finds meetings or fits. `at` is where. */
export const countEffort = (effort: Effort, at: { readonly x: number; readonly y: number }, more = 1): void => {
  const now = (spent[effort] += more);
  if (limits && now > limits[effort]) throw new TooMuch(effort, limits[effort], at);
  if (report && Math.floor(now / REPORTED[effort]) > Math.floor((now - more) / REPORTED[effort])) report({ ...spent });
};
