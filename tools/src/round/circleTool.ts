import { distance } from "@ash-edge/core/geometry";
import type { Id } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { makingWay } from "../making.ts";
import { nothing, type Tool } from "../tool.ts";

/** A circle by its centre: at once where a size is typed, else by a second click on its rim. */
export const circleTool = (
  on: Id | undefined,
  named: Pick<Tool, "id" | "name" | "help" | "drawing" | "example" | "layout">,
): Tool => ({
  kind: "tool",
  ...named,
  parts: [
    { kind: "words", text: "at" },
    { kind: "pick", name: "centre", label: "centre", takes: "point" },
    { kind: "words", text: "with" },
    { kind: "size", name: "size", first: "Ø" },
    { kind: "pick", name: "rim", label: "rim", takes: "point", silent: true },
  ],
  from: "centre",
  wants: (given) => (given.radius("size") === undefined ? ["centre", "rim"] : ["centre"]),
  propose: (given, { drawing, layer }) => {
    const { centre, rim } = given.picks;
    const typed = given.radius("size");
    const radius = typed ?? (centre && rim && distance(centre.at, rim.at));
    if (!centre || !radius) return nothing;
    const circle = { kind: "circle", centre: centre.at, radius } as const;
    const way = makingWay(named, drawing, on ?? layer, [circle], (draft, ids) =>
      linkCallout(draft, given.callout("size"), [{ id: ids[0]! }]),
    );
    return { ways: [way], ...(typed === undefined ? { live: { size: radius } } : {}) };
  },
});
