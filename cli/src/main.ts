import { readFile } from "node:fs/promises";
import { sayRefusal } from "@ash-edge/core/say";
import { readDxf } from "@ash-edge/core/formats/dxf";
import { inspect, type Inspection } from "./inspect.ts";

const VERSION = "0.1.0";
const USAGE = `ash-edge inspect IN.dxf [--units mm|in] [--json]   reads a drawing and reports; writes nothing
ash-edge --version
ash-edge --help
`;

/** Wrong arguments or an unusable file: one line on standard error, exit 2. */
class Unusable extends Error {}

type Arguments = { readonly file: string; readonly json: boolean; readonly units?: "mm" | "in" };

const readArguments = (words: readonly string[]): Arguments => {
  const files: string[] = [];
  let json = false;
  let units: "mm" | "in" | undefined;
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    if (word === "--json") json = true;
    else if (word === "--units") {
      const value = words[++i];
      if (value !== "mm" && value !== "in") throw new Unusable("--units takes mm or in");
      units = value;
    } else if (word.startsWith("-")) throw new Unusable(`${word} is no option of inspect; see --help`);
    else files.push(word);
  }
  if (files.length !== 1) throw new Unusable("inspect takes one file; see --help");
  return { file: files[0]!, json, ...(units ? { units } : {}) };
};

const inText = ({ units, contours, findings, ready }: Inspection): string =>
  [
    `unit ${units}`,
    ...contours.map(({ closed, role, layer, area, length, circle, lines, arcs }) => {
      const what = circle ? "circle" : `${lines} lines, ${arcs} arcs`;
      return `${closed ? "closed" : "open"} ${role} on ${layer}: ${what}, length ${length}${area === null ? "" : `, area ${area}`}`;
    }),
    ...findings.map(({ severity, code, message }) => `${severity} ${code}: ${message}`),
    ready ? "ready to cut" : "not ready to cut",
    "",
  ].join("\n");

/** Runs the command line and returns its exit code: 0 ready, 1 findings remain, 2 unusable. */
export const main = async (words: readonly string[]): Promise<0 | 1 | 2> => {
  try {
    const [command, ...rest] = words;
    if (command === "--version") {
      process.stdout.write(`${VERSION}\n`);
      return 0;
    }
    if (command === "--help") {
      process.stdout.write(USAGE);
      return 0;
    }
    if (command !== "inspect")
      throw new Unusable(command ? `${command} is no command; see --help` : "a command is missing; see --help");
    const { file, json, units } = readArguments(rest);
    if (!/\.dxf$/i.test(file)) throw new Unusable(`${file}: only DXF files can be read so far`);
    const text = await readFile(file, "latin1").catch(() => {
      throw new Unusable(`${file}: there is no such file, or it can't be read`);
    });
    const read = readDxf(text);
    if (!read.ok) throw new Unusable(`${file}: ${sayRefusal(read.refusal, "mm")}`);
    const inspection = inspect(read.value, units);
    process.stdout.write(json ? `${JSON.stringify(inspection)}\n` : inText(inspection));
    return inspection.ready ? 0 : 1;
  } catch (reason) {
    if (!(reason instanceof Unusable)) throw reason;
    process.stderr.write(`ash-edge: ${reason.message}\n`);
    return 2;
  }
};
