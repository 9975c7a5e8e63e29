import { calledAt, dimensionOfCallout } from "@ash-edge/core/annotate";
import { calloutsOf } from "@ash-edge/core/drawing";
import { exampleCircle } from "../example/exampleShapes.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { annotating, standsAt } from "./dimensioning.ts";

/** Taken up from a row of the ledger, which is its pick `called`: only the place is asked. */
export const dimensionCalled: Tool = {
  kind: "tool",
  id: "dimension-called",
  name: "Dimension called",
  help:
    "Gives a callout of the ledger that is placed its dimension, on just what answers it: click where it " +
    "should stand. It shows whether the callout is true, within what is allowed, or off.",
  drawing: ["M4 9 L20 9 M7 6.5 L4 9 L7 11.5 M17 6.5 L20 9 L17 11.5", "M4 5 L4 20 M20 5 L20 20 M8 17 L16 17"],
  example: {
    cut: [exampleCircle(0, 0, 14)],
    callouts: [{ kind: "diameter", value: 28, name: "bore", links: [{ id: 6 }] }],
    called: true,
    clicks: [[24, 20]],
  },
  once: true,
  parts: [{ kind: "words", text: "at" }, standsAt()],
  propose: (given, context) => {
    const { drawing } = context;
    const id = given.picks.called?.ref?.id;
    const callout = calloutsOf(drawing).find((one) => one.id === id);
    const place = given.picks.at?.at ?? given.pointer;
    if (!callout || !place) return nothing;
    const bare = dimensionOfCallout(drawing, callout);
    if (!bare.ok) return refused(bare);
    return annotating(dimensionCalled, context, [calledAt(drawing, bare.value, callout, place)], true);
  },
};
