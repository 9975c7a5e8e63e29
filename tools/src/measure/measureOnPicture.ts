import { picturesOf } from "@ash-edge/core/drawing";
import { distance } from "@ash-edge/core/geometry";
import { refuse, showLengthUnit } from "@ash-edge/core/numeric";
import { lengthOnPicture } from "@ash-edge/core/picture";
import { place, places, isProposal, round, type Placed } from "../job/picturePlaces.ts";
import { refused, nothing, type Tool } from "../tool.ts";

export const measureOnPicture: Tool = {
  kind: "tool",
  id: "on-the-picture",
  name: "On the picture",
  help:
    "Click two places on a sketch picture that has a scale. The length is measured off the picture: a guess, good " +
    "for what the sketch forgot. With the length that it should be typed, it says how far the picture is off.",
  drawing: ["M3 4 L21 4 L21 20 L3 20 Z", "M6 12 L18 12 M6 10 L6 14 M18 10 L18 14"],
  example: {
    onPicture: [
      [10, 10],
      [210, 10],
    ],
  },
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
      `${showLengthUnit(round(length), unit)}, measured off the picture (a pixel is ` +
        `${showLengthUnit(round(scale), unit)})`,
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
