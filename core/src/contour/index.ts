export * from "./centroid.ts";
export * from "./chain.ts";
export * from "./chainMeasure.ts";
export * from "./joining.ts";
export * from "./materialLeft.ts";
export * from "./meetingPlaces.ts";
export * from "./nesting.ts";
export * from "./winding.ts";
