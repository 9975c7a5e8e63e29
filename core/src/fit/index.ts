export * from "./biarc.ts";
export * from "./deviation.ts";
export * from "./fitArcs.ts";
export * from "./oneArc.ts";
export * from "./fitShape.ts";
export * from "./measured/index.ts";
export * from "./smoothThrough.ts";
export * from "./toPoints.ts";
