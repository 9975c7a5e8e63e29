export * from "./profile.ts";
export * from "./along.ts";
