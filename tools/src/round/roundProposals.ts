import { pieceRadius, type Point, type Piece } from "@ash-edge/core/geometry";
import { done, type Outcome } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { makingWay, pieceShape } from "../making.ts";
import { refused, nothing, type Tool, type ToolContext, type Proposal, type Given } from "../tool.ts";

/** The path of a small dot for a tool's picture on the key grid. */
export const dot = (x: number, y: number): string => `M${x} ${y} m-1.6 0 a1.6 1.6 0 1 0 3.2 0 a1.6 1.6 0 1 0 -3.2 0`;
export const RING = "M20 12 A8 8 0 1 1 4 12 A8 8 0 1 1 20 12";

/** A proposal of one circle. */
export const circleProposal = (
  tool: Tool,
  circle: Outcome<{ centre: Point; radius: number }>,
  firm: boolean,
  { drawing, layer }: ToolContext,
): Proposal => {
  if (!circle.ok) return firm ? refused(circle) : nothing;
  const { centre, radius } = circle.value;
  return { ways: [makingWay(tool, drawing, layer, [{ kind: "circle", centre, radius }])], live: { size: radius } };
};

/** A proposal of arcs, one way for each that fits. */
export const arcProposal = (
  tool: Tool,
  arcs: Outcome<readonly Piece[]>,
  firm: boolean,
  given: Given,
  { drawing, layer }: ToolContext,
): Proposal => {
  if (!arcs.ok) return firm ? refused(arcs) : nothing;
  return {
    ways: arcs.value.map((arc) =>
      makingWay(tool, drawing, layer, [pieceShape(arc)], (draft, [id]) =>
        linkCallout(draft, given.callout("size"), [{ id: id! }]),
      ),
    ),
    ...(given.radius("size") === undefined ? { live: { size: pieceRadius(arcs.value[0]!) } } : {}),
  };
};
/** One arc as a list of one. */
export const one = (arc: Outcome<Piece>): Outcome<readonly Piece[]> => (arc.ok ? done([arc.value]) : arc);
