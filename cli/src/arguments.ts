import type { DxfVersion } from "@ash-edge/core/formats/dxf";
import type { Unit } from "@ash-edge/core/numeric";
import { SHARP_LIMIT, type Corners } from "@ash-edge/core/offset";
import { Unusable } from "./unusable.ts";

export const COMMANDS = ["inspect", "tidy", "offset", "convert"] as const;
export type Command = (typeof COMMANDS)[number];

export type Arguments = {
  readonly command: Command;
  readonly inputs: readonly string[];
  readonly out?: string;
  readonly json: boolean;
  readonly units?: Unit;
  readonly tolerance?: number;
  readonly ignore: ReadonlySet<"layer" | "colour" | "line">;
  readonly sharedEdges: "keep" | "drop" | "merge";
  readonly roles: boolean;
  readonly version: DxfVersion;
  /** Smooth curves and runs of tiny pieces become arcs within this. */
  readonly arcs?: number;
  readonly offset?: {
    readonly by: number;
    readonly side: "out" | "in" | "both";
    readonly corners: Corners;
    readonly times: number;
    readonly limit: number;
  };
};

export const USAGE = `ash-edge inspect IN…                 reads and reports; writes nothing
ash-edge tidy IN… -o OUT              takes away duplicates and overlaps, closes gaps, joins what meets
ash-edge offset IN… -o OUT --by D --side out|in|both
                                      offsets every closed contour and writes only what comes of them
ash-edge convert IN… -o OUT           writes the drawing again; the extension of OUT names the format

IN is a DXF (ASCII of any version, or binary) or an SVG, or a folder of them; with several, OUT is a folder.
A CSV is a table of the contours.

  -o OUT                  where to; - is standard output
  --tolerance T           what may be mended, in the drawing's unit (0.05 mm or 0.002 in)
  --units mm|in           for a file that does not say; a file that does say wins
  --ignore layer,colour   what may differ between two duplicates (another colour or line style may in any case)
  --shared-edges keep|drop|merge
                          an edge of two outlines: both kept · one copy dropped · the outlines merged
  --roles                 puts each contour on layer OUTSIDE or INSIDE by its nesting
  --dxf R12|R2000         the version that is written (R2000)
  --arcs T                convert: ellipses, splines and runs of tiny straight pieces become tangent arcs within T
  --by D                  how far, in the drawing's unit; out makes material grow: outer contours grow, holes shrink
  --corner round|sharp|flat
                          how corners come out (round); a sharp one farther than --limit distances away is flat (4)
  --times N               N offsets, D apart
  --json                  one JSON object on standard output (an array for several files)
  --help, --version

exit 0: ready to cut · 1: errors remain · 2: the input or the arguments can't be used
`;

const oneOf = <T extends string>(option: string, value: string | undefined, all: readonly T[]): T => {
  const found = all.find((one) => one === value);
  if (!found) throw new Unusable(`${option} takes ${all.join(" or ")}`);
  return found;
};

const above0 = (option: string, text: string | undefined, such: string): number => {
  const value = text === undefined || text.trim() === "" ? NaN : Number(text);
  if (!(value > 0 && value <= LARGEST))
    throw new Unusable(`${option} takes a number above 0, up to 1e9, such as ${such}`);
  return value;
};

/** Sizes over this are no geometry, here as in files. */
const LARGEST = 1e9;
const OFFSET_OPTIONS: ReadonlySet<string> = new Set(["--by", "--side", "--corner", "--times", "--limit"]);
const MOST_TIMES = 1000;

/** The words of a call, read strictly. */
export const readArguments = (command: Command, words: readonly string[]): Arguments => {
  const inputs: string[] = [];
  let [json, roles] = [false, false];
  let out: string | undefined;
  let units: Unit | undefined;
  let tolerance: number | undefined;
  let ignore = new Set<"layer" | "colour" | "line">(["colour", "line"]);
  let sharedEdges: Arguments["sharedEdges"] = "keep";
  let version: DxfVersion = "R2000";
  let arcs: number | undefined;
  let [by, side, corners, times, limit]: [number?, ("out" | "in" | "both")?, Corners?, number?, number?] = [];
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    const value = (): string | undefined => words[++i];
    if (OFFSET_OPTIONS.has(word) && command !== "offset") throw new Unusable(`${word} belongs to offset; see --help`);
    if (word === "--json") json = true;
    else if (word === "--roles") roles = true;
    else if (word === "-o") {
      out = value();
      if (out === undefined) throw new Unusable("-o takes the file to write");
    } else if (word === "--units") units = oneOf("--units", value(), ["mm", "in"] as const);
    else if (word === "--dxf") version = oneOf("--dxf", value(), ["R12", "R2000"] as const);
    else if (word === "--shared-edges") sharedEdges = oneOf(word, value(), ["keep", "drop", "merge"] as const);
    else if (word === "--tolerance") tolerance = above0(word, value(), "0.05");
    else if (word === "--arcs" && command === "convert") arcs = above0(word, value(), "0.01");
    else if (word === "--by") by = above0(word, value(), "2.5");
    else if (word === "--limit") limit = above0(word, value(), "4");
    else if (word === "--side") side = oneOf(word, value(), ["out", "in", "both"] as const);
    else if (word === "--corner") corners = oneOf(word, value(), ["round", "sharp", "flat"] as const);
    else if (word === "--times") {
      times = Number(value() ?? NaN);
      if (!Number.isInteger(times) || times < 1 || times > MOST_TIMES)
        throw new Unusable(`--times takes a whole number from 1 to ${MOST_TIMES}`);
    } else if (word === "--ignore") {
      const parts = (value() ?? "")
        .split(",")
        .map((part) => oneOf("--ignore", part.trim(), ["layer", "colour"] as const));
      ignore = new Set([...ignore, ...parts]);
    } else if (word !== "-" && word.startsWith("-"))
      throw new Unusable(`${word} is no option of ${command}; see --help`);
    else inputs.push(word);
  }
  if (inputs.length === 0) throw new Unusable(`${command} takes a file; see --help`);
  if (command !== "inspect" && out === undefined) throw new Unusable(`${command} needs -o and the file to write`);
  if (command === "inspect" && out !== undefined) throw new Unusable("inspect writes nothing; leave -o away");
  if (command === "offset" && by === undefined) throw new Unusable("offset needs --by and how far, such as --by 2.5");
  if (command === "offset" && side === undefined) throw new Unusable("offset needs --side out, in or both");
  if (by !== undefined && by * (times ?? 1) > LARGEST) throw new Unusable("--by times --times is more than 1e9");
  if (out === "-" && json) throw new Unusable("-o - and --json both want standard output; take one of them");
  return {
    command,
    inputs,
    json,
    ignore,
    sharedEdges,
    roles,
    version,
    ...(out === undefined ? {} : { out }),
    ...(units === undefined ? {} : { units }),
    ...(tolerance === undefined ? {} : { tolerance }),
    ...(arcs === undefined ? {} : { arcs }),
    ...(by === undefined || side === undefined
      ? {}
      : { offset: { by, side, corners: corners ?? "round", times: times ?? 1, limit: limit ?? SHARP_LIMIT } }),
  };
};
