export * from "./blanks.ts";
export * from "./driver.ts";
export * from "./placing.ts";
export * from "./registry.ts";
export * from "./tool.ts";
export * from "./given.ts";
export * from "./lit.ts";
export * from "./toolState.ts";
