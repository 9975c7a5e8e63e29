/** A number with so many decimals (0 to 100), the nearest; or as it is. */
export const roundedTo = (value: number, decimals: "exact" | number): number =>
  decimals === "exact" ? value : Number(value.toFixed(decimals)) + 0;
