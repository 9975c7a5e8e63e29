const POWERS = Array.from({ length: 23 }, (_, n) => Number(`1e${n}`));
/** Whole numbers up to here stay whole in a double when another digit follows. */
const ROOM = 9e14;
/** Digits that may follow: with them a number has 19 at most. */
const TAIL = 3;

/**
 * The number written between two places of a text, blanks around it allowed; NaN where there is none. The same double
 * that `Number` gives: up to 15 or 16 digits without an exponent are a whole number over a power of ten, both exact, so
 * one division rounds them right (Clinger 1990, "How to read floating point numbers accurately"); up to three more are
 * taken in by a second double; anything else, and what lies too near the middle of two doubles, is left to `Number`.
 */
export const numberAt = (text: string, from: number, to: number): number => {
  let at = from;
  while (at < to && text.charCodeAt(at) <= 32) at += 1;
  let end = to;
  while (end > at && text.charCodeAt(end - 1) <= 32) end -= 1;
  if (at === end) return NaN;
  const start = at;
  const sign = text.charCodeAt(at);
  if (sign === 45 || sign === 43) at += 1;
  let digits = 0;
  let after = -1;
  let whole = 0;
  let tail = 0;
  let tailed = 0;
  for (; at < end; at++) {
    const c = text.charCodeAt(at);
    if (c === 46 && after < 0) after = digits;
    else if (c >= 48 && c <= 57) {
      if (whole < ROOM) whole = whole * 10 + (c - 48);
      else if (tailed < TAIL) {
        tail = tail * 10 + (c - 48);
        tailed += 1;
      } else return Number(text.slice(start, end));
      digits += 1;
    } else return Number(text.slice(start, end));
  }
  const decimals = after < 0 ? 0 : digits - after;
  if (digits === 0 || decimals > 22) return Number(text.slice(start, end));
  const power = POWERS[decimals]!;
  const value = tailed === 0 ? (decimals === 0 ? whole : whole / power) : long(whole, POWERS[tailed]!, tail, power);
  if (Number.isNaN(value)) return Number(text.slice(start, end));
  return sign === 45 ? -value : value;
};

/**
 * (whole · shift + tail) / power, rounded to the nearest double; NaN where that is too near to call. Sums and products
 * are kept with what they lose (Dekker 1971, "A floating-point technique for extending the available precision"), so
 * that what is left over by the division is known to 2^-100 of the number.
 */
const long = (whole: number, shift: number, tail: number, power: number): number => {
  const product = whole * shift;
  const rest = lost(whole, shift, product) + tail;
  const high = product + rest;
  const low = rest - (high - product);
  const quotient = high / power;
  const back = quotient * power;
  const over = (high - back - lost(quotient, power, back) + low) / power;
  const margin = quotient * 2 ** -96;
  const value = quotient + (over + margin);
  return value === quotient + (over - margin) ? value : NaN;
};

/** What a product of two doubles loses by rounding, exactly: the halves of both multiplied. */
const lost = (a: number, b: number, product: number): number => {
  const wideA = a * HALVES;
  const wideB = b * HALVES;
  const aHigh = wideA - (wideA - a);
  const bHigh = wideB - (wideB - b);
  const aLow = a - aHigh;
  const bLow = b - bHigh;
  return aLow * bLow - (product - aHigh * bHigh - aLow * bHigh - aHigh * bLow);
};
const HALVES = 2 ** 27 + 1;
