import type { Action } from "../tool.ts";

const HOLDS = [
  ["level", "Hold level", "Keeps the direction from the start point level until it is let go."],
  ["upright", "Hold upright", "Keeps the direction from the start point upright until it is let go."],
  ["along", "Hold along an edge", "The next click picks an edge; the direction then stays along it."],
  ["square", "Hold square to an edge", "The next click picks an edge; the direction then stays square to it."],
  ["none", "Let the direction go", "Directions are free again."],
] as const;
/** Directions that are held until they are let go; Shift holds the nearest one for a moment. */
export const holdActions: readonly Action[] = HOLDS.map(([id, name, help]) => ({
  kind: "action",
  id: `hold-${id}`,
  name,
  help,
  drawing: ["M4 18 L20 18", id === "upright" || id === "square" ? "M12 18 L12 5" : "M6 12 L18 12"],
}));
