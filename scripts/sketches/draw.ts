// Draws the demo's sketches as PNGs and writes the demo's jobs beside them: server/demo/.
import { writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import type { Page } from "@playwright/test";
import { basin } from "./basin.ts";
import { clockHands } from "./clockHands.ts";
import { coverPlate } from "./coverPlate.ts";
import { hearthStone } from "./hearthStone.ts";
import { nameplate } from "./nameplate.ts";
import { openBrowser, paperPage } from "./paper.ts";
import { rockerPlate } from "./rockerPlate.ts";
import type { Sketch } from "./sketch.ts";
import { valveChestJoint } from "./valveChest.ts";

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
const target = join(root, "server", "demo");
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

const browser = await openBrowser();
const jobs = [];
for (const sketch of [coverPlate(), hearthStone(), rockerPlate(), basin(), clockHands(), nameplate()]) {
  const tab = await browser.newPage({ viewport: { width: sketch.width, height: sketch.height } });
  await tab.setContent(paperPage(sketch, sketch.askew));
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
