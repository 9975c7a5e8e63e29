import { done, refuse, type Outcome } from "./outcome.ts";

/** No list names more than this, so that a slip of the finger cannot fill the memory. */
const MOST = 10_000;

/**
 * Whole numbers from 1 as typed in a list: `3`, `3, 5`, `3 5-7`. An empty text is an empty list. Refused, with `found`
 * the part that cannot be read, where anything else stands there or a range runs backwards.
 */
export const readList = (text: string): Outcome<ReadonlySet<number>> => {
  const listed = new Set<number>();
  for (const part of text.split(/[\s,;]+/).filter(Boolean)) {
    const range = /^(\d+)(?:-(\d+))?$/.exec(part);
    const from = Number(range?.[1]);
    const to = Number(range?.[2] ?? range?.[1]);
    if (!range || from < 1 || to < from || to - from > MOST) return refuse("list-unreadable", { text, found: part });
    for (let i = from; i <= to; i++) listed.add(i);
  }
  return done(listed);
};
