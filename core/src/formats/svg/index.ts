export * from "./readSvg.ts";
export * from "./writeSvg.ts";
