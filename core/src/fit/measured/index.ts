export * from "./fitMeasured.ts";
