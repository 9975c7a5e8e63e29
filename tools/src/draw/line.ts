import type { Tie } from "@ash-edge/core/edits";
import { along, subtract, angleOf, distance, type Point } from "@ash-edge/core/geometry";
import { unitAt, toRadians, RESOLUTION, refuse, toDegrees, type Id } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { makingWay } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";

/** The end of a line whose length and angle are typed; undefined where either is missing. */
export const typedEnd = (from: Point, length: number | undefined, degrees: number | undefined): Point | undefined =>
  length === undefined || degrees === undefined ? undefined : along(from, unitAt(toRadians(degrees)), length);

/** The end of a line from `from`: typed length and angle win over the pointer, each on its own. */
export const lineEnd = (
  from: Point,
  pointer: Point,
  length: number | undefined,
  degrees: number | undefined,
): Point => {
  if (length === undefined && degrees === undefined) return pointer;
  const way = subtract(pointer, from);
  const direction = degrees === undefined ? unitAt(angleOf(way)) : unitAt(toRadians(degrees));
  const reach = length ?? way.x * direction.x + way.y * direction.y;
  return along(from, direction, reach);
};

export const line: Tool = {
  kind: "tool",
  id: "line",
  name: "Line",
  help:
    "Click two points; the next line starts where the last one ended. Length and angle can be typed, either or " +
    "both. Esc lets go of the last point.",
  drawing: ["M4 19 L20 6", "M4 19 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0"],
  example: {
    typed: { length: "50", angle: "30" },
    clicks: [
      [0, 0],
      [40, 30],
    ],
  },
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "end", takes: "point" },
    { kind: "words", text: "· length" },
    { kind: "value", name: "length", label: "length", expects: "length", stays: false },
    { kind: "words", text: "angle" },
    { kind: "value", name: "angle", label: "angle", expects: "angle", stays: false },
  ],
  from: "from",
  propose: (given, { drawing, layer }) => {
    const { from } = given.picks;
    const to = given.picks.to?.at ?? given.pointer;
    if (!from || !given.isFirm("from")) return nothing;
    const [length, angle] = [given.value("length"), given.value("angle")];
    const end = typedEnd(from.at, length, angle) ?? (to && lineEnd(from.at, to, length, angle));
    if (!end) return nothing;
    if (distance(from.at, end) <= RESOLUTION) return refused(refuse("no-length"));
    const shape = { kind: "piece", a: from.at, b: end, bulge: 0 } as const;
    const tie = (draft: Tie, ids: readonly Id[]): void => {
      for (const blank of ["length", "angle"]) linkCallout(draft, given.callout(blank), [{ id: ids[0]! }]);
    };
    return {
      ways: [makingWay(line, drawing, layer, [shape], tie, { next: { from: { at: end, snap: "end" } } })],
      live: {
        ...(length === undefined ? { length: distance(from.at, end) } : {}),
        ...(angle === undefined ? { angle: toDegrees(angleOf(subtract(end, from.at))) } : {}),
      },
    };
  },
};
