import { done, showLengthUnit, refuse } from "@ash-edge/core/numeric";
import { lengthOnPicture, scalePicture } from "@ash-edge/core/picture";
import { refused, nothing, type Tool } from "../tool.ts";
import { place, places, isProposal, round, made, type Placed } from "./picturePlaces.ts";

export const scaleThePicture: Tool = {
  kind: "tool",
  id: "scale-picture",
  name: "Scale the picture",
  help:
    "Click two places on the sketch whose distance is written on it, with that length typed or taken from the " +
    "ledger. The picture gets its true scale; the first place stays where it lies.",
  drawing: ["M3 5 L21 5 L21 19 L3 19 Z", "M6 15 L18 15 M6 12 L6 18 M18 12 L18 18"],
  example: {
    typed: { length: "150" },
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
      ...made(() => done(scaled.value), `The picture is to scale: ${showLengthUnit(length, unit)} between the two.`),
      ...(note ? { note } : {}),
    };
  },
};
