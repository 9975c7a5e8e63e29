export * from "./profile.ts";
