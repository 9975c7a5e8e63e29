export * from "./jobFile.ts";
export * from "./migrations.ts";
export * from "./rows.ts";
export * from "./sense.ts";
