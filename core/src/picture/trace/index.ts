export * from "./accepted.ts";
export type { Group } from "./classes.ts";
export * from "./byHand/index.ts";
export type { Proposal } from "./proposal.ts";
export * from "./tracePicture.ts";
