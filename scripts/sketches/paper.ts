import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { chromium } from "@playwright/test";

const font = readFileSync(
  createRequire(import.meta.url).resolve("@fontsource/kalam/files/kalam-latin-400-normal.woff2"),
).toString("base64");

/** What is drawn with a pencil, and on how large a sheet, in pixels. */
export type Drawn = { readonly svg: string; readonly width: number; readonly height: number };

const ASKEW =
  "width: 84%; height: auto; transform: translateY(-14px) rotateX(24deg) rotateY(-8deg) rotateZ(-2deg); " +
  "box-shadow: 0 18px 40px #0006;";
const TABLE = { askew: "linear-gradient(115deg, #8b7762, #6f5f50)", flat: "#efeadd" };

/** A page with the sheet on it, scanned; or lying askew on a bench top, as a photo shows it. */
export const paperPage = ({ svg, width, height }: Drawn, askew = false): string => `<!doctype html><style>
@font-face { font-family: Kalam; src: url(data:font/woff2;base64,${font}) format("woff2"); }
@page { margin: 0; size: ${width}px ${height}px; }
body { margin: 0; width: ${width}px; height: ${height}px; overflow: hidden;
  background: ${TABLE[askew ? "askew" : "flat"]};
  display: grid; place-items: center; perspective: 1500px; }
svg.paper { display: block; background: #f1ecdf; ${askew ? ASKEW : ""} }
</style><svg class="paper" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">
<filter id="grain"><feTurbulence type="fractalNoise" baseFrequency="0.9" numOctaves="2" seed="7"/>
<feColorMatrix values="0 0 0 0 0.35  0 0 0 0 0.32  0 0 0 0 0.27  0 0 0 0.1 0"/></filter>
<filter id="graphite" x="0" y="0" width="100%" height="100%">
<feTurbulence type="fractalNoise" baseFrequency="0.8" numOctaves="2" seed="3" result="noise"/>
<feDisplacementMap in="SourceGraphic" in2="noise" scale="2"/></filter>
<rect width="100%" height="100%" filter="url(#grain)"/><g filter="url(#graphite)">${svg}</g></svg>`;

/** The lettering of the sketches, for a page that is none of them. */
export const LETTERING = `@font-face { font-family: Kalam; src: url(data:font/woff2;base64,${font}) format("woff2"); }`;

export const openBrowser = (): ReturnType<typeof chromium.launch> =>
  chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
