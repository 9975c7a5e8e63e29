import type { Bounds } from "../geometry/bounds.ts";

/** Sheets of paper, short side first, mm: ISO 216, and ANSI/ASME Y14.1 (from memory) in inches of 25.4. */
export const PAPERS = {
  A4: [210, 297],
  A3: [297, 420],
  A2: [420, 594],
  A1: [594, 841],
  A0: [841, 1189],
  "ANSI A": [215.9, 279.4],
  "ANSI B": [279.4, 431.8],
  "ANSI C": [431.8, 558.8],
  "ANSI D": [558.8, 863.6],
  "ANSI E": [863.6, 1117.6],
} as const;
export type PaperName = keyof typeof PAPERS;
export const PAPER_NAMES = Object.keys(PAPERS) as readonly PaperName[];

/** A sheet and which way it lies. */
export type Paper = { readonly name: PaperName; readonly landscape: boolean };

export const paperSize = ({ name, landscape }: Paper): readonly [width: number, height: number] => {
  const [short, long] = PAPERS[name];
  return landscape ? [long, short] : [short, long];
};

/** Margins of the frame, mm: 20 for the binding at the left, 10 elsewhere (ISO 5457). */
const [LEFT, OTHERS] = [20, 10];

/** The frame of a sheet, mm from its lower left corner. */
export const frameOf = (paper: Paper): Bounds => {
  const [width, height] = paperSize(paper);
  return { minX: LEFT, minY: OTHERS, maxX: width - OTHERS, maxY: height - OTHERS };
};

/** Scales as they are said: 2 : 1 is twice the size, 1 : 5 a fifth. `scale` is drawing to paper. */
export const scaleWords = (scale: number): string =>
  scale < 1 ? `${Number((1 / scale).toPrecision(6))} : 1` : `1 : ${Number(scale.toPrecision(6))}`;
