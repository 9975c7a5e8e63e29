import type { Unit } from "@ash-edge/core/numeric";
import type { DxfVersion } from "@ash-edge/core/formats/dxf";
import { Unusable } from "./unusable.ts";

export const COMMANDS = ["inspect", "tidy", "convert"] as const;
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
};

export const USAGE = `ash-edge inspect IN…                 reads and reports; writes nothing
ash-edge tidy IN… -o OUT              takes away duplicates and overlaps, closes gaps, joins what meets
ash-edge convert IN… -o OUT           writes the drawing again; the extension of OUT names the format

IN is a DXF (ASCII of any version, or binary) or an SVG, or a folder of them; with several, OUT is a folder.
A CSV is a table of the contours.

  -o OUT                  where to; - is standard output
  --tolerance T           what may be mended, in the drawing's unit (0.05 mm or 0.002 in)
  --units mm|in           for a file that does not say; a file that does say wins
  --ignore layer,colour   what may differ between two duplicates (a different colour may in any case)
  --shared-edges keep|drop|merge
                          an edge of two outlines: both kept · one copy dropped · the outlines merged
  --roles                 puts each contour on layer OUTSIDE or INSIDE by its nesting
  --dxf R12|R2000         the version that is written (R2000)
  --json                  one JSON object on standard output (an array for several files)
  --help, --version

exit 0: ready to cut · 1: errors remain · 2: the input or the arguments can't be used
`;

const oneOf = <T extends string>(option: string, value: string | undefined, all: readonly T[]): T => {
  const found = all.find((one) => one === value);
  if (!found) throw new Unusable(`${option} takes ${all.join(" or ")}`);
  return found;
};

/** The words of a call, read strictly. */
export const readArguments = (command: Command, words: readonly string[]): Arguments => {
  const inputs: string[] = [];
  let [json, roles] = [false, false];
  let out: string | undefined;
  let units: Unit | undefined;
  let tolerance: number | undefined;
  let ignore = new Set<"layer" | "colour" | "line">(["colour"]);
  let sharedEdges: Arguments["sharedEdges"] = "keep";
  let version: DxfVersion = "R2000";
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    const value = (): string | undefined => words[++i];
    if (word === "--json") json = true;
    else if (word === "--roles") roles = true;
    else if (word === "-o") {
      out = value();
      if (out === undefined) throw new Unusable("-o takes the file to write");
    } else if (word === "--units") units = oneOf("--units", value(), ["mm", "in"] as const);
    else if (word === "--dxf") version = oneOf("--dxf", value(), ["R12", "R2000"] as const);
    else if (word === "--shared-edges") sharedEdges = oneOf(word, value(), ["keep", "drop", "merge"] as const);
    else if (word === "--tolerance") {
      const text = value() ?? "";
      tolerance = text.trim() === "" ? NaN : Number(text);
      if (!Number.isFinite(tolerance) || !(tolerance > 0))
        throw new Unusable("--tolerance takes a length above 0, such as 0.05");
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
  };
};
