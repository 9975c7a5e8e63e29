import { exampleCircle } from "../example/exampleShapes.ts";
import { subtract, distance, angleOf } from "@ash-edge/core/geometry";
import { showLengthUnit, showLength, showAngle, toDegrees } from "@ash-edge/core/numeric";
import { nothing, type Tool } from "../tool.ts";

export const distanceTool: Tool = {
  kind: "tool",
  id: "distance",
  name: "Distance",
  help:
    "Click two points: how far apart they are, or how far across or up. Nothing is drawn. Then click a callout to " +
    "say that this distance answers it.",
  drawing: ["M4 12 L20 12 M7 9 L4 12 L7 15 M17 9 L20 12 L17 15", "M4 5 L4 19 M20 5 L20 19"],
  example: {
    cut: [exampleCircle(0, 0, 10), exampleCircle(60, 0, 10)],
    clicks: [
      [0, 0],
      [60, 0],
    ],
  },
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "other point", takes: "point" },
    {
      kind: "choice",
      name: "way",
      label: "measured",
      options: [
        ["along", "along"],
        ["level", "level"],
        ["upright", "upright"],
      ],
    },
  ],
  from: "from",
  answers: ["length", "centres"],
  propose: (given, { unit }) => {
    const { from, to } = given.picks;
    if (!from || !to || !given.isFirm("from")) return nothing;
    const by = subtract(to.at, from.at);
    const ways = {
      along: `Distance ${showLengthUnit(distance(from.at, to.at), unit)}`,
      level: `Across ${showLengthUnit(Math.abs(by.x), unit)}`,
      upright: `Up ${showLengthUnit(Math.abs(by.y), unit)}`,
    };
    const said =
      `${ways[given.choice("way") as keyof typeof ways]} · x ${showLength(by.x, unit)} · y ` +
      `${showLength(by.y, unit)} · ${showAngle(toDegrees(angleOf(by)))}`;
    return { ways: [{ preview: [{ shape: { kind: "piece", a: from.at, b: to.at, bulge: 0 } }], said }], note: said };
  },
};
