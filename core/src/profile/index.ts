export * from "./profile.ts";
export * from "./along.ts";
export * from "./roleChanges.ts";
