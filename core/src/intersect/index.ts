export * from "./carriers.ts";
export * from "./meetings.ts";
export * from "./smoothMeetings.ts";
