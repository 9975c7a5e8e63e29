export * from "./allowance.ts";
export * from "./collapse.ts";
export * from "./offset.ts";
export * from "./regionOffset.ts";
export type { Corners, Ends, OffsetSource } from "./sources.ts";
export { SHARP_LIMIT } from "./rawPieces.ts";
