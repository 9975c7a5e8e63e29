export * from "./calloutBlock.ts";
export * from "./page.ts";
export * from "./paper.ts";
export * from "./sheetPages.ts";
export * from "./templatePages.ts";
export * from "./titleBlock.ts";
