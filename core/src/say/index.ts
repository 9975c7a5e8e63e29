export * from "./say.ts";
