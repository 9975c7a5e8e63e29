export * from "./carriers.ts";
export * from "./meetings.ts";
