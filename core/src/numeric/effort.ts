/**
 * What can be worked out while somebody waits: so many places at which curves meet. Beyond it an arrangement, an offset
 * or a list of crossings takes seconds and then minutes, and a drawing with so many crossings has a slip in it.
 */
export const MOST_MEETINGS = 10_000;

/** More curves meet than was allowed for: nothing was made. */
export class TooMuch extends Error {
  readonly meetings: number;
  readonly at: { readonly x: number; readonly y: number };
  constructor(meetings: number, at: { readonly x: number; readonly y: number }) {
    super(`More than ${meetings} places where curves meet.`);
    this.meetings = meetings;
    this.at = at;
  }
}

let most = Infinity;
let met = 0;

/** Works something out within a number of meetings, and throws `TooMuch` beyond it. What is done inside counts. */
export const withinMeetings = <T>(limit: number, work: () => T): T => {
  const before = [most, met] as const;
  [most, met] = [Math.min(limit, most - met), 0];
  try {
    return work();
  } finally {
    [most, met] = before;
  }
};

/** Counts a place where curves meet; called by whatever finds them. */
export const countMeeting = (at: { readonly x: number; readonly y: number }): void => {
  met += 1;
  if (met > most) throw new TooMuch(most, at);
};
