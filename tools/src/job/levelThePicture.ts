import { done } from "@ash-edge/core/numeric";
import { levelPicture } from "@ash-edge/core/picture";
import { refused, nothing, type Tool } from "../tool.ts";
import { place, places, isProposal, made, type Placed } from "./picturePlaces.ts";

export const levelThePicture: Tool = {
  kind: "tool",
  id: "level-picture",
  name: "Level the picture",
  help: "Click two places on the sketch that should lie level, or upright. The picture turns about the first.",
  drawing: ["M3 8 L20 4 L21.5 16 L4.5 20 Z", "M6 15 L19 12"],
  example: {
    onPicture: [
      [10, 10],
      [210, 30],
    ],
  },
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
    return made(() => done(levelled.value), `The picture lies ${way}.`);
  },
};
