/** Units of length. 1 in = 25.4 mm exactly (ISO 80000-3). */
export const UNITS = ["mm", "in"] as const;
export type Unit = (typeof UNITS)[number];

/** Units that may be typed, each as a whole number of tenths of a millimetre so that conversions stay exact. */
const TENTHS_OF_MM = { mm: 10, cm: 100, m: 10_000, in: 254, ft: 3048 } as const;
export type TypedUnit = keyof typeof TENTHS_OF_MM;

/** `value` of unit `from` in unit `to`; whole-number factors keep 12 in at 304.8 mm exactly. */
export const convertLength = (value: number, from: TypedUnit, to: TypedUnit): number => {
  if (from === to) return value;
  const up = TENTHS_OF_MM[from];
  const down = TENTHS_OF_MM[to];
  if (up % down === 0) return value * (up / down);
  if (down % up === 0) return value / (down / up);
  return (value * up) / down;
};
