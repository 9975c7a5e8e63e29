import type { Bounds } from "../geometry/bounds.ts";
import { boxMark, fitted, lineMark, NARROW, textMark, WIDE, type Mark } from "./page.ts";

/** What the title block says. */
export type Title = {
  readonly shop: string;
  readonly job: string;
  readonly part: string;
  readonly customer: string;
  readonly material: string;
  readonly thickness: string;
  readonly quantity: string;
  readonly unit: string;
  readonly scale: string;
  readonly date: string;
  readonly revision: string;
  readonly sheet: string;
};

/** Size of the block, mm: no wider than 180 (ISO 7200). */
export const TITLE = { width: 180, height: 36 } as const;

/** Cells in rows from the top: what stands over the value, which it is, and how wide it is in parts of the width. */
const ROWS: readonly (readonly (readonly [label: string, field: keyof Title | undefined, part: number])[])[] = [
  [
    ["shop", "shop", 6],
    ["part", "part", 8],
    ["job", "job", 4],
  ],
  [
    ["customer", "customer", 6],
    ["material", "material", 6],
    ["thickness", "thickness", 3],
    ["quantity", "quantity", 3],
  ],
  [
    ["unit", "unit", 2],
    ["scale", "scale", 3],
    ["date", "date", 4],
    ["revision", "revision", 2],
    ["sheet", "sheet", 2],
    ["drawn by", undefined, 5],
  ],
];
const PARTS = 18;
/** Heights of capitals, mm (ISO 3098-1: 1.8 and 2.5; the label's is the smallest of the row). */
const [LABEL, VALUE] = [1.8, 2.5];
const PAD = 1.2;

/** The title block in the lower right corner of a frame; "drawn by" is left blank, to be signed. */
export const titleBlock = (title: Title, frame: Bounds): readonly Mark[] => {
  const width = Math.min(TITLE.width, frame.maxX - frame.minX);
  const [left, low] = [frame.maxX - width, frame.minY];
  const step = TITLE.height / ROWS.length;
  const marks: Mark[] = [boxMark({ minX: left, minY: low, maxX: frame.maxX, maxY: low + TITLE.height }, WIDE)];
  ROWS.forEach((cells, row) => {
    const top = low + TITLE.height - row * step;
    if (row > 0)
      marks.push(
        lineMark(
          [
            { x: left, y: top },
            { x: frame.maxX, y: top },
          ],
          NARROW,
        ),
      );
    let parts = 0;
    for (const [label, field, part] of cells) {
      const x = left + (width * parts) / PARTS;
      const room = (width * part) / PARTS - 2 * PAD;
      if (parts > 0)
        marks.push(
          lineMark(
            [
              { x, y: top },
              { x, y: top - step },
            ],
            NARROW,
          ),
        );
      marks.push(textMark(fitted(label, LABEL, room), x + PAD, top - PAD - LABEL, LABEL));
      if (field !== undefined && title[field] !== "")
        marks.push(textMark(fitted(title[field], VALUE, room), x + PAD, top - step + 2.4, VALUE));
      parts += part;
    }
  });
  return marks;
};
