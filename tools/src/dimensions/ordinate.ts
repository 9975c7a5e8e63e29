import { placedAt } from "@ash-edge/core/annotate";
import { DATUM } from "@ash-edge/core/drawing";
import { refuse } from "@ash-edge/core/numeric";
import { exampleBox } from "../example/exampleShapes.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { annotating, heldBy, measuredRef, standsAt } from "./dimensioning.ts";

export const ordinate: Tool = {
  kind: "tool",
  id: "ordinate",
  name: "Ordinate",
  help:
    "Click a point or a hole, then where its distance from the datum should stand: above or below it its x, beside " +
    "it its y. It changes when the datum is set elsewhere.",
  drawing: ["M13 12 L13 4 M13 12 L21 12", "M4 20 L4 10 M4 20 L14 20 M13 12 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0"],
  example: {
    cut: [exampleBox(0, 0, 60, 40)],
    clicks: [
      [60, 40],
      [60, 55],
    ],
  },
  parts: [
    { kind: "words", text: "of" },
    { kind: "pick", name: "of", label: "point or hole", takes: "either" },
    { kind: "words", text: "at" },
    standsAt("place, above or beside it"),
    {
      kind: "choice",
      name: "which",
      label: "which",
      options: [
        ["side", "by the side"],
        ["x", "x"],
        ["y", "y"],
      ],
    },
  ],
  propose: (given, context) => {
    const { drawing } = context;
    const { of, at } = given.picks;
    const ref = heldBy(of);
    if (of && !ref && given.isFirm("of")) return refused(refuse("nothing-to-hold"));
    const place = at?.at ?? given.pointer;
    if (!of || !ref || !place || !given.isFirm("of")) return nothing;
    const isX =
      given.choice("which") === "side"
        ? Math.abs(place.y - of.at.y) >= Math.abs(place.x - of.at.x)
        : given.choice("which") === "x";
    const refs = [DATUM, measuredRef(drawing, ref)];
    const made = placedAt(drawing, { kind: "ordinate", refs, angle: isX ? 0 : Math.PI / 2 }, place);
    return annotating(ordinate, context, [made], true);
  },
};
