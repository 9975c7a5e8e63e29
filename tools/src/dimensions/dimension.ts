import { linearAt, placedAt, senseless, type NewAnnotation } from "@ash-edge/core/annotate";
import { roundAt, sameTarget, type Drawing, type Ref } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { refuse } from "@ash-edge/core/numeric";
import { exampleBox } from "../example/exampleShapes.ts";
import { nothing, refused, type Given, type Proposal, type Tool, type ToolContext } from "../tool.ts";
import {
  annotating,
  heldBy,
  isBare,
  measuredAngle,
  measuredParts,
  measuredRef,
  ownSize,
  placeFor,
  standsAt,
} from "./dimensioning.ts";

/** The dimension of one thing: an edge by its length, a circle by Ø, an arc by R; undefined for a place alone. */
const ofOne = (drawing: Drawing, ref: Ref, angle: number | undefined, at: Point): NewAnnotation | undefined => {
  if (ref.place !== undefined) return undefined;
  if (!roundAt(drawing, ref)) return linearAt(drawing, [ref], angle, at);
  return placedAt(drawing, { kind: ownSize(drawing, ref), refs: [ref] }, at);
};

const propose = (given: Given, context: ToolContext): Proposal => {
  const { drawing } = context;
  const { one, other } = given.picks;
  const first = heldBy(one);
  if (!one) return nothing;
  if (!first) return given.isFirm("one") ? refused(refuse("nothing-to-hold")) : nothing;
  if (!given.isFirm("one") || !other) return nothing;
  const angle = measuredAngle(given);
  const second = heldBy(other);
  if (!second) {
    const single = ofOne(drawing, first, angle, other.at);
    if (!single) return given.isFirm("other") ? refused(refuse("nothing-to-hold")) : nothing;
    return annotating(dimension, context, [single], given.isFirm("other"));
  }
  const refs = [first, second].map((ref) => measuredRef(drawing, ref));
  const made = linearAt(drawing, refs, angle, placeFor(given) ?? other.at);
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
    ...measuredParts,
    { kind: "words", text: "at" },
    standsAt(),
  ],
  wants: ({ picks }) => ["one", "other", ...(isBare(picks.other) ? [] : ["at"])],
  propose,
};
