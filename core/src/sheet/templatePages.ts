import { unitOf, type Drawing } from "../drawing/drawing.ts";
import { unionBounds, type Bounds } from "../geometry/bounds.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { convertLength } from "../numeric/units.ts";
import { crossMarks, outlineBoxes, outlineMarks, outlinesOf } from "./outlines.ts";
import { fitted, lineMark, NARROW, textMark, type Mark, type OnPaper, type PaperPage } from "./page.ts";
import { paperSize, type Paper } from "./paper.ts";

/** Margins that printers leave white, the band below for the check bar and words, and how far pages overlap, mm. */
const [MARGIN, BAND, OVERLAP] = [10, 12, 10];
/** More pages than this nobody puts together. */
export const MOST_PAGES = 100;
/** The bar that is measured on each page, mm. */
export const CHECK_BAR = 100;

/** A template as it came out: its pages, row by row from the top. */
export type Template = { readonly pages: readonly PaperPage[]; readonly rows: number; readonly columns: number };

/**
 * A drawing in true size over as many pages as it needs: they overlap by 10 mm, where crosses lie on one another; each
 * says where it belongs and has a bar of 100 mm to be measured. Refused where nothing is drawn, and of more than 100
 * pages. Lengths on paper are true within the rounding of a double; whether a printer scales, the bar tells.
 */
export const templatePages = (drawing: Drawing, paper: Paper, words: string): Outcome<Template> => {
  const outlines = outlinesOf(drawing);
  const box = unionBounds(outlineBoxes(outlines));
  if (!box) return refuse("sheet-empty");
  const [width, height] = paperSize(paper);
  const area: Bounds = { minX: MARGIN, minY: MARGIN + BAND, maxX: width - MARGIN, maxY: height - MARGIN };
  const by = convertLength(1, unitOf(drawing), "mm");
  const step = { x: area.maxX - area.minX - OVERLAP, y: area.maxY - area.minY - OVERLAP };
  const count = (size: number, one: number): number => Math.max(1, Math.ceil((size * by + 1 - OVERLAP) / one));
  const [columns, rows] = [count(box.maxX - box.minX, step.x), count(box.maxY - box.minY, step.y)];
  if (columns * rows > MOST_PAGES) return refuse("template-too-large", { pages: columns * rows, most: MOST_PAGES });

  const pages: PaperPage[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      // rows are counted from the top, as they are laid out
      const low = rows - 1 - row;
      const on: OnPaper = {
        by,
        move: {
          x: area.minX + 0.5 - box.minX * by - column * step.x,
          y: area.minY + 0.5 - box.minY * by - low * step.y,
        },
      };
      const drawn = [...outlineMarks(on, outlines), ...outlines.centres.flatMap((at) => crossMarks(on, at))].map(
        (mark): Mark => (mark.kind === "line" ? { ...mark, width: NARROW } : mark),
      );
      const place = `row ${row + 1} of ${rows}, column ${column + 1} of ${columns}`;
      pages.push({
        width,
        height,
        groups: [
          { clip: area, marks: drawn },
          {
            marks: [
              ...overlapMarks(area, {
                left: column > 0,
                right: column < columns - 1,
                below: low > 0,
                above: low < rows - 1,
              }),
              ...bandMarks(area, place, words),
            ],
          },
        ],
      });
    }
  return done({ pages, rows, columns });
};

/** Where the next page begins: a crop line along each side that has one, with crosses at its ends. */
const overlapMarks = (
  { minX, minY, maxX, maxY }: Bounds,
  next: Readonly<Record<"left" | "right" | "below" | "above", boolean>>,
): readonly Mark[] => {
  const half = OVERLAP / 2;
  const cut = (x: number, y: number, u: number, v: number): Mark => ({
    ...(lineMark(
      [
        { x, y },
        { x: u, y: v },
      ],
      0.13,
    ) as Extract<Mark, { kind: "line" }>),
    dashes: [2, 2],
  });
  return [
    ...(next.left ? [cut(minX + half, minY, minX + half, maxY)] : []),
    ...(next.right ? [cut(maxX - half, minY, maxX - half, maxY)] : []),
    ...(next.below ? [cut(minX, minY + half, maxX, minY + half)] : []),
    ...(next.above ? [cut(minX, maxY - half, maxX, maxY - half)] : []),
  ];
};

/** The bar that is measured, and where the page belongs. */
const bandMarks = ({ minX, maxX }: Bounds, place: string, words: string): readonly Mark[] => {
  const y = MARGIN + 3;
  const tick = (x: number): Mark =>
    lineMark(
      [
        { x, y: y - 2 },
        { x, y: y + 2 },
      ],
      NARROW,
    );
  const bar = lineMark(
    [
      { x: minX, y },
      { x: minX + CHECK_BAR, y },
    ],
    NARROW,
  );
  const left = minX + CHECK_BAR + 4;
  return [
    bar,
    ...Array.from({ length: 11 }, (_, i) => tick(minX + (i * CHECK_BAR) / 10)),
    textMark("100 mm: measure it", minX, y + 3.5, 2.5),
    textMark(fitted(place, 2.5, maxX - left), left, y + 3.5, 2.5),
    textMark(fitted(words, 2.5, maxX - left), left, y - 1.2, 2.5),
  ];
};
