export * from "./readShapes.ts";
export * from "./readThings.ts";
export * from "./openDrawing.ts";
