// What the command line runs: the built files while they are newer than every source, else the sources themselves.
import { readdirSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { setFlagsFromString } from "node:v8";

// The space for what is new grows to its full size at once: a drawing fills it anyway, and step by step it is swept
// more often.
setFlagsFromString("--semi-space-growth-factor=16");
// Most runs are over before much inlining pays, and the compiler wants the same few processors: a third of all the
// time went there.
setFlagsFromString("--max-inlined-bytecode-size-cumulative=200");

const cli = dirname(dirname(fileURLToPath(import.meta.url)));

const newest = (folder) =>
  Math.max(
    ...readdirSync(folder, { withFileTypes: true }).map((entry) => {
      const path = join(folder, entry.name);
      return entry.isDirectory() ? newest(path) : statSync(path).mtimeMs;
    }),
  );

export const entry = async (name) => {
  const built = join(cli, "dist", `${name}.js`);
  const fresh = statSync(built, { throwIfNoEntry: false })?.mtimeMs ?? 0;
  if (fresh > newest(join(cli, "src")) && fresh > newest(join(cli, "..", "core", "src"))) return import(built);
  const { register } = await import("tsx/esm/api");
  register();
  return import(`../src/${name}.ts`);
};
