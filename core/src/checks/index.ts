export * from "./faults.ts";
export * from "./releasePlan.ts";
