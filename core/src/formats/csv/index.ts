export * from "./contourTable.ts";
