export * from "./things.ts";
export * from "./tidy.ts";
