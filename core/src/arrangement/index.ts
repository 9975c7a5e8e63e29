export * from "./arrange.ts";
export * from "./combine.ts";
export * from "./outline.ts";
export * from "./span.ts";
