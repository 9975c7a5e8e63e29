import { PROCESSES, readCut, runOf, type LayerTable } from "@ash-edge/core/cutter";
import { writeDxf } from "@ash-edge/core/formats/dxf";
import { randomFrom } from "../../core/src/testing/contours.ts";
import { say } from "./report.ts";

const LAYERS: LayerTable = { OUTSIDE: "outside", INSIDE: "inside" };

/** Files of many contours on the test cutter: read and looked over, ordered and led into. */
export const cutter = (): void => {
  say("\n## The test cutter: holes in a plate, ms\n");
  say("| contours | read and looked over | ordered, led into, timed | travel, mm |");
  say("| ---: | ---: | ---: | ---: |");
  for (const n of [500, 1000, 2000, 4000]) {
    const random = randomFrom(n);
    const row = Math.ceil(Math.sqrt(n));
    const holes = Array.from({ length: n - 1 }, (_, i) => ({
      kind: "circle" as const,
      layer: "INSIDE",
      centre: { x: 20 * (i % row) + 8 * random(), y: 20 * Math.floor(i / row) + 8 * random() },
      radius: 2 + 2 * random(),
    }));
    const size = 20 * row + 20;
    const corners = [
      [-20, -20],
      [size, -20],
      [size, size],
      [-20, size],
    ].map(([x, y]) => ({ x: x!, y: y! }));
    const pieces = corners.map((a, i) => ({ a, b: corners[(i + 1) % 4]!, bulge: 0 }));
    const text = writeDxf([{ kind: "polyline", layer: "OUTSIDE", pieces, closed: true }, ...holes], "mm");
    const start = performance.now();
    const read = readCut(text, PROCESSES.plasma, LAYERS);
    if (!read.ok) throw new Error(read.refusal.code);
    const between = performance.now();
    const run = runOf(read.value, PROCESSES.plasma);
    const end = performance.now();
    say(`| ${n} | ${(between - start).toFixed(0)} | ${(end - between).toFixed(0)} | ${run.travel.toFixed(0)} |`);
  }
};
