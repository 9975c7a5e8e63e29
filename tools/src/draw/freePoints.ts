import { exampleWave, exampleDot } from "../example/exampleShapes.ts";
import {
  nearestFreePoint,
  freePoints,
  steeringPoints,
  moveSteeringPoint,
  moveFreePoint,
  addFreePoint,
  removeFreePoint,
} from "@ash-edge/core/construct";
import { entityOf } from "@ash-edge/core/drawing";
import { reshapeEntity } from "@ash-edge/core/edits";
import { refuse, done } from "@ash-edge/core/numeric";
import type { Shape } from "@ash-edge/core/shape";
import { nothing, refused, type Tool } from "../tool.ts";

export const freePointsTool: Tool = {
  kind: "tool",
  id: "free-curve-points",
  name: "Free curve points",
  help:
    "Click a free curve near one of its points, then where that point should lie: the curve stays on all its other " +
    "points, and its ends keep their direction. Of a curve that points steer, one of these is moved. Or put one " +
    "more point on it, which leaves it as it is, or take one out.",
  drawing: ["M3 18 C6 8 10 5 13 9 C16 13 19 13 21 6", "M13 9 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0"],
  example: {
    cut: [exampleWave([0, 0], [20, 25], [45, 5], [70, 30])],
    layout: [exampleDot(45, 20)],
    clicks: [
      [45, 5],
      [45, 20],
    ],
  },
  parts: [
    {
      kind: "choice",
      name: "do",
      label: "what to do",
      options: [
        ["move", "move"],
        ["add", "add"],
        ["remove", "take out"],
      ],
    },
    { kind: "words", text: "a point of" },
    { kind: "pick", name: "curve", label: "free curve, near it", takes: "curve" },
    { kind: "words", text: "to", onlyIf: ({ do: what }) => what === "move" },
    { kind: "pick", name: "to", label: "point", takes: "point", onlyIf: ({ do: what }) => what === "move" },
  ],
  wants: ({ choice }) => ["curve", ...(choice("do") === "move" ? ["to"] : [])],
  propose: (given, { drawing }) => {
    const { curve: picked, to } = given.picks;
    const entity = picked?.ref && entityOf(drawing, picked.ref.id);
    if (!picked || !entity) return nothing;
    if (entity.kind !== "free") return refused(refuse("free-needed"));
    const which = nearestFreePoint(entity, picked.at);
    const through = freePoints(entity);
    const points = through ?? steeringPoints(entity);
    const dots = points.map((at): { shape: Shape } => ({ shape: { kind: "point", at } }));
    const what = given.choice("do");
    const note = `point ${which + 1} of ${points.length}`;
    if (what === "move" && (!to || !given.isFirm("curve"))) return { ways: [{ preview: dots }], note };
    if (!through && what !== "move") return refused(refuse("free-steered"));
    const made = !through
      ? done(moveSteeringPoint(entity, which, to!.at))
      : what === "move"
        ? moveFreePoint(entity, which, to!.at)
        : what === "add"
          ? addFreePoint(entity, picked.at)
          : removeFreePoint(entity, which);
    if (!made.ok) return refused(made);
    const shape: Shape = { kind: "free", ...made.value };
    const edit = () => reshapeEntity(drawing, entity, shape, "Free curve points", "free-curve-points");
    return { ways: [{ preview: [{ shape }, ...dots], edit }], ...(what === "add" ? {} : { note }) };
  },
};
