export * from "./holds.ts";
export * from "./joins.ts";
export { kindOf, type End, type EndOf, type Kind, type Proposals } from "./pieces.ts";
export * from "./refits.ts";
