import { linearAt, placedAt, senseless, wayAngle, type NewAnnotation, type Way } from "@ash-edge/core/annotate";
import { curveAt, sameTarget, type Drawing, type Ref } from "@ash-edge/core/drawing";
import { carrierOf, type Point } from "@ash-edge/core/geometry";
import { refuse } from "@ash-edge/core/numeric";
import { exampleBox } from "../example/exampleShapes.ts";
import { nothing, refused, under, type Given, type Proposal, type Tool, type ToolContext } from "../tool.ts";
import { annotating, heldBy, isBare, measuredRef, standsAt } from "./dimensioning.ts";

const isRound = (drawing: Drawing, ref: Ref): boolean => {
  const curve = ref.place === undefined ? curveAt(drawing, ref) : undefined;
  return curve !== undefined && carrierOf(curve)?.kind === "circle";
};

/** The dimension of one thing: an edge by its length, a circle by Ø, an arc by R; undefined for a place alone. */
const ofOne = (drawing: Drawing, ref: Ref, angle: number | undefined, at: Point): NewAnnotation | undefined => {
  if (isRound(drawing, ref)) {
    const kind = curveAt(drawing, ref)?.kind === "circle" ? "diameter" : "radius";
    return placedAt(drawing, { kind, refs: [ref], at: { x: 0, y: 0 } }, at);
  }
  return ref.place === undefined ? linearAt(drawing, [ref], angle, at) : undefined;
};

const propose = (given: Given, context: ToolContext): Proposal => {
  const { drawing } = context;
  const { one, other, at } = given.picks;
  const first = heldBy(one);
  if (!one) return nothing;
  if (!first) return given.isFirm("one") ? refused(refuse("nothing-to-hold")) : nothing;
  if (!given.isFirm("one") || !other) return nothing;
  const angle = wayAngle(given.choice("way") as Way, given.value("angle") ?? 0);
  const second = heldBy(other);
  if (!second) {
    const single = ofOne(drawing, first, angle, other.at);
    if (!single) return given.isFirm("other") ? refused(refuse("nothing-to-hold")) : nothing;
    return annotating(dimension, context, [single], given.isFirm("other"));
  }
  const refs = [first, second].map((ref) => measuredRef(drawing, ref));
  const made = linearAt(drawing, refs, angle, at?.at ?? given.pointer ?? other.at);
  return annotating(dimension, context, [made], given.isFirm("other"));
};

/** True where the first pick has a distance to a thing: edges that are not parallel have none. */
const hasDistance = (ref: Ref, picks: Given["picks"], drawing: Drawing): boolean => {
  const first = heldBy(picks.one);
  if (!first || sameTarget(first, ref)) return false;
  const refs = [first, ref].map((one) => measuredRef(drawing, one));
  return senseless(drawing, linearAt(drawing, refs, undefined, { x: 0, y: 0 })) === undefined;
};

export const dimension: Tool = {
  kind: "tool",
  id: "dimension",
  name: "Dimension",
  help:
    "Click an edge, then where its dimension should stand. Or two points, an edge and a point, two parallel edges, " +
    "two circles for the distance of their centres, then the place. A circle or an arc alone is given its size. It " +
    "follows what it measures through every change, and says so when that is gone.",
  drawing: ["M4 9 L20 9 M7 6.5 L4 9 L7 11.5 M17 6.5 L20 9 L17 11.5", "M4 5 L4 20 M20 5 L20 20 M4 17 L20 17"],
  example: {
    cut: [exampleBox(0, 0, 60, 40)],
    clicks: [
      [30, 0],
      [30, -14],
    ],
  },
  parts: [
    { kind: "pick", name: "one", label: "edge or point", takes: "either" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "other", label: "another, or where it stands", takes: "either", fits: hasDistance },
    {
      kind: "choice",
      name: "way",
      label: "measured",
      options: [
        ["along", "along"],
        ["level", "level"],
        ["upright", "upright"],
        ["angle", "at an angle"],
      ],
    },
    {
      kind: "value",
      name: "angle",
      label: "angle",
      expects: "angle",
      stays: true,
      signed: true,
      onlyIf: under("way", "angle"),
    },
    { kind: "words", text: "at" },
    standsAt(),
  ],
  wants: ({ picks }) => ["one", "other", ...(isBare(picks.other) ? [] : ["at"])],
  propose,
};
