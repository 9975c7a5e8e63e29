export * from "./fits.ts";
export * from "./materials.ts";
export * from "./threads.ts";
export * from "./tools.ts";
