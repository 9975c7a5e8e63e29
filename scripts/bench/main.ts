// Measures ours against libraries in the same run, as ratios, and the built application in Chromium; prints a report.
// Built as the product is before it runs. Names of parts after it run only these; `--write` puts the whole into
// docs/benchmarks.md.
import { readFileSync, writeFileSync } from "node:fs";
import { areas } from "./areas.ts";
import { annotations } from "./annotations.ts";
import { checks } from "./checks.ts";
import { cutter } from "./cutter.ts";
import { edits } from "./edits.ts";
import { felt } from "./felt.ts";
import { formats } from "./formats.ts";
import { growth } from "./growth.ts";
import { numbers } from "./numbers.ts";
import { offsets } from "./offsets.ts";
import { page } from "./page.ts";
import { pictures } from "./pictures.ts";
import { lines, say } from "./report.ts";
import { tidying } from "./tidying.ts";
import { tracings } from "./tracings.ts";
import { trials } from "./trials.ts";

const PARTS: Record<string, () => void | Promise<void>> = {
  formats,
  tidying,
  offsets,
  areas,
  growth,
  trials,
  tracings,
  pictures,
  checks,
  cutter,
  edits,
  annotations,
  numbers,
  page,
  felt,
};
const write = process.argv.includes("--write");
const asked = process.argv.slice(2).filter((name) => name in PARTS);

say("# Benchmarks\n");
say(
  "Made by `npm run bench -- --write`: ours against libraries in the same run, in turns, medians of 5 (offsets " +
    "and areas after some rounds to warm up). Ratios under 2 mean little.",
);
say(`\nNode ${process.version}.`);
for (const name of write || asked.length === 0 ? Object.keys(PARTS) : asked) await PARTS[name]!();
if (write) {
  // what the harnesses came to stands behind the figures, and stays
  const kept = readFileSync("docs/benchmarks.md", "utf8").split(/^(?=## Harnesses$)/m)[1];
  writeFileSync("docs/benchmarks.md", `${lines.join("\n")}\n${kept ? `\n${kept}` : ""}`);
}
