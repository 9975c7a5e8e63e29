export * from "./angle.ts";
export * from "./outcome.ts";
export * from "./roots.ts";
export * from "./showValue.ts";
export * from "./tolerance.ts";
export * from "./typedList.ts";
export * from "./typedValue.ts";
export * from "./units.ts";
