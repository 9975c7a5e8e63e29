import { displaysOf } from "../annotate/shown.ts";
import { SCALES } from "../annotate/sheet.ts";
import { calloutRows } from "../checks/verdict.ts";
import { settingsOf, styleOf, unitOf, type Drawing } from "../drawing/drawing.ts";
import { boundsMiddle, unionBounds, type Bounds } from "../geometry/bounds.ts";
import { add, subtract, times, type Point } from "../geometry/point.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { convertLength } from "../numeric/units.ts";
import { calloutBlock, ROW, TABLE_WIDTH } from "./calloutBlock.ts";
import { outlineBoxes, outlineMarks, outlinesOf, type Outlines } from "./outlines.ts";
import { boxMark, drawnMark, FRAME, lineMark, type Mark, type OnPaper, type PaperPage } from "./page.ts";
import { questionPages } from "./questionPages.ts";
import { frameOf, paperSize, scaleWords, type Paper } from "./paper.ts";
import { TITLE, titleBlock, type Title } from "./titleBlock.ts";

/** What is asked of a sheet. */
export type SheetAsked = {
  readonly paper: Paper;
  /** Drawing to paper; where nothing is asked true size, or the standard's next at which all of it finds room. */
  readonly scale?: number | undefined;
  /** How far the drawing is put from the middle of its room, mm. */
  readonly shift: Point;
  readonly callouts: boolean;
  /** What is to be asked of the customer, on pages of their own. */
  readonly questions?: readonly string[];
  readonly title: Omit<Title, "unit" | "scale" | "sheet">;
  /** The customer's sketch: its name and its size in any unit. */
  readonly sketch?: { readonly name: string; readonly width: number; readonly height: number } | undefined;
};

/** A sheet as it came out: its pages, and at what scale the drawing lies on the first. */
export type Sheet = { readonly pages: readonly PaperPage[]; readonly scale: number };

/** Between blocks, mm. */
const GAP = 5;
/** Frames wider than this have the blocks beside the drawing, others below it. */
const WIDE_FROM = 260;
/** The sketch is no higher than this on paper, mm. */
const SKETCH = 60;

/** Where the blocks and the drawing find room on a sheet. */
type Layout = {
  readonly room: Bounds;
  readonly table: { readonly left: number; readonly top: number; readonly rows: number };
};

const isWide = ({ minX, maxX }: Bounds): boolean => maxX - minX >= WIDE_FROM;

const layoutOf = (frame: Bounds, rows: number, sketchHeight: number): Layout => {
  const above = { ...frame, minY: frame.minY + TITLE.height + GAP };
  const needed = rows === 0 ? 0 : (rows + 1) * ROW;
  if (isWide(frame)) {
    const taken = rows > 0 || sketchHeight > 0 ? TABLE_WIDTH + GAP : 0;
    const left = frame.maxX - TABLE_WIDTH;
    const top = frame.maxY - (sketchHeight > 0 ? sketchHeight + GAP : 0);
    return {
      room: inset({ ...above, maxX: above.maxX - taken }),
      table: { left, top, rows: Math.max(0, Math.floor((top - above.minY) / ROW) - 1) },
    };
  }
  // below the drawing no more than two fifths of the height
  const most = Math.max(0, Math.floor((0.4 * (above.maxY - above.minY)) / ROW) - 1);
  const shown = Math.min(rows, most);
  const height = shown === 0 ? 0 : Math.min(needed, (shown + 1) * ROW);
  const block = Math.max(height, sketchHeight);
  const low = above.minY + (block > 0 ? block + GAP : 0);
  return { room: inset({ ...above, minY: low }), table: { left: frame.minX, top: above.minY + block, rows: shown } };
};

const inset = ({ minX, minY, maxX, maxY }: Bounds): Bounds => ({
  minX: minX + GAP,
  minY: minY + GAP,
  maxX: maxX - GAP,
  maxY: maxY - GAP,
});

/** All that is drawn, with its dimensions at a scale, and its box, in the drawing's unit. */
const drawnAt = (drawing: Drawing, outlines: Outlines, scale: number) => {
  const displays = settingsOf(drawing).annotationsHidden
    ? []
    : displaysOf(drawing, styleOf(drawing), convertLength(scale, "mm", unitOf(drawing)));
  return { displays, box: unionBounds([...outlineBoxes(outlines), ...displays.map(({ bounds }) => bounds)]) };
};

/**
 * A drawing on paper: contours in wide lines, marks and dimensions in narrow ones, its callouts as a table, the title
 * block, the customer's sketch, the frame; callouts that find no room and questions go on to further pages. Refused
 * where nothing is drawn, and where it does not fit at the scale that is asked for, with one that does. Lengths on
 * paper are true within the rounding of a double. Sources: ISO 5455 (scales), 5457 (frame), 7200 (title block), 128-2
 * (lines).
 */
export const sheetPages = (drawing: Drawing, asked: SheetAsked): Outcome<Sheet> => {
  const outlines = outlinesOf(drawing);
  const [width, height] = paperSize(asked.paper);
  const frame = frameOf(asked.paper);
  const rows = asked.callouts ? calloutRows(drawing) : [];
  // beside a table on a narrow sheet there is less room for it
  const wide = isWide(frame) || rows.length === 0 ? TABLE_WIDTH : frame.maxX - frame.minX - TABLE_WIDTH - GAP;
  const sketch = sketchBox(asked.sketch, wide);
  const { room, table } = layoutOf(frame, rows.length, sketch?.[1] ?? 0);
  const unit = unitOf(drawing);
  const fits = (scale: number): boolean => {
    const { box } = drawnAt(drawing, outlines, scale);
    if (!box) return false;
    const by = convertLength(1, unit, "mm") / scale;
    return (box.maxX - box.minX) * by <= room.maxX - room.minX && (box.maxY - box.minY) * by <= room.maxY - room.minY;
  };
  if (!drawnAt(drawing, outlines, 1).box) return refuse("sheet-empty");
  const best = bestScale(fits);
  if (best === undefined) return refuse("sheet-too-large", { paper: asked.paper.name });
  const scale = asked.scale ?? best;
  if (!fits(scale))
    return refuse("sheet-scale", { scale: scaleWords(scale), paper: asked.paper.name, fits: scaleWords(best) });

  const { displays, box } = drawnAt(drawing, outlines, scale);
  const by = convertLength(1, unit, "mm") / scale;
  const middle = add(boundsMiddle(room), shiftWithin(asked.shift, box!, by, room, frame));
  const on: OnPaper = { by, move: subtract(middle, times(boundsMiddle(box!), by)) };
  const drawn: Mark[] = [
    ...outlineMarks(on, outlines),
    ...displays.flatMap(({ drawn }) => drawn.map((one) => drawnMark(on, one))),
  ];
  const marks: Mark[] = [];
  const shown = rows.slice(0, table.rows);
  if (shown.length > 0) for (const mark of calloutBlock(shown, unit, table.left, table.top)) marks.push(mark);
  if (sketch && asked.sketch) {
    const [w, h] = sketch;
    const isBeside = table.left > frame.minX;
    const minX = isBeside ? frame.maxX - w : frame.minX + (rows.length > 0 ? TABLE_WIDTH + GAP : 0);
    const minY = isBeside ? frame.maxY - h : frame.minY + TITLE.height + GAP;
    const at = { minX, minY, maxX: minX + w, maxY: minY + h };
    marks.push({ kind: "picture", name: asked.sketch.name, box: at }, boxMark(at, 0.25));
  }
  // callouts that found no room: as many columns as the frame has, page after page
  const left = rows.slice(shown.length);
  const columns = Math.max(1, Math.floor((frame.maxX - frame.minX + GAP) / (TABLE_WIDTH + GAP)));
  const deep = Math.floor((frame.maxY - frame.minY - TITLE.height - GAP) / ROW) - 1;
  const more: Mark[][] = [];
  for (let from = 0; from < left.length; from += columns * deep)
    more.push(
      Array.from({ length: columns }, (_, k) => left.slice(from + k * deep, from + (k + 1) * deep)).flatMap(
        (some, k) =>
          some.length > 0 ? calloutBlock(some, unit, frame.minX + k * (TABLE_WIDTH + GAP), frame.maxY) : [],
      ),
    );
  const above = { ...frame, minY: frame.minY + TITLE.height + GAP };
  const all = [marks, ...more, ...questionPages(asked.questions ?? [], above)];
  const pages = all.map((own, i): PaperPage => {
    const title = { ...asked.title, unit, scale: scaleWords(scale), sheet: `${i + 1} of ${all.length}` };
    return {
      width,
      height,
      groups: [
        { marks: [...own, ...frameMarks(frame, width, height), ...titleBlock(title, frame)] },
        ...(i === 0 ? [{ moves: true as const, marks: drawn }] : []),
      ],
    };
  });
  return done({ pages, scale });
};

/** What is smaller than this part of its room in true size is drawn larger. */
const SMALL = 5;

/** True size where that fits, a larger scale for what is small, the least reduction for what is large. */
const bestScale = (fits: (scale: number) => boolean): number | undefined => {
  const isSmall = fits(1 / SMALL);
  return SCALES.find((scale) => (isSmall || scale >= 1) && fits(scale));
};

const sketchBox = (sketch: SheetAsked["sketch"], width: number): readonly [number, number] | undefined => {
  if (!sketch) return undefined;
  const by = Math.min(width / sketch.width, SKETCH / sketch.height);
  return [sketch.width * by, sketch.height * by];
};

/** A shift that leaves all of the drawing within the frame. */
const shiftWithin = (shift: Point, box: Bounds, by: number, room: Bounds, frame: Bounds): Point => {
  const within = (want: number, size: number, middle: number, low: number, high: number): number =>
    Math.min(Math.max(want, low + size / 2 - middle), high - size / 2 - middle);
  const { x, y } = boundsMiddle(room);
  return {
    x: within(shift.x, (box.maxX - box.minX) * by, x, frame.minX, frame.maxX),
    y: within(shift.y, (box.maxY - box.minY) * by, y, frame.minY, frame.maxY),
  };
};

/** The frame with its four centring marks (ISO 5457). */
const frameMarks = (frame: Bounds, width: number, height: number): readonly Mark[] => [
  boxMark(frame, FRAME),
  ...(
    [
      [0, height / 2, frame.minX + 5, height / 2],
      [width, height / 2, frame.maxX - 5, height / 2],
      [width / 2, 0, width / 2, frame.minY], // no farther: there the title block may stand
      [width / 2, height, width / 2, frame.maxY - 5],
    ] as const
  ).map(([x, y, u, v]) =>
    lineMark(
      [
        { x, y },
        { x: u, y: v },
      ],
      FRAME,
    ),
  ),
];
