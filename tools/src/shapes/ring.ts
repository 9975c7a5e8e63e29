import { exampleDot } from "../example/exampleShapes.ts";
import { refuse } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { makingWay } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";

export const ring: Tool = {
  kind: "tool",
  id: "ring",
  name: "Ring",
  help: "Two circles about one centre: a washer, a flange. Both sizes are typed, as R or Ø, or both at once: 60 40.",
  drawing: ["M21 12 A9 9 0 1 1 3 12 A9 9 0 1 1 21 12 M16.5 12 A4.5 4.5 0 1 1 7.5 12 A4.5 4.5 0 1 1 16.5 12"],
  example: { layout: [exampleDot(0, 0)], typed: { outer: "60", inner: "30" }, clicks: [[0, 0]] },
  parts: [
    { kind: "words", text: "outer" },
    { kind: "size", name: "outer", first: "Ø", second: "inner" },
    { kind: "words", text: "inner" },
    { kind: "size", name: "inner", first: "Ø" },
    { kind: "words", text: "at" },
    { kind: "pick", name: "at", label: "centre", takes: "point" },
  ],
  propose: (given, { drawing, layer }) => {
    const { at } = given.picks;
    if (!at) return nothing;
    const [outer, inner] = [given.radius("outer"), given.radius("inner")];
    if (outer === undefined || inner === undefined)
      return given.isFirm("at") ? refused(refuse("value-empty")) : { ways: [], note: "Type both sizes" };
    if (inner >= outer) return refused(refuse("ring-no-wall", { typed: inner, limit: outer }));
    const circles = [outer, inner].map((radius) => ({ kind: "circle", centre: at.at, radius }) as const);
    return {
      ways: [
        makingWay(ring, drawing, layer, circles, (draft, ids) => {
          linkCallout(draft, given.callout("outer"), [{ id: ids[0]! }]);
          linkCallout(draft, given.callout("inner"), [{ id: ids[1]! }]);
        }),
      ],
    };
  },
};
