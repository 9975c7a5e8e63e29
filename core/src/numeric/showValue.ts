import { RESOLUTION, TRUE_WITHIN } from "./tolerance.ts";
import type { Unit } from "./units.ts";

/** Whole numbers and fractions of up to 64ths, for inches that are exactly so: 1 3/16. */
const asFraction = (value: number): string | undefined => {
  const sixtyFourths = Math.abs(value) * 64;
  if (!Number.isInteger(sixtyFourths) || sixtyFourths > 64 * 1e6) return undefined;
  const whole = Math.floor(sixtyFourths / 64);
  let over = sixtyFourths % 64;
  let under = 64;
  while (over > 0 && over % 2 === 0) {
    over /= 2;
    under /= 2;
  }
  const fraction = over === 0 ? "" : `${over}/${under}`;
  const text = [whole > 0 || fraction === "" ? `${whole}` : "", fraction].filter(Boolean).join(" ");
  return value < 0 ? `-${text}` : text;
};

const asDecimal = (value: number, places: number): string => {
  const text = value.toFixed(places).replace(/\.?0+$/, "");
  if (/^-?0$/.test(text)) return Math.abs(value) < RESOLUTION ? "0" : twoDigits(value);
  return Number(text) === value ? text : `≈ ${text}`;
};
const twoDigits = (value: number): string =>
  `≈ ${value.toLocaleString("en", { maximumSignificantDigits: 2, useGrouping: false })}`;

/**
 * A length as people read it, without its unit: millimetres with up to 3 decimals; inches as 64ths only when exactly
 * so, else up to 4 decimals. "≈" stands before a text that is not the value. What is less than the resolution is 0;
 * what is more but would round to 0 is shown by two digits of it.
 */
export const showLength = (value: number, unit: Unit): string =>
  unit === "in" ? (asFraction(value) ?? asDecimal(value, 4)) : asDecimal(value, 3);

/** A length that tells why something is wrong: as `showLength`, but never 0 for what is not: `≈ 0.0000000034`. */
export const showTelling = (value: number, unit: Unit): string => {
  const text = showLength(value, unit);
  return text === "0" && value !== 0 ? twoDigits(value) : text;
};

/** A length with its unit: `12.5 mm`, `3 1/8 in`. */
export const showLengthUnit = (value: number, unit: Unit): string => `${showLength(value, unit)} ${unit}`;

/** An angle in degrees: `42.5°`. */
export const showAngle = (degrees: number): string => `${asDecimal(degrees, 4)}°`;

/** An area with its unit: `7854 mm²`; always a rounding, so "≈" is left to exact callers. */
export const showArea = (value: number, unit: Unit): string =>
  `${value.toLocaleString("en", { maximumFractionDigits: unit === "in" ? 3 : 1, useGrouping: false })} ${unit}²`;

/** A difference off a called value, to 3 significant places at least: `0.0004`. */
export const showDifference = (value: number): string => {
  const size = Math.abs(value);
  return size >= 0.001 ? size.toFixed(3).replace(/\.?0+$/, "") : size.toPrecision(2);
};

/**
 * A derived number, such as the radius of an arc, shown as the round number that it is to within what counts as true.
 */
export const derivedNumber = (value: number): number => {
  const near = Math.round(value * 64e6) / 64e6;
  return Math.abs(near - value) < TRUE_WITHIN / 100 ? near : value;
};
