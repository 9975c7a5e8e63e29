export * from "./bounds.ts";
export * from "./circle.ts";
export * from "./curve.ts";
export * from "./endless.ts";
export * from "./piece.ts";
export * from "./point.ts";
export * from "./transform.ts";
