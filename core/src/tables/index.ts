export * from "./materials.ts";
export * from "./threads.ts";
