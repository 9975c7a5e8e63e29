export * from "./homography.ts";
export * from "./placePicture.ts";
export * from "./straighten.ts";
