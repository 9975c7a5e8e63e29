export * from "./threads.ts";
