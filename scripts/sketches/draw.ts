// Draws the demo's sketches as PNGs and writes the demo's jobs beside them: server/demo/.
import { readFileSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { chromium, type Page } from "@playwright/test";
import { basin } from "./basin.ts";
import { clockHands } from "./clockHands.ts";
import { coverPlate } from "./coverPlate.ts";
import { hearthStone } from "./hearthStone.ts";
import { rockerPlate } from "./rockerPlate.ts";
import type { Sketch } from "./sketch.ts";
import { valveChestJoint } from "./valveChest.ts";

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
const target = join(root, "server", "demo");
const font = readFileSync(
  createRequire(import.meta.url).resolve("@fontsource/kalam/files/kalam-latin-400-normal.woff2"),
).toString("base64");

const ASKEW =
  "width: 84%; height: auto; transform: translateY(-14px) rotateX(24deg) rotateY(-8deg) rotateZ(-2deg); " +
  "box-shadow: 0 18px 40px #0006;";
const table = (askew: boolean | undefined): string => (askew ? "linear-gradient(115deg, #8b7762, #6f5f50)" : "#efeadd");
const page = ({ svg, width, height, askew }: Sketch): string => `<!doctype html><style>
@font-face { font-family: Kalam; src: url(data:font/woff2;base64,${font}) format("woff2"); }
body { margin: 0; width: ${width}px; height: ${height}px; overflow: hidden; background: ${table(askew)};
  display: grid; place-items: center; perspective: 1500px; }
svg.paper { display: block; background: #f1ecdf; ${askew ? ASKEW : ""} }
</style><svg class="paper" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">
<filter id="grain"><feTurbulence type="fractalNoise" baseFrequency="0.9" numOctaves="2" seed="7"/>
<feColorMatrix values="0 0 0 0 0.35  0 0 0 0 0.32  0 0 0 0 0.27  0 0 0 0.1 0"/></filter>
<filter id="graphite" x="0" y="0" width="100%" height="100%">
<feTurbulence type="fractalNoise" baseFrequency="0.8" numOctaves="2" seed="3" result="noise"/>
<feDisplacementMap in="SourceGraphic" in2="noise" scale="2"/></filter>
<rect width="100%" height="100%" filter="url(#grain)"/><g filter="url(#graphite)">${svg}</g></svg>`;

/** Where a point of the paper lies in the picture, in parts of its width and height. */
const placed = (tab: Page, sketch: Sketch): Promise<{ x: number; y: number }[]> =>
  tab.evaluate(
    ({ pins, width, height }) => {
      const paper = document.querySelector<SVGSVGElement>("svg.paper")!;
      return pins.map(({ x, y }) => {
        const dot = document.createElementNS("http://www.w3.org/2000/svg", "circle");
        for (const [name, value] of [
          ["cx", x],
          ["cy", y],
          ["r", 0.5],
        ] as const)
          dot.setAttribute(name, String(value));
        paper.append(dot);
        const box = dot.getBoundingClientRect();
        dot.remove();
        return {
          x: Number(((box.left + box.width / 2) / width).toFixed(4)),
          y: Number(((box.top + box.height / 2) / height).toFixed(4)),
        };
      });
    },
    { pins: sketch.callouts.map(({ pin }) => pin), width: sketch.width, height: sketch.height },
  );

const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
const jobs = [];
for (const sketch of [coverPlate(), hearthStone(), rockerPlate(), basin(), clockHands()]) {
  const tab = await browser.newPage({ viewport: { width: sketch.width, height: sketch.height } });
  await tab.setContent(page(sketch));
  await tab.evaluate(() => document.fonts.ready);
  const name = `sketch-${sketch.head.number}.png`;
  await tab.screenshot({ path: join(target, name) });
  const pins = await placed(tab, sketch);
  const callouts = sketch.callouts.map((callout, i) => ({
    ...callout,
    pin: { sketch: `${sketch.id}-sketch-1`, ...pins[i]! },
  }));
  jobs.push({ id: sketch.id, unit: sketch.unit, head: sketch.head, callouts, sketch: `/api/demo/${name}` });
  await tab.close();
}
await browser.close();
writeFileSync(join(target, "jobs.json"), `${JSON.stringify({ jobs }, null, 2)}\n`);
const { dxf, faults, contours } = valveChestJoint();
writeFileSync(join(target, "0416-valve-chest-joint.dxf"), dxf);
writeFileSync(join(target, "0416-faults.json"), `${JSON.stringify({ faults, contours }, null, 2)}\n`);
console.log(`${jobs.length} sketches drawn into server/demo`);
