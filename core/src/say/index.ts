export * from "./say.ts";
export * from "./sayFinding.ts";
