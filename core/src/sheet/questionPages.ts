import { textWidth } from "../annotate/letters.ts";
import type { Bounds } from "../geometry/bounds.ts";
import { lineMark, NARROW, textMark, withLetters, type Mark } from "./page.ts";

/** Heights of capitals (ISO 3098-1), of a line of writing, and of the room for an answer, mm. */
const [HEAD, LETTERS] = [5, 3.5];
const [LINE, ANSWER] = [7, 16];
const HEAD_ROOM = 14;
/** How far the lines stand in behind their numbers, mm. */
const NUMBER = 10;

/** Words in lines no wider than so much; a word that is wider alone is broken. */
export const wrapped = (text: string, height: number, width: number): readonly string[] => {
  const fits = Math.max(1, Math.floor(width / textWidth("0", height)));
  const lines: string[] = [];
  let line = "";
  for (const word of withLetters(text).split(" ")) {
    let rest = word;
    if (line !== "" && line.length + 1 + rest.length > fits) {
      lines.push(line);
      line = "";
    }
    for (; rest.length > fits; rest = rest.slice(fits)) lines.push(rest.slice(0, fits));
    line = line === "" ? rest : `${line} ${rest}`;
  }
  return [...lines, line];
};

/** What is asked of the customer, numbered, with a line to write each answer on: the marks of a page each. */
export const questionPages = (questions: readonly string[], frame: Bounds): readonly (readonly Mark[])[] => {
  const [left, right] = [frame.minX + 5, frame.maxX - 5];
  const pages: Mark[][] = [];
  let low = -Infinity;
  questions.forEach((question, i) => {
    const lines = wrapped(question, LETTERS, right - left - NUMBER);
    const needed = lines.length * LINE + ANSWER;
    if (low - needed < frame.minY) {
      pages.push([textMark("Questions for the customer", left, frame.maxY - HEAD_ROOM + 3, HEAD)]);
      low = frame.maxY - HEAD_ROOM;
    }
    const page = pages.at(-1)!;
    page.push(textMark(`${i + 1}`, left, low - LINE + 1, LETTERS));
    lines.forEach((line, n) => page.push(textMark(line, left + NUMBER, low - (n + 1) * LINE + 1, LETTERS)));
    low -= needed;
    page.push(
      lineMark(
        [
          { x: left + NUMBER, y: low + 3 },
          { x: right, y: low + 3 },
        ],
        NARROW,
      ),
    );
  });
  return pages;
};
