/** What all of some values are; undefined where they differ, or there are none. */
export const agreed = <T>(values: readonly T[]): T | undefined =>
  values.every((value) => value === values[0]) ? values[0] : undefined;
