// Runs the harnesses of what must never be lost at their full size (200 kills among them, about twenty minutes) and
// writes what came of them into docs/benchmarks.md.
import { spawnSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";

const FILE = "docs/benchmarks.md";
const HEAD = "## Harnesses";
const ROWS = ["kills", "write faults", "tabs", "damaged records", "tool uses", "reserve", "crafted files"] as const;

const run = (words: readonly string[], more: NodeJS.ProcessEnv): string => {
  const { stdout, status } = spawnSync("npx", words, {
    env: { ...process.env, NO_COLOR: "1", ...more },
    encoding: "utf8",
    maxBuffer: 1e8,
  });
  if (status !== 0) throw new Error(`${words.join(" ")} failed:\n${stdout.slice(-4000)}`);
  return stdout;
};

const said = [
  run(["vitest", "run", "web/src/store/harness", "core/src/formats/job"], { HARNESS: "full" }),
  process.argv.includes("--no-kills")
    ? ""
    : run(["playwright", "test", "--config", "e2e/playwright.config.ts", "kills"], { KILLS: "200" }),
].join("\n");
const lines = ROWS.flatMap((row) => {
  const found = new RegExp(`^${row}: (.+)$`, "m").exec(said)?.[1];
  return found === undefined ? [] : [`| ${row} | ${found} |`];
});
const before = readFileSync(FILE, "utf8").split(`${HEAD}\n`)[0]!.trimEnd();
const section = [
  HEAD,
  "",
  "Made by `npm run harness`: each ended with what it asks for held every time; a small part of each runs with " +
    "the tests.",
  "",
  "In two runs before the reserve was built the browser was killed 90 and 172 times, and then had deleted its " +
    "database: the job was gone. The reserve is for that.",
  "",
  "| | |",
  "| --- | --- |",
  ...lines,
];
writeFileSync(FILE, `${before}\n\n${section.join("\n")}\n`);
console.log(lines.join("\n"));
