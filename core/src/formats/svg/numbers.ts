/** A number as SVG and CSS write it. */
const NUMBER = /[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?/y;
const BETWEEN = /[\s,]*/y;

/**
 * The numbers of a list, with or without anything between them (`10-5.5.5` is three); up to the first that is none,
 * where `isWhole` is false (SVG 1.1, 8.3.9 and 9.7.1).
 */
export const numbersIn = (text: string): { readonly values: readonly number[]; readonly isWhole: boolean } => {
  const values: number[] = [];
  let at = 0;
  const skip = (): void => {
    BETWEEN.lastIndex = at;
    BETWEEN.test(text);
    at = BETWEEN.lastIndex;
  };
  skip();
  while (at < text.length) {
    NUMBER.lastIndex = at;
    const found = NUMBER.exec(text);
    if (!found) return { values, isWhole: false };
    values.push(Number(found[0]));
    at = NUMBER.lastIndex;
    skip();
  }
  return { values, isWhole: true };
};

/** User units for one of a unit: 96 to the inch, as CSS has them. */
const UNITS: Readonly<Record<string, number>> = {
  "": 1,
  px: 1,
  in: 96,
  cm: 96 / 2.54,
  mm: 96 / 25.4,
  q: 96 / 101.6,
  pt: 96 / 72,
  pc: 16,
};

/** A length in user units; a percentage is of `whole`. NaN where it is none, or depends on a font. */
export const lengthOf = (text: string, whole: number): number => {
  const found = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?)\s*([a-zA-Z]*|%)\s*$/.exec(text);
  if (!found) return NaN;
  const [, digits, unit] = found;
  if (unit === "%") return (Number(digits) / 100) * whole;
  return Number(digits) * (UNITS[unit!.toLowerCase()] ?? NaN);
};
