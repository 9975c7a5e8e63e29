/** The pitch of the dots: 1, 2 or 5 times a power of ten units, never closer than 22 pixels. */
export const gridPitch = (scale: number): number => {
  const least = 22 / scale;
  const power = 10 ** Math.floor(Math.log10(least));
  return [1, 2, 5, 10].map((n) => n * power).find((step) => step >= least)!;
};
