import { done, refuse } from "@ash-edge/core/numeric";
import { dropPlan, markPlan, pictureOf, planLineAt } from "@ash-edge/core/picture";
import { nothing, refused, under, type Tool } from "../tool.ts";
import { isProposal, made, place, places, type Placed } from "./picturePlaces.ts";

/** So near to a line, as a part of the picture's longer side, it is meant. */
const REACH = 0.03;

export const markThePlan: Tool = {
  kind: "tool",
  id: "mark-plan",
  name: "Mark the plan",
  help:
    "Click two places on the sketch: a line between them is marked on it, to plan where layout belongs. Taken off " +
    "again by a click on it. It is never cut, and nothing measures it.",
  drawing: ["M3 5 L21 5 L21 19 L3 19 Z", "M5 16 L9 13 M11 11.5 L15 8.5 M17 7 L19 5.5"],
  example: {
    onPicture: [
      [20, 150],
      [380, 150],
    ],
  },
  parts: [
    {
      kind: "choice",
      name: "do",
      label: "what",
      options: [
        ["mark", "mark a line"],
        ["drop", "take one off"],
      ],
    },
    { kind: "words", text: "from", onlyIf: under("do", "mark") },
    { ...place("from", "place on the sketch"), onlyIf: under("do", "mark") },
    { kind: "words", text: "to", onlyIf: under("do", "mark") },
    { ...place("to", "other place"), onlyIf: under("do", "mark") },
    { ...place("line", "line on the sketch"), onlyIf: under("do", "drop") },
  ],
  wants: ({ choice }) => (choice("do") === "mark" ? ["from", "to"] : ["line"]),
  propose: (given, { drawing }) => {
    const marks = given.choice("do") === "mark";
    const found = places(given, drawing, marks ? ["from", "to"] : ["line"], false);
    if (isProposal(found)) return found;
    const [one, other] = found as [Placed, Placed | undefined];
    const { blob, width, height } = one.picture;
    if (marks) {
      const marked = markPlan(drawing, one.picture, one.at, other!.at);
      return marked.ok ? made(() => done(marked.value)) : given.isFirm("to") ? refused(marked) : nothing;
    }
    const picture = pictureOf(drawing, blob);
    const index = picture ? planLineAt(picture, one.at, REACH * Math.max(width, height)) : -1;
    if (index < 0) return given.isFirm("line") ? refused(refuse("plan-not-here")) : nothing;
    return made(() => dropPlan(drawing, blob, index));
  },
};
