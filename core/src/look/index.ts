export * from "./changedShapes.ts";
export * from "./describe.ts";
export * from "./drawingIndex.ts";
export * from "./handles.ts";
export * from "./picking.ts";
export * from "./placesNear.ts";
export * from "./selecting.ts";
export * from "./snaps.ts";
