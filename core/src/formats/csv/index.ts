export * from "./calloutTable.ts";
export * from "./contourTable.ts";
