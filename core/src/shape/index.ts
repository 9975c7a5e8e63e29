export * from "./kind.ts";
export * from "./kinds.ts";
export * from "./shape.ts";
