/** Rises, never reused. */
export type Id = number;
