export * from "./addMeasured.ts";
export * from "./answerMade.ts";
export * from "./calloutsInText.ts";
export * from "./describe.ts";
export * from "./editCallouts.ts";
export * from "./measure.ts";
export * from "./pointAnew.ts";
export * from "./readLedgerLine.ts";
