import { calloutText, stateText, toleranceText } from "../callouts/describe.ts";
import { isWaived, measuredWords, type CalloutRow } from "../checks/verdict.ts";
import type { Unit } from "../numeric/units.ts";
import { boxMark, fitted, lineMark, NARROW, textMark, type Mark } from "./page.ts";

/** Width of a table, height of its rows, and of capitals, mm. */
export const TABLE_WIDTH = 90;
export const ROW = 5;
const LETTERS = 2;
/** Where the columns begin, as parts of the width. */
const COLUMNS = [0, 0.46, 0.64] as const;
const HEADS = ["called", "measured", "state"] as const;

const cellsOf = (row: CalloutRow, unit: Unit): readonly string[] => {
  const { callout, state } = row;
  const called = [calloutText(callout, unit), toleranceText(callout), callout.name].filter(Boolean).join(" ");
  const waived = isWaived(row) && callout.waived ? `waived: ${callout.waived.reason}` : stateText(state, callout);
  return [called, measuredWords(row, unit), waived];
};

/** Rows of the table of callouts under a head, from a place down. */
export const calloutBlock = (
  rows: readonly CalloutRow[],
  unit: Unit,
  left: number,
  top: number,
  width = TABLE_WIDTH,
): readonly Mark[] => {
  const marks: Mark[] = [];
  const put = (cells: readonly string[], n: number): void => {
    const y = top - (n + 1) * ROW;
    cells.forEach((text, i) => {
      const from = COLUMNS[i]!;
      const room = ((COLUMNS[i + 1] ?? 1) - from) * width - 2;
      if (text !== "") marks.push(textMark(fitted(text, LETTERS, room), left + from * width + 1, y + 1.5, LETTERS));
    });
    marks.push(
      lineMark(
        [
          { x: left, y },
          { x: left + width, y },
        ],
        NARROW,
      ),
    );
  };
  put(HEADS, 0);
  rows.forEach((row, i) => put(cellsOf(row, unit), i + 1));
  marks.push(boxMark({ minX: left, minY: top - (rows.length + 1) * ROW, maxX: left + width, maxY: top }, NARROW));
  return marks;
};
