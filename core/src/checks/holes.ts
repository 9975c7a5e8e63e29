import { unionBounds } from "../geometry/bounds.ts";
import { boxTree } from "../geometry/boxTree.ts";
import { boxesOf } from "../geometry/boxesOf.ts";
import type { Circle } from "../geometry/circle.ts";
import { arcOf, pieceNearest } from "../geometry/piece.ts";
import { distance } from "../geometry/point.ts";
import { circlesOfCurves } from "../geometry/rings.ts";
import { SAME_SIZE, TRUE_WITHIN } from "../numeric/tolerance.ts";
import type { ToolKind } from "../tables/tools.ts";
import type { Contour } from "../profile/profile.ts";
import { lengthIn, type Check, type Fault } from "./check.ts";

/** The circle that a contour is, drawn as one or in arcs about one middle; undefined for any other. */
export const roundOf = ({ circle, pieces }: Pick<Contour, "circle" | "pieces">): Circle | undefined => {
  if (circle) return circle;
  const arcs = pieces.map(arcOf);
  const [first] = arcs;
  const isRound = arcs.every(
    (arc) =>
      arc && distance(arc.centre, first!.centre) <= TRUE_WITHIN && Math.abs(arc.radius - first!.radius) <= TRUE_WITHIN,
  );
  return isRound && first ? { centre: first.centre, radius: first.radius } : undefined;
};

type Hole = { readonly round: Circle; readonly ids: Contour["ids"]; readonly depth: number };
const holesIn = (contours: readonly Contour[]): readonly Hole[] =>
  contours.flatMap((one) => {
    const round = one.role === "inside" ? roundOf(one) : undefined;
    return round ? [{ round, ids: one.ids, depth: one.depth }] : [];
  });

/** The least Ø of a hole that a jet or a beam cuts well, in thicknesses. Common practice; a cutter has its own Ø. */
const LEAST_HOLE: Readonly<Partial<Record<ToolKind, number>>> = { plasma: 1.5, laser: 0.5, waterjet: 0.5 };

/** Holes too small for what is cut through: a jet burns or wanders in them. */
export const smallHoles: Check = {
  id: "small-holes",
  name: "Holes not too small for the thickness",
  source: "Common practice: Ø at least 1.5 thicknesses for plasma, 0.5 for laser and waterjet.",
  find: ({ profile: { contours }, making: { tool }, stock: { thickness } }) => {
    const part = tool && LEAST_HOLE[tool.kind];
    if (!part || thickness === undefined) return [];
    const least = part * thickness;
    return holesIn(contours).flatMap(({ round: circle, ids }): Fault[] => {
      const diameter = 2 * circle.radius;
      if (diameter >= least * (1 - SAME_SIZE)) return [];
      const values = { diameter, least, process: tool.kind };
      return [{ code: "small-hole", severity: "warning", at: circle.centre, ids, values }];
    });
  },
  says: {
    "small-hole": ({ diameter, least, process }, unit) =>
      `A hole of Ø ${lengthIn(diameter, unit)} is small for ${process} at this thickness: ` +
      `from Ø ${lengthIn(least, unit)} on it comes out round. Mark and drill it, or make it larger.`,
  },
};

/** The middle of a hole lies at least so many Ø from an edge. */
const EDGE_PART = 1;

/** A hole of more than this part of the smaller side is a bore, and its rim a ring that is meant. */
const BORE = 0.5;

/** Holes that lie near an edge. */
export const edgeDistance: Check = {
  id: "edge-distance",
  name: "Holes well away from edges",
  source: "Common practice: its middle at least one Ø from any edge.",
  slow: true,
  find: ({ profile: { contours } }) => {
    const outer = contours.filter(({ role, depth }) => role === "outside" && depth === 0);
    const edges = outer.flatMap(({ pieces }) => pieces);
    const box = unionBounds(outer.map(({ bounds }) => bounds));
    if (!box) return [];
    const largest = BORE * Math.min(box.maxX - box.minX, box.maxY - box.minY);
    const holes = holesIn(contours).filter(({ round: circle, depth }) => depth === 1 && 2 * circle.radius <= largest);
    const tree = boxTree(boxesOf(edges), circlesOfCurves(edges));
    return holes.flatMap(({ round: { centre, radius }, ids }): Fault[] => {
      const reach = 2 * EDGE_PART * radius;
      let nearest = reach;
      const { x, y } = centre;
      tree.within(x - reach, y - reach, x + reach, y + reach, (i) => {
        nearest = Math.min(nearest, pieceNearest(edges[i]!, centre).distance);
      });
      if (nearest >= reach * (1 - SAME_SIZE)) return [];
      const values = { apart: nearest - radius, diameter: 2 * radius };
      return [{ code: "near-edge", severity: "info", at: centre, ids, values }];
    });
  },
  says: {
    "near-edge": ({ apart, diameter }, unit) =>
      `A hole of Ø ${lengthIn(diameter, unit)} lies only ${lengthIn(apart, unit)} ${unit} from an edge.`,
  },
};
