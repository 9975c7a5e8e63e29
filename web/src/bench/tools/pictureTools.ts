import { picturesOf, type Drawing } from "@ash-edge/core/drawing";
import { distance } from "@ash-edge/core/geometry";
import { refuse, showLengthUnit } from "@ash-edge/core/numeric";
import {
  lengthOnPicture,
  levelPicture,
  movePicture,
  pictureOf,
  planStraighten,
  scalePicture,
  straightenedPicture,
} from "@ash-edge/core/picture";
import { nothing, refused, type Given, type Part, type Picked, type Proposal, type Tool } from "./tool.ts";

const place = (name: string, label: string): Part => ({ kind: "pick", name, label, takes: "picture" });

type Placed = Picked & { readonly picture: NonNullable<Picked["picture"]> };

/** The places picked so far, if all lie on one picture that may be changed. */
const places = (
  given: Given,
  drawing: Drawing,
  names: readonly string[],
  changes = true,
): readonly Placed[] | Proposal => {
  const picked = names.map((name) => given.picks[name]).filter((one) => one !== undefined) as Placed[];
  const first = picked[0]?.picture;
  if (!first) return nothing;
  if (picked.some(({ picture }) => picture.blob !== first.blob)) return refused(refuse("pictures-differ"));
  if (changes && pictureOf(drawing, first.blob)?.locked) return refused(refuse("picture-locked"));
  return picked.length < names.length ? nothing : picked;
};
const isProposal = (found: readonly Placed[] | Proposal): found is Proposal => "ways" in found;

/** Their previews are lines on the picture itself, which the sketch card draws through the places picked. */
const made = (edit: NonNullable<Proposal["ways"][number]["edit"]>, said?: string): Proposal => ({
  ways: [{ preview: [], edit, ...(said ? { said } : {}) }],
});

export const scaleThePicture: Tool = {
  kind: "tool",
  id: "scale-picture",
  name: "Scale the picture",
  bank: "KeyB",
  help: "Click two places on the sketch whose distance is written on it, with that length typed or taken from the ledger. The picture gets its true scale; the first place stays where it lies.",
  drawing: ["M3 5 L21 5 L21 19 L3 19 Z", "M6 15 L18 15 M6 12 L6 18 M18 12 L18 18"],
  parts: [
    { kind: "words", text: "from" },
    place("from", "place on the sketch"),
    { kind: "words", text: "to" },
    place("to", "other place"),
    { kind: "words", text: "is" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
  ],
  propose: (given, { drawing, unit }) => {
    const found = places(given, drawing, ["from", "to"]);
    if (isProposal(found)) return found;
    const [from, to] = found as [Placed, Placed];
    const length = given.value("length");
    const now = lengthOnPicture(drawing, from.picture.blob, from.at, to.at);
    const note = now === undefined ? undefined : `now ${showLengthUnit(round(now), unit)}`;
    if (length === undefined)
      return given.isFirm("to")
        ? refused(refuse("value-empty"))
        : { ways: [], note: note ?? "Type the length between the two" };
    const scaled = scalePicture(drawing, from.picture, from.at, to.at, length);
    if (!scaled.ok) return given.isFirm("to") ? refused(scaled) : nothing;
    return {
      ...made(() => scaled.value, `The picture is to scale: ${showLengthUnit(length, unit)} between the two.`),
      ...(note ? { note } : {}),
    };
  },
};

/** Measured off a picture, nothing is known better than this. */
const round = (length: number): number => Number(length.toPrecision(5));

export const levelThePicture: Tool = {
  kind: "tool",
  id: "level-picture",
  name: "Level the picture",
  bank: "KeyB",
  help: "Click two places on the sketch that should lie level, or upright. The picture turns about the first.",
  drawing: ["M3 8 L20 4 L21.5 16 L4.5 20 Z", "M6 15 L19 12"],
  parts: [
    { kind: "words", text: "from" },
    place("from", "place on the sketch"),
    { kind: "words", text: "to" },
    place("to", "other place"),
    { kind: "words", text: "is" },
    {
      kind: "choice",
      name: "way",
      label: "lies",
      options: [
        ["level", "level"],
        ["upright", "upright"],
      ],
    },
  ],
  propose: (given, { drawing }) => {
    const found = places(given, drawing, ["from", "to"]);
    if (isProposal(found)) return found;
    const [from, to] = found as [Placed, Placed];
    const way = given.choice("way") as "level" | "upright";
    const levelled = levelPicture(drawing, from.picture, from.at, to.at, way);
    if (!levelled.ok) return given.isFirm("to") ? refused(levelled) : nothing;
    return made(() => levelled.value, `The picture lies ${way}.`);
  },
};

export const placeThePicture: Tool = {
  kind: "tool",
  id: "place-picture",
  name: "Place the picture",
  bank: "KeyB",
  help: "Click a place on the sketch, then the point of the drawing under which it belongs.",
  drawing: ["M3 4 L15 4 L15 13 L3 13 Z", "M9 8 L18 18 M14 18 L18 18 L18 14"],
  parts: [
    { kind: "words", text: "its" },
    place("from", "place on the sketch"),
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "point of the drawing", takes: "point" },
  ],
  propose: (given, { drawing }) => {
    const { to } = given.picks;
    const found = places(given, drawing, ["from"]);
    if (isProposal(found)) return found;
    if (!to || !given.isFirm("from")) return nothing;
    return made(() => movePicture(drawing, found[0]!.picture, found[0]!.at, to.at));
  },
};

const CORNERS = ["1", "2", "3", "4"];

export const straightenThePicture: Tool = {
  kind: "tool",
  id: "straighten-picture",
  name: "Straighten the picture",
  bank: "KeyB",
  help: "For a photo taken askew: type the two sides of a rectangle that is on it, then click its four corners one after another; the first side runs from the first corner to the second. A straight picture to scale is made; the photo stays as it came.",
  drawing: ["M4 6 L19 4 L21 18 L3 16 Z", "M7 9 L17 8 L18 15 L7 14 Z"],
  parts: [
    { kind: "words", text: "corners" },
    ...CORNERS.map((name) => place(name, `corner ${name}`)),
    { kind: "words", text: "of" },
    { kind: "value", name: "width", label: "first side", expects: "length", stays: false },
    { kind: "words", text: "by" },
    { kind: "value", name: "height", label: "next side", expects: "length", stays: false },
  ],
  propose: (given, { drawing }) => {
    const found = places(given, drawing, CORNERS);
    const [width, height] = [given.value("width"), given.value("height")];
    if (isProposal(found)) return found;
    if (width === undefined || height === undefined)
      return given.isFirm("4") ? refused(refuse("value-empty")) : { ways: [], note: "Type both sides" };
    const { picture } = found[0]!;
    const [a, b, c, d] = found.map(({ at }) => at);
    const plan = planStraighten([a!, b!, c!, d!], width, height, picture);
    if (!plan.ok) return refused(plan);
    return {
      ways: [
        {
          preview: [],
          ask: {
            name: "straighten",
            words: "Straightening the picture",
            input: { photo: picture, plan: plan.value },
            edit: (now, straight) => straightenedPicture(now, picture, straight, plan.value, a!),
          },
        },
      ],
    };
  },
};

export const measureOnPicture: Tool = {
  kind: "tool",
  id: "on-the-picture",
  name: "On the picture",
  bank: "KeyC",
  help: "Click two places on a sketch picture that has a scale. The length is measured off the picture: a guess, good for what the sketch forgot. With the length that it should be typed, it says how far the picture is off.",
  drawing: ["M3 4 L21 4 L21 20 L3 20 Z", "M6 12 L18 12 M6 10 L6 14 M18 10 L18 14"],
  parts: [
    { kind: "words", text: "from" },
    place("from", "place on the sketch"),
    { kind: "words", text: "to" },
    place("to", "other place"),
    { kind: "words", text: "· should be" },
    { kind: "value", name: "should", label: "should be", expects: "length", stays: false },
  ],
  propose: (given, { drawing, unit }) => {
    const found = places(given, drawing, ["from", "to"], false);
    if (isProposal(found)) return found;
    const [from, to] = found as [Placed, Placed];
    const length = lengthOnPicture(drawing, from.picture.blob, from.at, to.at);
    if (length === undefined) return given.isFirm("to") ? refused(refuse("picture-unscaled")) : nothing;
    const { scale } = picturesOf(drawing).find(({ blob }) => blob === from.picture.blob)!;
    const should = given.value("should");
    const off = should === undefined ? undefined : length - should;
    const said = [
      `${showLengthUnit(round(length), unit)}, measured off the picture (a pixel is ${showLengthUnit(round(scale), unit)})`,
      off === undefined
        ? ""
        : `off by ${showLengthUnit(round(off), unit)}, ${((100 * Math.abs(off)) / should!).toFixed(2)} %`,
    ]
      .filter(Boolean)
      .join(" · ");
    if (distance(from.at, to.at) < 1) return nothing;
    return { ways: [{ preview: [], said }], note: said };
  },
};
