export * from "../readShapes.ts";
export * from "./compareRead.ts";
export * from "./readDxf.ts";
export * from "./writeDxf.ts";
