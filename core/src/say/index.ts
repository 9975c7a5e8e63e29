export * from "./questions.ts";
export * from "./say.ts";
export * from "./sayFinding.ts";
export * from "./sayTrue.ts";
