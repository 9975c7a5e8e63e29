export * from "./jobFile.ts";
export * from "./rows.ts";
