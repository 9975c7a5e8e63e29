const POWERS = Array.from({ length: 23 }, (_, n) => Number(`1e${n}`));
/** Whole numbers up to here stay whole in a double when another digit follows. */
const ROOM = 9e14;

/**
 * The number written between two places of a text, blanks around it allowed; NaN where there is none. The same double that `Number`
 * gives: up to 16 digits without an exponent are a whole number over a power of ten, both exact, so one division rounds them right
 * (Clinger 1990, "How to read floating point numbers accurately"); anything else is left to `Number`.
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
  let [digits, after, whole] = [0, -1, 0];
  for (; at < end; at++) {
    const c = text.charCodeAt(at);
    if (c === 46 && after < 0) after = digits;
    else if (c >= 48 && c <= 57 && whole < ROOM) {
      whole = whole * 10 + (c - 48);
      digits += 1;
    } else return Number(text.slice(start, end));
  }
  const decimals = after < 0 ? 0 : digits - after;
  if (digits === 0 || decimals > 22) return Number(text.slice(start, end));
  const value = decimals === 0 ? whole : whole / POWERS[decimals]!;
  return sign === 45 ? -value : value;
};
