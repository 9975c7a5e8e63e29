export * from "./accepted.ts";
export type { Group } from "./classes.ts";
export type { Shape as TracedShape } from "./shapes.ts";
export * from "./tracePicture.ts";
