import { exampleDot } from "../example/exampleShapes.ts";
import { arcsBySweepAbout, arcsAbout } from "@ash-edge/core/construct";
import { distance } from "@ash-edge/core/geometry";
import { RESOLUTION, toRadians } from "@ash-edge/core/numeric";
import { pieceShape } from "../making.ts";
import { nothing, type Tool } from "../tool.ts";
import { dot, arcProposal } from "./roundProposals.ts";

export const arcByCentre: Tool = {
  kind: "tool",
  id: "arc-by-centre",
  name: "Arc by centre",
  help:
    "Click the centre, the start and the end; R or Ø typed puts the start at that distance, a typed sweep needs no " +
    "end. Space shows the other way round.",
  drawing: ["M20 12 A8 8 0 0 0 12 4", `M12 12 L20 12 M12 12 L12 4 ${dot(12, 12)}`],
  example: {
    layout: [exampleDot(0, 0), exampleDot(30, 0), exampleDot(0, 40)],
    clicks: [
      [0, 0],
      [30, 0],
      [0, 40],
    ],
  },
  parts: [
    { kind: "words", text: "about" },
    { kind: "pick", name: "centre", label: "centre", takes: "point" },
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "start", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "end", takes: "point" },
    { kind: "words", text: "· with" },
    { kind: "size", name: "size", first: "R" },
    { kind: "words", text: "sweep" },
    { kind: "value", name: "sweep", label: "sweep", expects: "angle", stays: false },
  ],
  from: "centre",
  wants: ({ value }) => ["centre", "from", ...(value("sweep") === undefined ? ["to"] : [])],
  propose: (given, context) => {
    const { centre, from, to } = given.picks;
    if (!centre || !from || !given.isFirm("centre")) return nothing;
    const radius = given.radius("size");
    const away = distance(centre.at, from.at);
    if (away <= RESOLUTION) return nothing;
    const start =
      radius === undefined
        ? from.at
        : {
            x: centre.at.x + ((from.at.x - centre.at.x) * radius) / away,
            y: centre.at.y + ((from.at.y - centre.at.y) * radius) / away,
          };
    const sweep = given.value("sweep");
    if (sweep !== undefined)
      return arcProposal(
        arcByCentre,
        arcsBySweepAbout(centre.at, start, toRadians(sweep)),
        given.isFirm("from"),
        given,
        context,
      );
    if (!to || !given.isFirm("from"))
      return {
        ways: [{ preview: [{ shape: pieceShape({ a: centre.at, b: start, bulge: 0 }) }] }],
        live: { size: radius ?? away },
      };
    return arcProposal(arcByCentre, arcsAbout(centre.at, start, to.at), given.isFirm("to"), given, context);
  },
};
