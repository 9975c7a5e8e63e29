export * from "./layoutLines.ts";
export * from "./parallel.ts";
export * from "./rectangle.ts";
export * from "./tangentArcs.ts";
export * from "./tangentLines.ts";
