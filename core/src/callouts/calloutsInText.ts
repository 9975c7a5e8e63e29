import type { Unit } from "../numeric/units.ts";
import { readLedgerLine, type LedgerLine } from "./readLedgerLine.ts";

/** A number of a text that may be a callout: the line of the ledger that it makes, and its place in the text. */
export type FoundLine = { readonly line: string; readonly from: number; readonly to: number };

/** A word of the text with the place where it begins and ends. */
type Word = { readonly text: string; readonly from: number; readonly to: number };

const COUNTS = ["two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"];
const MANY = /^(?:holes?|slots?|bosses|corners?|fillets?|studs?)$/i;
/** Marks that stand before a number, by themselves or with it. */
const MARK = /^(?:[rdøØ⌀]|dia\.?|diam(?:eter)?\.?|rad(?:ius)?\.?|centres|slots?|t=?|max\.?|min\.?)$/i;
const MARKED = /^\(?(?:[rdøØ⌀m]|dia\.?)\d/i;
const NUMBER = /^\(?(?:[rdøØ⌀m]|dia\.?|t=)?[.,]?\d/i;
/** Numbers that measure nothing: days, times, versions, the second of a month. */
const NO_SIZE = /^\d{4}-\d\d-\d\d|^\d+(?:st|nd|rd|th)\b|^\d{1,2}[./]\d{1,2}[./]\d{2,4}$|^\d+:\d+|%$|^\d{5,}$/i;
/** Words before a number that say that it measures nothing. */
const NAMED = /^(?:no|nos?\.|number|order|drawing|drg|page|sheet|figure|fig\.?|rev\.?|job|item|part|tel\.?|#|£|€|\$)$/i;
/** Words that part one size from the next, and that no name ends with. */
const JOINING =
  /^(?:on|at|in|from|a|an|the|of|by|is|are|for|to|or|please|we|our|its?|has|have|about|like|all|both|x|×)$/i;
/** Words that end a phrase as a comma does. */
const PARTING = /^(?:and|with|plus|but)$/i;
/** What a plain number speaks of, if it is a size. */
const SIZES = [
  ...["wide", "width", "high", "height", "long", "length", "deep", "depth", "centres?", "centers?", "ctrs?", "crs"],
  ...["c/c", "apart", "across", "overall", "from", "above", "below", "between", "land", "lip", "wall", "step"],
  ...["rebate", "bow", "radius", "dia\\w*", "chamfers?", "corners?", "angle"],
];
const SIZE_WORDS = new RegExp(`\\b(?:${SIZES.join("|")})\\b`, "i");
const STOCK = /^(?:[a-z]+\s)?(?:plate|sheet|slab|stock|thick(?:ness)?|thk)\b/i;
const UNITED = /^\d\S*?(?:mm|cm|in|["'])|^\S+\s(?:mm|cm|in|inch(?:es)?)\b/i;
/** Of so many numbers a callout consists at most, and so many words its name has before and after it. */
const [MOST_NUMBERS, MOST_WORDS] = [5, 4];

/** A full stop that ends no sentence: of a shortened word. */
const SHORT = /(?:^|\s)(?:dia|diam|rad|typ|ref|thk|no|approx|c|crs|ctrs|max|min)$/i;

/** The phrases of a text: what stands between full stops, commas, semicolons, colons and line ends, as words. */
const phrasesOf = (text: string): readonly (readonly Word[])[] => {
  const phrases: Word[][] = [[]];
  for (const { 0: whole, index } of text.matchAll(/\S+|\n/g)) {
    const words = whole.replace(/[.,;:!?]+$/, "");
    const parting = whole === "\n" || PARTING.test(words);
    const ended = parting || words.length < whole.length;
    if (words !== "" && !parting) phrases.at(-1)!.push({ text: words, from: index, to: index + words.length });
    if (!ended || (whole.endsWith(".") && SHORT.test(words))) continue;
    phrases.push([]);
  }
  return phrases.filter((phrase) => phrase.length > 0);
};

const isNumber = ({ text }: Word): boolean => NUMBER.test(text) && !NO_SIZE.test(text);

/** Where numbers begin in a phrase: at their mark where they have one, at a number written as a word before holes. */
const startsIn = (phrase: readonly Word[]): readonly number[] => {
  const starts: number[] = [];
  for (const [i, word] of phrase.entries()) {
    if (!isNumber(word)) continue;
    let start = i;
    if (start > 0 && MARK.test(phrase[start - 1]!.text)) start -= 1;
    const before = (n: number): string => phrase[start - n]?.text.toLowerCase() ?? "";
    if (MANY.test(before(1)) && COUNTS.includes(before(2))) start -= 2;
    else if (COUNTS.includes(before(1)) && (start < i || MARKED.test(word.text))) start -= 1;
    if (!starts.includes(start)) starts.push(start);
  }
  return starts;
};

const joined = (words: readonly Word[]): string => words.map(({ text }) => text).join(" ");

/** The words without those at their end, or at their beginning, that only join. */
const trimmed = (words: readonly Word[]): readonly Word[] => {
  const last = words.findLastIndex(({ text }) => !JOINING.test(text));
  return words.slice(0, last + 1);
};

/** How many, as a digit: `six holes Ø 9` and `six Ø 9 holes` as the ledger reads them. */
const counted = (words: readonly Word[]): string => {
  const [first, second] = words;
  const count = COUNTS.indexOf(first?.text.toLowerCase() ?? "") + 2;
  if (count < 2) return joined(words);
  return MANY.test(second?.text ?? "") ? `${count} ${joined(words.slice(1))}` : `${count}x ${joined(words.slice(1))}`;
};

/** What speaks of it before the number: the words back to one that only joins. */
const nameBefore = (phrase: readonly Word[], start: number, end: number): readonly Word[] => {
  let from = start;
  while (from > end && start - from < MOST_WORDS && /^[a-z-]+$/i.test(phrase[from - 1]!.text)) {
    if (JOINING.test(phrase[from - 1]!.text)) break;
    from -= 1;
  }
  return phrase.slice(from, start);
};

/** What the ledger reads of a line; undefined where that is no callout, or more than one. */
const readsAs = (line: string, unit: Unit): LedgerLine | undefined => {
  const read = readLedgerLine(line, unit);
  return read.ok && !read.value.doubt ? read.value : undefined;
};

/** True of what the sender calls for, not of a quantity or a number of something else. */
const isSize = (line: string, { callouts }: LedgerLine): boolean =>
  callouts.every(
    ({ kind, name, tolerance, limits, bound, angle }) =>
      kind !== "count" &&
      (kind !== "length" ||
        SIZE_WORDS.test(name) ||
        UNITED.test(line) ||
        (tolerance ?? limits ?? bound ?? angle) !== undefined),
  );

/** The callout that begins at a word of a phrase: the longest that the ledger reads whole; how many words it took. */
const calloutAt = (
  phrase: readonly Word[],
  starts: readonly number[],
  k: number,
  end: number,
  unit: Unit,
): { readonly line: string; readonly words: readonly Word[] } | undefined => {
  const start = starts[k]!;
  if (NAMED.test(phrase[start - 1]?.text ?? "")) return undefined;
  const next = starts.slice(k + 1, k + MOST_NUMBERS);
  for (const to of [...next, phrase.length].reverse()) {
    const all = trimmed(phrase.slice(start, to));
    const last = all.findLastIndex(isNumber);
    const words = trimmed(all.slice(0, last + 1 + MOST_WORDS));
    if (words.length === 0) continue;
    const own = counted(words);
    const before = nameBefore(phrase, start, end);
    // what stands after the number names it; else what stands before it does
    const isNamed = readsAs(own, unit)?.callouts.some(({ name }) => name !== "") ?? true;
    const line = isNamed || before.length === 0 ? own : `${own} ${joined(before).toLowerCase()}`;
    const stock = /^([\d./-]+(?:\s(?:\d+\/\d+|mm|cm|in))*)\s(.+)$/.exec(line);
    const asked = stock && STOCK.test(stock[2]!) ? `${stock[1]} thk` : line;
    const read = readsAs(asked, unit);
    if (read && isSize(asked, read)) return { line: asked, words: line === own ? words : [...before, ...words] };
  }
  return undefined;
};

/**
 * The numbers of a customer's text that may be callouts, as lines that `readLedgerLine` reads without doubt, each with
 * its place. The words about a number become its name. Days, quantities, numbers of orders and pages are left out, and
 * whatever the ledger would not read: it proposes, a person decides.
 */
export const calloutsInText = (text: string, unit: Unit): readonly FoundLine[] => {
  const found: FoundLine[] = [];
  for (const phrase of phrasesOf(text)) {
    const starts = startsIn(phrase);
    let end = 0; // words up to here are taken
    for (const k of starts.keys()) {
      if (starts[k]! < end) continue;
      const one = calloutAt(phrase, starts, k, end, unit);
      if (!one) continue;
      const [first, last] = [one.words[0]!, one.words.at(-1)!];
      found.push({ line: one.line, from: first.from, to: last.to });
      end = phrase.indexOf(last) + 1;
    }
  }
  return found;
};

/** The unit in which a text speaks: inches where it names them or has fractions, and no millimetres. */
export const unitOfText = (text: string): Unit =>
  !/\d\s?(?:mm|cm)\b/i.test(text) && /\d\s?(?:in\b|inch|")|\d[- ]\d+\/\d+|\d\/(?:2|4|8|16|32|64)\b/i.test(text)
    ? "in"
    : "mm";
