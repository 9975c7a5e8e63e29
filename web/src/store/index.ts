export * from "./checksum.ts";
export * from "./database.ts";
export * from "./jobActions.ts";
export * from "./jobs.ts";
export * from "./journal.ts";
export * from "./keeper.ts";
export * from "./records.ts";
export * from "./summary.ts";
