export * from "./callout.ts";
export * from "./describe.ts";
export * from "./measure.ts";
