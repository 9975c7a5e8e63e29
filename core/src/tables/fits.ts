import { convertLength, type Unit } from "../numeric/units.ts";

/**
 * Nominal sizes up to and including (mm), and the tolerance grades IT6 to IT11 (µm). ISO 286-1, table 1, from memory.
 */
const GRADES: readonly (readonly [upTo: number, ...grades: number[]])[] = [
  [3, 6, 10, 14, 25, 40, 60],
  [6, 8, 12, 18, 30, 48, 75],
  [10, 9, 15, 22, 36, 58, 90],
  [18, 11, 18, 27, 43, 70, 110],
  [30, 13, 21, 33, 52, 84, 130],
  [50, 16, 25, 39, 62, 100, 160],
  [80, 19, 30, 46, 74, 120, 190],
  [120, 22, 35, 54, 87, 140, 220],
  [180, 25, 40, 63, 100, 160, 250],
  [250, 29, 46, 72, 115, 185, 290],
  [315, 32, 52, 81, 130, 210, 320],
  [400, 36, 57, 89, 140, 230, 360],
  [500, 40, 63, 97, 155, 250, 400],
];
/** The upper deviations of shafts g and f in the same bands (µm). ISO 286-1, table 4, from memory. */
const SHAFTS: Readonly<Record<string, readonly number[]>> = {
  h: [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0],
  g: [-2, -4, -5, -6, -7, -9, -10, -12, -14, -15, -17, -18, -20],
  f: [-6, -10, -13, -16, -20, -25, -30, -36, -43, -50, -56, -62, -68],
};

/** True for text that is written like a fit: `H7`, `g6`, `js7`. */
export const isFit = (text: string): boolean => /^(?:[A-Z]{1,2}|[a-z]{1,2})(?:[5-9]|1[0-6])$/.test(text);

/**
 * What a fit allows a size to be off, in its unit: holes H6 to H11, shafts h, g and f 6 to 11, JS and js in those
 * grades. Undefined where it is not tabled here, or the size is over 500 mm.
 */
export const fitLimits = (
  size: number,
  fit: string,
  unit: Unit,
): { readonly low: number; readonly high: number } | undefined => {
  const [, letters, grade] = /^([A-Za-z]+)(\d+)$/.exec(fit) ?? [];
  const nominal = convertLength(size, unit, "mm");
  const band = GRADES.findIndex(([upTo]) => nominal <= upTo);
  const width = GRADES[band]?.[Number(grade) - 5];
  if (!(nominal > 0) || letters === undefined || width === undefined || Number(grade) < 6) return undefined;
  const own = (micrometres: number): number =>
    micrometres === 0 ? 0 : convertLength(Math.round(micrometres * 10) / 1e4, "mm", unit);
  if (letters === "H") return { low: 0, high: own(width) };
  if (/^js$/i.test(letters)) return { low: own(-width / 2), high: own(width / 2) };
  const upper = SHAFTS[letters]?.[band];
  return upper === undefined ? undefined : { low: own(upper - width), high: own(upper) };
};
