export * from "./annotated.ts";
export * from "./fitRead.ts";
export * from "./openDrawing.ts";
export * from "./readShapes.ts";
export * from "./readThings.ts";
