export * from "./process.ts";
export * from "./readCut.ts";
export * from "./run.ts";
