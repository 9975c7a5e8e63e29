export * from "./span.ts";
export * from "./splitSpans.ts";
export * from "./stitch.ts";
