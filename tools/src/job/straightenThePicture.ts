import { refuse } from "@ash-edge/core/numeric";
import { planStraighten, straightenedPicture } from "@ash-edge/core/picture";
import { refused, type Tool } from "../tool.ts";
import { place, places, isProposal } from "./picturePlaces.ts";

const CORNERS = ["1", "2", "3", "4"];

export const straightenThePicture: Tool = {
  kind: "tool",
  id: "straighten-picture",
  name: "Straighten the picture",
  help:
    "For a photo taken askew: type the two sides of a rectangle that is on it, then click its four corners one " +
    "after another; the first side runs from the first corner to the second. A straight picture to scale is made; " +
    "the photo stays as it came.",
  drawing: ["M4 6 L19 4 L21 18 L3 16 Z", "M7 9 L17 8 L18 15 L7 14 Z"],
  example: {
    typed: { width: "100", height: "60" },
    onPicture: [
      [60, 60],
      [330, 40],
      [380, 240],
      [30, 220],
    ],
  },
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
