const BITS = 2_147_483_647;

/**
 * The number of a square from a place counted in squares. Beyond 32 bits it is folded by remainders, which keeps
 * neighbours apart.
 */
export const squareAt = (place: number): number => {
  const square = Math.floor(place);
  return (square > -BITS && square < BITS ? square : square % BITS) | 0;
};

/** A hash of a square's column and row, for a table of a power of two of slots. */
export const squareHash = (column: number, row: number): number => {
  const h = Math.imul(column, 73_856_093) ^ Math.imul(row, 19_349_663);
  // squares in even steps share their low bits: the high ones are mixed in
  const mixed = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  return mixed ^ (mixed >>> 13);
};

/** What masks a hash for a table of about twice as many slots as there are points. */
export const slotMask = (points: number): number => 2 ** Math.ceil(Math.log2(2 * points + 2)) - 1;
