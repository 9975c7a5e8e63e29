export * from "./readShapes.ts";
export * from "./readThings.ts";
