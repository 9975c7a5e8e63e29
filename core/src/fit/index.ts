export * from "./biarc.ts";
export * from "./fitArcs.ts";
export * from "./oneArc.ts";
export * from "./fitShape.ts";
