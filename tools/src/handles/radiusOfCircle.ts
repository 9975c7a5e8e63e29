import { exampleCircle } from "../example/exampleShapes.ts";
import { entityOf } from "@ash-edge/core/drawing";
import { reshapeEntity } from "@ash-edge/core/edits";
import { distance } from "@ash-edge/core/geometry";
import { RESOLUTION, refuse } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { changes } from "./handleParts.ts";

export const radiusOfCircle: Tool = {
  kind: "tool",
  id: "handle-radius",
  name: "Radius",
  help: "Gives a circle the typed R or Ø, or the radius that reaches to where you click; its centre stays.",
  drawing: ["M20 12 A8 8 0 1 1 4 12 A8 8 0 1 1 20 12", "M12 12 L20 12"],
  example: { cut: [exampleCircle(30, 20, 12)], typed: { size: "36d" }, grab: [42, 20], finish: true },
  parts: [
    { kind: "words", text: "of" },
    { kind: "size", name: "size", first: "Ø" },
    { kind: "pick", name: "to", label: "through", takes: "point", silent: true },
  ],
  wants: ({ radius }) => (radius("size") === undefined ? ["to"] : []),
  propose: (given, { drawing }) => {
    const { handle, to } = given.picks;
    const entity = handle?.ref && entityOf(drawing, handle.ref.id);
    if (!handle?.ref || entity?.kind !== "circle") return nothing;
    const typed = given.radius("size");
    const radius = typed ?? distance(entity.centre, to?.at ?? given.pointer ?? handle.at);
    const live = typed === undefined ? { size: radius } : undefined;
    if (Math.abs(radius - entity.radius) <= RESOLUTION) return { ways: [], ...(live ? { live } : {}) };
    if (radius <= RESOLUTION) return refused(refuse("value-not-positive", { what: "The radius" }));
    const shape = { kind: "circle", centre: entity.centre, radius } as const;
    const edit = reshapeEntity(drawing, entity, shape, "Radius", "handle", (draft) =>
      linkCallout(draft, given.callout("size"), [{ id: entity.id }]),
    );
    return changes(edit, live);
  },
};
