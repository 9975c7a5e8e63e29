export * from "./callout.ts";
export * from "./drawing.ts";
export * from "./edit.ts";
export * from "./entity.ts";
export * from "./layer.ts";
export * from "./pages.ts";
export * from "./picture.ts";
export * from "./ref.ts";
