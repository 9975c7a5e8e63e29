import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { vi } from "vitest";
import { main } from "../main.ts";

/** Calls the command line, and what it came to: its exit code, and what it wrote. */
export const run = async (...words: string[]): Promise<{ code: number; out: string; err: string }> => {
  const [out, err] = [vi.spyOn(process.stdout, "write"), vi.spyOn(process.stderr, "write")].map((spy) =>
    spy.mockClear().mockReturnValue(true),
  );
  const code = await main(words);
  const said = (spy: typeof out): string => spy!.mock.calls.map(([text]) => text).join("");
  return { code, out: said(out), err: said(err) };
};

/** A new folder. */
export const folder = (): string => mkdtempSync(join(tmpdir(), "ash-edge-"));

/** A file in a folder of its own. */
export const file = (text: string, name = "part.dxf"): string => {
  const path = join(folder(), name);
  writeFileSync(path, text);
  return path;
};
