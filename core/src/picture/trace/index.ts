export * from "./accepted.ts";
export type { Group } from "./classes.ts";
export * from "./tracePicture.ts";
