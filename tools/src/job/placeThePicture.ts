import { done } from "@ash-edge/core/numeric";
import { movePicture } from "@ash-edge/core/picture";
import { nothing, type Tool } from "../tool.ts";
import { place, places, isProposal, made } from "./picturePlaces.ts";

export const placeThePicture: Tool = {
  kind: "tool",
  id: "place-picture",
  name: "Place the picture",
  help: "Click a place on the sketch, then the point of the drawing under which it belongs.",
  drawing: ["M3 4 L15 4 L15 13 L3 13 Z", "M9 8 L18 18 M14 18 L18 18 L18 14"],
  example: { onPicture: [[200, 150]], clicks: [[0, 0]] },
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
    return made(() => done(movePicture(drawing, found[0]!.picture, found[0]!.at, to.at)));
  },
};
