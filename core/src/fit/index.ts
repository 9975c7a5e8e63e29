export * from "./biarc.ts";
export * from "./fitArcs.ts";
