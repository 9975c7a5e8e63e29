export * from "./writePdf.ts";
