import DxfParser from "dxf-parser";
import Flatbush from "flatbush";
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { growBounds, pieceBounds, pointGrid } from "@ash-edge/core/geometry";
import { tidy } from "@ash-edge/core/tidy";
import { race, say, table } from "./report.ts";
import { SOUP_OPTIONS, soupOf, soupText } from "./soup.ts";

/**
 * What any tidying has to do at the least: tell equal pieces, put ends on a grid, sort lines by carrier, and ask what
 * lies near each.
 */
const lowerBounds = (things: ReturnType<typeof soupOf>): Record<string, () => unknown> => {
  const pieces = things.map(({ shape }) => shape);
  const bits = new Float64Array(1);
  const words = new Uint32Array(bits.buffer);
  const hashed = (hash: number, n: number): number => {
    bits[0] = n;
    return Math.imul(Math.imul(hash ^ words[0]!, 0x9e3779b1) ^ words[1]!, 0x85ebca6b);
  };
  const build = (): Flatbush => {
    const index = new Flatbush(pieces.length);
    for (const piece of pieces) {
      const { minX, minY, maxX, maxY } = pieceBounds(piece);
      index.add(minX, minY, maxX, maxY);
    }
    index.finish();
    return index;
  };
  const built = build();
  return {
    "duplicates by hashed bits": () => {
      const seen = new Map<number, number>();
      pieces.forEach(({ a, b }, i) => {
        const [p, q] = a.x < b.x || (a.x === b.x && a.y < b.y) ? [a, b] : [b, a];
        seen.set(hashed(hashed(hashed(hashed(0, p.x), p.y), q.x), q.y), i);
      });
      return seen.size;
    },
    "ends put on a grid and looked up": () => {
      const ends = pieces.flatMap(({ a, b }) => [a, b]);
      const grid = pointGrid(ends, SOUP_OPTIONS.tolerance);
      let met = 0;
      for (const end of ends) grid.near(end, () => met++);
      return met;
    },
    "lines by carrier": () => {
      const carriers = new Map<number, number[]>();
      pieces.forEach(({ a, b }, i) => {
        const angle = Math.atan2(b.y - a.y, b.x - a.x);
        const key = hashed(Math.round(angle * 1e6), Math.round((a.x * b.y - a.y * b.x) * 10));
        const found = carriers.get(key);
        if (found) found.push(i);
        else carriers.set(key, [i]);
      });
      return carriers.size;
    },
    "index built": build,
    "index asked for every box": () => {
      let met = 0;
      for (const piece of pieces) {
        const { minX, minY, maxX, maxY } = growBounds(pieceBounds(piece), SOUP_OPTIONS.tolerance);
        met += built.search(minX, minY, maxX, maxY).length;
      }
      return met;
    },
  };
};

/** A process that reads a file with dxf-parser and does nothing else. */
const READ_ALONE = `
  import { readFileSync } from "node:fs";
  import DxfParser from "dxf-parser";
  new DxfParser().parseSync(readFileSync(process.argv[1], "utf8"));
`;

/**
 * Tidying a soup: how it grows, against what it can't do without, as a whole process, and a million curves with their
 * memory.
 */
export const tidying = (): void => {
  say("\n## Tidying a soup of loose lines\n\n| curves | ms | µs a curve |\n| ---: | ---: | ---: |");
  for (const things of [1_000, 10_000, 100_000].map(soupOf)) {
    const time = race({ ours: () => tidy(things, SOUP_OPTIONS) }).ours!;
    say(`| ${things.length} | ${time.toFixed(0)} | ${((1000 * time) / things.length).toFixed(1)} |`);
  }
  const soup = soupOf(100_000);
  const { ours, ...least } = race({ ours: () => tidy(soup, SOUP_OPTIONS), ...lowerBounds(soup) });
  const sum = Object.values(least).reduce((p, q) => p + q);
  table(`Tidying ${soup.length} lines against what it can't do without`, {
    ours: ours!,
    "the lower bounds together": sum,
    ...least,
  });

  const text = soupText(100_000);
  const folder = mkdtempSync(join(tmpdir(), "ash-edge-bench-"));
  const file = join(folder, "soup.dxf");
  writeFileSync(file, text);
  const options = ["--tolerance", String(SOUP_OPTIONS.tolerance)];
  table(
    `Reading, tidying and writing ${soup.length} lines (${(text.length / 1e6).toFixed(1)} MB)`,
    race({
      "ours, all three, the command line as a whole process": () => {
        const made = spawnSync(
          "node",
          ["cli/bin/ash-edge.mjs", "tidy", file, "-o", join(folder, "out.dxf"), ...options],
          { stdio: "ignore" },
        );
        if (made.status !== 0 && made.status !== 1) throw new Error(`ended with ${made.status}`);
      },
      "dxf-parser, reading alone, as a whole process": () => {
        const made = spawnSync("node", ["--input-type=module", "--eval", READ_ALONE, file], { stdio: "ignore" });
        if (made.status !== 0) throw new Error(`ended with ${made.status}`);
      },
      "dxf-parser, reading alone, in this process, warmed up": () => new DxfParser().parseSync(text),
    }),
  );
  rmSync(folder, { recursive: true });

  say("\n## Growth: read, tidied and written, each in a process of its own\n");
  say("| curves | reading ms | tidying ms | writing ms | µs a curve | most memory, MB |");
  say("| ---: | ---: | ---: | ---: | ---: | ---: |");
  for (const curves of [1_000, 10_000, 100_000, 1_000_000]) {
    const made = spawnSync("node", ["scripts/bench/dist/great.js", String(curves)]);
    const { reading, tidying: own, writing, memory } = JSON.parse(String(made.stdout)) as Record<string, number>;
    const each = (1000 * (reading! + own! + writing!)) / curves;
    say(
      `| ${curves} | ${[reading, own, writing].map((ms) => ms!.toFixed(0)).join(" | ")} | ${each.toFixed(1)} | ` +
        `${(memory! / 1e6).toFixed(0)} |`,
    );
  }
};
