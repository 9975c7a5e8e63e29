import { readFileSync } from "node:fs";
import { join } from "node:path";
import { inflateSync } from "node:zlib";
import { expect, test } from "@playwright/test";
import { FONT_SIZE, LETTER_WIDTH, LETTERS } from "@ash-edge/core/annotate";

const FILES = join(import.meta.dirname, "..", "..", "node_modules", "@fontsource", "ibm-plex-mono", "files");

/** The tables of a font file in WOFF 1.0 (W3C): a directory of entries of twenty bytes; each deflated or plain. */
const tablesOf = (path: string): ReadonlyMap<string, Buffer> => {
  const file = readFileSync(path);
  return new Map(
    Array.from({ length: file.readUInt16BE(12) }, (_, i) => {
      const entry = 44 + 20 * i;
      const [from, packed, plain] = [4, 8, 12].map((by) => file.readUInt32BE(entry + by)) as [number, number, number];
      const bytes = file.subarray(from, from + packed);
      return [file.toString("latin1", entry, entry + 4), packed < plain ? inflateSync(bytes) : bytes];
    }),
  );
};

/** The letters of a font by its `cmap` in format 4 (OpenType: rows of first and last code point). */
const lettersOf = (cmap: Buffer): ReadonlySet<number> => {
  const found = new Set<number>();
  for (let i = 0; i < cmap.readUInt16BE(2); i++) {
    const at = cmap.readUInt32BE(8 + 8 * i);
    if (cmap.readUInt16BE(at) !== 4) continue;
    const count = cmap.readUInt16BE(at + 6) / 2;
    for (let row = 0; row < count; row++) {
      const last = cmap.readUInt16BE(at + 14 + 2 * row);
      const first = cmap.readUInt16BE(at + 16 + 2 * count + 2 * row);
      for (let code = first; code <= last && code < 0xffff; code++) found.add(code);
    }
  }
  return found;
};

test("the letters and the width that drawings count with are those of the shipped font files", () => {
  const shipped = readFileSync(join(import.meta.dirname, "..", "..", "web", "src", "main.tsx"), "utf8");
  const names = [...shipped.matchAll(/@fontsource\/ibm-plex-mono\/(.*)-400\.css/g)].map(([, name]) => name!);
  expect(names.length).toBeGreaterThan(1);
  const letters = new Set<number>();
  for (const name of names) {
    const tables = tablesOf(join(FILES, `ibm-plex-mono-${name}-400-normal.woff`));
    for (const code of lettersOf(tables.get("cmap")!)) letters.add(code);
    const units = tables.get("head")!.readUInt16BE(18);
    const capitals = tables.get("OS/2")!.readInt16BE(88);
    expect(FONT_SIZE).toBeCloseTo(units / capitals, 12);
    // every letter is as wide as the next
    const metrics = tables.get("hmtx")!;
    expect(LETTER_WIDTH).toBeCloseTo(metrics.readUInt16BE(4 * 3) / capitals, 12);
  }
  for (const [first, last] of LETTERS)
    for (let code = first; code <= last; code++)
      expect([code.toString(16), letters.has(code)]).toEqual([code.toString(16), true]);
  // and those that drawings need are among them
  for (const letter of "0123456789.,~±−°ØR×/()[]+") expect(letters.has(letter.codePointAt(0)!)).toBe(true);
});
