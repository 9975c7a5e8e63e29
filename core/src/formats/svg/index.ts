export * from "./compareSvg.ts";
export * from "./readSvg.ts";
export * from "./writeSvg.ts";
