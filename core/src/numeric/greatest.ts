/** The greatest of any number of values, however many; -Infinity of none. As a call with all of them would overflow. */
export const greatest = (values: Iterable<number>): number => {
  let most = -Infinity;
  for (const value of values) if (value > most || Number.isNaN(value)) most = value;
  return most;
};

/** The least of any number of values, however many; Infinity of none. */
export const least = (values: Iterable<number>): number => {
  let fewest = Infinity;
  for (const value of values) if (value < fewest || Number.isNaN(value)) fewest = value;
  return fewest;
};
