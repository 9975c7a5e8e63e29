import { parseArgs } from "node:util";
import type { DxfVersion } from "@ash-edge/core/formats/dxf";
import type { Unit } from "@ash-edge/core/numeric";
import { SHARP_LIMIT, type Corners } from "@ash-edge/core/offset";
import { PAPER_NAMES, type PaperName } from "@ash-edge/core/sheet";
import { SHOWN_BY } from "@ash-edge/core/tidy";
import { Unusable } from "./unusable.ts";

export const COMMANDS = [
  "inspect",
  "check",
  "compare",
  "tidy",
  "offset",
  "convert",
  "true",
  "release",
  "sheet",
] as const;
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
  /** Corners are points measured along an outline: the fewest lines and arcs under their own scatter. */
  readonly traced: boolean;
  /** What it is made with and of, for `check`. */
  readonly tool?: number;
  readonly wall?: number;
  readonly thickness?: number;
  readonly material?: string;
  /** Callouts with their new numbers, for `true`; and whether only what is left open is listed. */
  readonly set: readonly string[];
  readonly open: boolean;
  /** The drawing is exact as it is: what is nearly level, tangent or alike does not come to be. */
  readonly asDrawn: boolean;
  /** The file with the machine's profile, for `release`. */
  readonly profile?: string;
  /** How a job stands on paper, for `sheet`. */
  readonly sheet: {
    readonly paper: PaperName;
    readonly portrait: boolean;
    readonly template: boolean;
    readonly questions: boolean;
    readonly scale?: number | undefined;
  };
  readonly offset?: {
    readonly by: number;
    readonly side: "out" | "in" | "both";
    readonly corners: Corners;
    readonly times: number;
    readonly limit: number;
  };
};

export const USAGE = `ash-edge inspect IN…                 reads and reports; writes nothing
ash-edge check IN…                    all that is asked before cutting, by the page's own list; reads saved jobs, too
ash-edge compare A B                  what came, went and moved from A to B; exit 0: the same, 1: different
ash-edge tidy IN… -o OUT              takes away duplicates and overlaps, closes gaps, joins what meets
ash-edge offset IN… -o OUT --by D --side out|in|both
                                      offsets every closed contour and writes only what comes of them
ash-edge convert IN… -o OUT           writes the drawing again; the extension of OUT names the format
ash-edge true JOB [--set "R 14 belly=15"]… -o OUT
                                      moves the geometry so that revised numbers, or all that are off, are true
ash-edge true JOB --open              what the numbers leave open, which follow from others, which are at odds
ash-edge release JOB -o FOLDER        writes a saved job for a machine, read back and compared, as the page does
ash-edge sheet JOB -o OUT.pdf         a saved job on paper, with its dimensions and callouts, or in true size

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
  --traced                with --arcs: straight pieces go through measured points, and become the fewest lines and arcs
                          under these points' own scatter, within T of all but those that strayed
  --tool D                check: the tool's diameter or kerf
  --wall W                check: the thinnest wall that is asked for
  --thickness T           check: how thick it is, for walls; --material NAME, such as granite
  --set CALLOUT=NUMBER    true: a revised number; the callout by its number, its name or both
  --open                  true: lists and writes nothing
  --as-drawn              true: the drawing is exact as it is; what is nearly level, tangent or alike is left so
  --profile P             release: the machine's profile, as it is saved under Settings
  --paper A4|A3|…|ANSI B|…  sheet: the paper (A3), landscape; --portrait
  --scale 1:2             sheet: drawing on paper (as it fits); --template: true size over as many pages as it needs;
                          --questions: what the customer is to be asked, on pages of their own
  --by D                  how far, in the drawing's unit; out makes material grow: outer contours grow, holes shrink
  --corner round|sharp|flat
                          how corners come out (round); a sharp one farther than --limit distances away is flat (4)
  --times N               N offsets, D apart
  --json                  one JSON object on standard output (an array for several files)
  --help, --version

exit 0: ready to cut · 1: errors remain · 2: the input or the arguments can't be used
`;

const oneOf = <T extends string>(option: string, value: string, all: readonly T[]): T => {
  const found = all.find((one) => one === value);
  if (!found) throw new Unusable(`${option} takes ${all.join(" or ")}`);
  return found;
};

/** Sizes over this are no geometry, here as in files. */
const LARGEST = 1e9;

/**
 * Plain decimals: what a shell, a script or a person writes down, and nothing that only a programmer would read as a
 * number.
 */
const DECIMAL = /^[+-]?(\d+\.?\d*|\.\d+)$/;

const above0 = (option: string, text: string, such: string): number => {
  const value = DECIMAL.test(text.trim()) ? Number(text) : NaN;
  if (!(value > 0 && value <= LARGEST))
    throw new Unusable(`${option} takes a number above 0, up to 1e9, such as ${such}`);
  return value;
};

/** A scale as it is written, 1:2 or 2:1, as drawing to paper. */
const scaleOf = (option: string, text: string): number => {
  const [paper, drawing, ...more] = text.split(":").map((part) => above0(option, part, "1:2"));
  if (paper === undefined || drawing === undefined || more.length > 0)
    throw new Unusable(`${option} takes a scale such as 1:2`);
  return drawing / paper;
};

const MOST_TIMES = 1000;
const wholeTimes = (text: string): number => {
  const times = DECIMAL.test(text) ? Number(text) : NaN;
  if (!Number.isInteger(times) || times < 1 || times > MOST_TIMES)
    throw new Unusable(`--times takes a whole number from 1 to ${MOST_TIMES}`);
  return times;
};

const TEXT = { type: "string" } as const;
const SWITCH = { type: "boolean" } as const;

/** The options of every command, and those of one alone. */
const COMMON = {
  o: { ...TEXT, short: "o" },
  json: SWITCH,
  roles: SWITCH,
  units: TEXT,
  dxf: TEXT,
  "shared-edges": TEXT,
  tolerance: TEXT,
  ignore: { ...TEXT, multiple: true },
} as const;
const OF_OFFSET = { by: TEXT, side: TEXT, corner: TEXT, times: TEXT, limit: TEXT } as const;
const OF_CONVERT = { arcs: TEXT, traced: SWITCH } as const;
const OF_CHECK = { tool: TEXT, wall: TEXT, thickness: TEXT, material: TEXT } as const;
const OF_TRUE = { set: { ...TEXT, multiple: true }, open: SWITCH, "as-drawn": SWITCH } as const;
const OF_RELEASE = { profile: TEXT } as const;
const OF_SHEET = { paper: TEXT, scale: TEXT, portrait: SWITCH, template: SWITCH, questions: SWITCH } as const;
/** What those that write and mend nothing take of the common ones. */
const LOOKING: Readonly<Partial<Record<Command, ReadonlySet<string>>>> = {
  check: new Set(["json", "units", ...Object.keys(OF_CHECK)]),
  compare: new Set(["json", "units"]),
  true: new Set(["json", ...Object.keys(OF_TRUE)]),
  release: new Set(["json", ...Object.keys(OF_RELEASE)]),
  sheet: new Set(Object.keys(OF_SHEET)),
};
const OPTIONS = {
  ...COMMON,
  ...OF_OFFSET,
  ...OF_CONVERT,
  ...OF_CHECK,
  ...OF_TRUE,
  ...OF_RELEASE,
  ...OF_SHEET,
} as const;

/** The words of a call by option, as Node reads them; a dash alone is an input, and a negative number a value. */
const parsed = (command: Command, words: readonly string[]) => {
  // what follows an option is its value, also where it begins with a dash
  const joined: string[] = [];
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    const name = word.startsWith("--") ? word.slice(2) : word === "-o" ? "o" : "";
    const option = Object.hasOwn(OPTIONS, name) ? OPTIONS[name as keyof typeof OPTIONS] : undefined;
    if (option?.type !== "string") joined.push(word);
    else if (i + 1 < words.length) joined.push(`--${name}=${words[++i]!}`);
    else throw new Unusable(name === "o" ? "-o takes the file to write" : `${word} takes a value; see --help`);
  }
  try {
    return parseArgs({ args: joined, options: OPTIONS, allowPositionals: true, strict: true });
  } catch {
    const wrong = words.find((word) => {
      const name = word.replace(/^--?/, "").split("=")[0]!;
      return word !== "-" && word.startsWith("-") && !(Object.hasOwn(OPTIONS, name) && !word.includes("="));
    });
    throw new Unusable(`${wrong ?? "that"} is no option of ${command}; see --help`);
  }
};

/** The words of a call, read strictly. */
export const readArguments = (command: Command, words: readonly string[]): Arguments => {
  const { values, positionals: inputs } = parsed(command, words);
  for (const name of Object.keys(values)) {
    if (name in OF_OFFSET && command !== "offset") throw new Unusable(`--${name} belongs to offset; see --help`);
    if (name in OF_CONVERT && command !== "convert")
      throw new Unusable(`--${name} is no option of ${command}; see --help`);
    if (name in OF_TRUE && command !== "true") throw new Unusable(`--${name} belongs to true; see --help`);
    if (name in OF_RELEASE && command !== "release") throw new Unusable(`--${name} belongs to release; see --help`);
    if (name in OF_SHEET && command !== "sheet") throw new Unusable(`--${name} belongs to sheet; see --help`);
    if (name in OF_CHECK && command !== "check") throw new Unusable(`--${name} belongs to check; see --help`);
    if (name !== "o" && LOOKING[command]?.has(name) === false)
      throw new Unusable(`--${name} is no option of ${command}; see --help`);
  }
  const given = <T>(name: keyof typeof OPTIONS, read: (option: string, text: string) => T): T | undefined => {
    const text = values[name];
    return typeof text === "string" ? read(`--${name}`, text) : undefined;
  };
  const out = values.o;
  const units = given("units", (option, text) => oneOf(option, text, ["mm", "in"] as const));
  const tolerance = given("tolerance", (option, text) => above0(option, text, "0.05"));
  const arcs = given("arcs", (option, text) => above0(option, text, "0.01"));
  const traced = values.traced === true;
  if (traced && arcs === undefined) throw new Unusable("--traced goes with --arcs and how far off, such as --arcs 0.2");
  const by = given("by", (option, text) => above0(option, text, "2.5"));
  const limit = given("limit", (option, text) => above0(option, text, "4")) ?? SHARP_LIMIT;
  const side = given("side", (option, text) => oneOf(option, text, ["out", "in", "both"] as const));
  const corners =
    given("corner", (option, text) => oneOf(option, text, ["round", "sharp", "flat"] as const)) ?? "round";
  const times = given("times", (_, text) => wholeTimes(text)) ?? 1;
  const ignored = (values.ignore ?? []).flatMap((text) =>
    text.split(",").map((part) => oneOf("--ignore", part.trim(), ["layer", "colour"] as const)),
  );
  const edges = given("shared-edges", (option, text) => oneOf(option, text, ["keep", "drop", "merge"] as const));
  const json = values.json === true;
  const tool = given("tool", (option, text) => above0(option, text, "6"));
  const wall = given("wall", (option, text) => above0(option, text, "5"));
  const thickness = given("thickness", (option, text) => above0(option, text, "20"));
  const material = values.material;
  if (inputs.length === 0) throw new Unusable(`${command} takes a file; see --help`);
  const open = values.open === true;
  const writes = !["inspect", "check", "compare"].includes(command) && !open;
  if (writes && out === undefined) throw new Unusable(`${command} needs -o and the file to write`);
  if (!writes && out !== undefined)
    throw new Unusable(`${open ? "true --open" : command} writes nothing; leave -o away`);
  if (out === "-" && (command === "release" || command === "sheet"))
    throw new Unusable(`${command} writes a file of its own; -o - is not for it`);
  if (command === "offset" && by === undefined) throw new Unusable("offset needs --by and how far, such as --by 2.5");
  if (command === "offset" && side === undefined) throw new Unusable("offset needs --side out, in or both");
  if (by !== undefined && by * times > LARGEST) throw new Unusable("--by times --times is more than 1e9");
  if (out === "-" && json) throw new Unusable("-o - and --json both want standard output; take one of them");
  return {
    command,
    inputs,
    json,
    ignore: new Set<"layer" | "colour" | "line">([...SHOWN_BY, ...ignored]),
    sharedEdges: edges ?? "keep",
    roles: values.roles === true,
    traced,
    set: values.set ?? [],
    open,
    asDrawn: values["as-drawn"] === true,
    sheet: {
      paper: given("paper", (option, text) => oneOf(option, text, PAPER_NAMES)) ?? "A3",
      portrait: values.portrait === true,
      template: values.template === true,
      questions: values.questions === true,
      scale: given("scale", scaleOf),
    },
    ...(values.profile === undefined ? {} : { profile: values.profile }),
    version: given("dxf", (option, text) => oneOf(option, text, ["R12", "R2000"] as const)) ?? "R2000",
    ...(out === undefined ? {} : { out }),
    ...(units === undefined ? {} : { units }),
    ...(tolerance === undefined ? {} : { tolerance }),
    ...(arcs === undefined ? {} : { arcs }),
    ...(tool === undefined ? {} : { tool }),
    ...(wall === undefined ? {} : { wall }),
    ...(thickness === undefined ? {} : { thickness }),
    ...(material === undefined ? {} : { material }),
    ...(by === undefined || side === undefined ? {} : { offset: { by, side, corners, times, limit } }),
  };
};
