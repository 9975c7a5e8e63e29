export * from "./compareDrawings.ts";
export * from "./sayComparison.ts";
