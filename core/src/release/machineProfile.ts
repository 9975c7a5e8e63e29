import { fileLayerNames, type NameLetters } from "../checks/fileLayers.ts";
import { UNITS, type Unit } from "../numeric/units.ts";

/** What a machine's file can be: DXF in three versions, or SVG in true size. */
export const MACHINE_FORMATS = ["R2000", "R12", "R2010", "SVG"] as const;
export type MachineFormat = (typeof MACHINE_FORMATS)[number];

/** What lies on a layer of its own in a machine's file. */
export const LAYER_USES = ["outside", "inside", "mark", "tapped"] as const;
export type LayerUse = (typeof LAYER_USES)[number];

/** How holes that bear a thread mark are written: cut as drawn, on a layer of their own, or as a point there. */
export const TAPPED_WAYS = ["cut", "layer", "point"] as const;

/** No more decimals than this are asked for: a double has few more. */
export const MOST_DECIMALS = 10;

/** What the shop's machine wants of a file. */
export type MachineProfile = {
  readonly name: string;
  readonly format: MachineFormat;
  /** Layers by what is cut how, or as the drawing names its own. */
  readonly layersBy: "role" | "own";
  /** The names of layers by use, and their colours as numbers of the standard palette. */
  readonly layers: Readonly<Record<LayerUse, { readonly name: string; readonly colour: number }>>;
  readonly tapped: (typeof TAPPED_WAYS)[number];
  readonly unit: "job" | Unit;
  /** Coordinates as the shortest text that reads back to the same double, or with so many decimals. */
  readonly decimals: "exact" | number;
  /** Arcs as bulges of polylines, or as ARC entities. */
  readonly arcs: "bulges" | "entities";
  /** One polyline a contour, or each piece by itself. */
  readonly chains: "one" | "loose";
  /** What lies at 0, 0: the job's datum, or the lower left corner of all that is written. */
  readonly origin: "datum" | "corner";
};

/** As a file is that nothing was said of. Layer names: common practice, plain words in capitals. */
export const PLAIN_PROFILE: MachineProfile = {
  name: "DXF R2000",
  format: "R2000",
  layersBy: "role",
  layers: {
    outside: { name: "OUTSIDE", colour: 7 },
    inside: { name: "INSIDE", colour: 6 },
    mark: { name: "MARK", colour: 2 },
    tapped: { name: "TAPPED", colour: 4 },
  },
  tapped: "cut",
  unit: "job",
  decimals: "exact",
  arcs: "bulges",
  chains: "one",
  origin: "datum",
};

/** The profiles that come with it. */
export const FIRST_PROFILES: readonly MachineProfile[] = [
  PLAIN_PROFILE,
  { ...PLAIN_PROFILE, name: "R12, for old machines", format: "R12" },
  { ...PLAIN_PROFILE, name: "Layers as drawn", layersBy: "own" },
  { ...PLAIN_PROFILE, name: "SVG in true size", format: "SVG" },
];

/** Something of a profile that can't be written, in a sentence that says what would be right. */
export type WrongPart = { readonly part: keyof MachineProfile | LayerUse; readonly says: string };

/** Words for what lies on a layer. */
export const USE_WORDS: Readonly<Record<LayerUse, string>> = {
  outside: "Outside contours",
  inside: "Inside contours",
  mark: "Marks",
  tapped: "Tapped holes",
};

/** The layers that a profile writes: tapped holes have one only where they are not cut as the others are. */
export const usedLayers = ({ layersBy, tapped }: MachineProfile): readonly LayerUse[] => [
  ...(layersBy === "role" ? (["outside", "inside", "mark"] as const) : []),
  ...(tapped === "cut" ? [] : (["tapped"] as const)),
];

/** The letters that names may have in a format. */
export const lettersOf = (format: MachineFormat): NameLetters =>
  format === "R12" ? "old" : format === "R2000" ? "plain" : "any";

const LETTER_WORDS: Readonly<Record<NameLetters, string>> = {
  old: "R12 has capitals, digits, $, _ and -, no more than 31 of them, as in OUT_CUT",
  plain: 'R2000 has plain letters and digits without < > / \\ " : ; ? * | = and `; R2010 has others, too',
  any: 'nothing in it may be one of < > / \\ " : ; ? * | = and `',
};

const wrongName = (name: string, format: MachineFormat): string | undefined => {
  if (name.trim() === "") return "A layer needs a name.";
  if (name.length > 255) return "A layer’s name has at most 255 letters.";
  const letters = lettersOf(format);
  return fileLayerNames([name], letters)[0] === name
    ? undefined
    : `“${name}” can’t be the name of a layer: ${LETTER_WORDS[letters]}.`;
};

/** Everything of a profile that would make a file that no machine, or no reader, takes as it is meant. */
export const wrongParts = (profile: MachineProfile): readonly WrongPart[] => {
  const { name, format, layers, decimals, arcs, chains, tapped } = profile;
  const wrong: WrongPart[] = [];
  const say = (part: WrongPart["part"], says: string): void => void wrong.push({ part, says });
  if (name.trim() === "" || name.length > 60) say("name", "A profile needs a name, of no more than 60 letters.");
  const known = new Map<string, LayerUse>();
  for (const use of usedLayers(profile)) {
    const layer = layers[use];
    const said = wrongName(layer.name, format);
    if (said) say(use, said);
    const key = layer.name.toUpperCase();
    const other = known.get(key);
    if (other && !said)
      say(
        use,
        `${USE_WORDS[other]} and ${USE_WORDS[use].toLowerCase()} would both lie on ${layer.name}: ` +
          "a machine could not tell them apart.",
      );
    known.set(key, use);
    if (!(Number.isInteger(layer.colour) && layer.colour >= 1 && layer.colour <= 255))
      say(use, "A layer’s colour is a number of the standard palette, 1 to 255.");
  }
  if (decimals !== "exact" && !(Number.isInteger(decimals) && decimals >= 0 && decimals <= MOST_DECIMALS))
    say("decimals", `Decimals are a whole number from 0 to ${MOST_DECIMALS}.`);
  if (format === "SVG") {
    if (arcs === "entities" || chains === "loose")
      say("chains", "An SVG holds each contour as one path, arcs in it. Choose a DXF for pieces by themselves.");
    if (tapped === "point")
      say("tapped", "An SVG has no points. Cut tapped holes, or put them on a layer of their own.");
  }
  return wrong;
};

/** What a profile writes, in a line; of a job in some unit, or of any. */
export const profileLine = (profile: MachineProfile, unit?: Unit): string => {
  const { format, layersBy, layers, tapped, decimals, arcs, chains, origin } = profile;
  return [
    format === "SVG" ? "SVG in true size" : `DXF ${format}`,
    layersBy === "own"
      ? "layers as drawn"
      : (["outside", "inside", "mark"] as const).map((use) => layers[use].name).join(", "),
    ...(tapped === "cut" ? [] : [`tapped holes ${tapped === "point" ? "as points " : ""}on ${layers.tapped.name}`]),
    profile.unit === "job" ? (unit ?? "the job’s unit") : profile.unit,
    decimals === "exact" ? "exact numbers" : `${decimals} decimals`,
    chains === "one" ? "one polyline a contour" : "pieces by themselves",
    ...(arcs === "bulges" ? [] : ["arcs as ARC"]),
    origin === "datum" ? "0, 0 at the datum" : "0, 0 at the lower left",
  ].join(" · ");
};

/** The unit that a file of a job in some unit is written in. */
export const fileUnit = ({ unit }: MachineProfile, job: Unit): Unit => (unit === "job" ? job : unit);

/** Whether something is the name of a unit that a profile may ask for. */
export const PROFILE_UNITS = ["job", ...UNITS] as const;
