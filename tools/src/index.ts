export * from "./driver.ts";
export * from "./placing.ts";
export * from "./registry.ts";
export * from "./tool.ts";
