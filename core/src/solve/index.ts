export * from "./ask.ts";
export * from "./holds/relation.ts";
export * from "./lookTrue.ts";
export * from "./makeTrue.ts";
export * from "./standing.ts";
export type { Answer } from "./linkCandidates.ts";
export * from "./proposeLinks.ts";
