import type { Piece } from "../geometry/piece.ts";
import { piecePoint, pieceRadius } from "../geometry/piece.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { SAME_SIZE, SMOOTH_TURN } from "../numeric/tolerance.ts";
import type { Contour } from "../profile/profile.ts";
import { lengthIn, type Check, type Fault } from "./check.ts";
import { turnBetween } from "./kinks.ts";

/** The inside corners of a contour as the tool meets them: sharp ones with radius 0, and arcs. */
const insideCorners = ({ pieces, role }: Contour): readonly { at: Piece; radius: number }[] => {
  // seen with the waste on the right an inside corner turns left where the tool goes round outside
  const side = enclosedArea(pieces) > 0 === (role === "outside") ? -1 : 1;
  return pieces.flatMap((piece, i) => {
    const corners: { at: Piece; radius: number }[] = [];
    const before = pieces.at(i - 1)!;
    if (before !== piece && side * turnBetween(before, piece) > SMOOTH_TURN) corners.push({ at: piece, radius: 0 });
    if (side * piece.bulge > 0) corners.push({ at: piece, radius: pieceRadius(piece) });
    return corners;
  });
};

/** Inside corners that are tighter than the tool: it leaves material in them. */
export const insideRadius: Check = {
  id: "inside-radius",
  name: "Inside corners the tool gets into",
  source: "Definition: a round tool leaves its own radius. A jet’s own kerf is only told (common practice).",
  find: ({ profile: { contours }, making: { tool } }) => {
    if (!tool) return [];
    const own = tool.diameter / 2;
    const isCutter = tool.kind === "cutter";
    return contours
      .filter(({ role }) => role !== "mark")
      .flatMap((contour): readonly Fault[] => {
        const { circle, ids, role } = contour;
        if (circle) {
          const diameter = 2 * circle.radius;
          if (role === "outside" || diameter >= tool.diameter * (1 - SAME_SIZE)) return [];
          const values = { diameter, tool: tool.name, own: tool.diameter };
          return [{ code: "hole-below-tool", severity: "error", at: circle.centre, ids, values }];
        }
        return insideCorners(contour).flatMap(({ at, radius }): Fault[] => {
          if (radius >= own * (1 - SAME_SIZE)) return [];
          const code = radius > 0 ? "inside-radius" : "inside-corner";
          const severity = isCutter ? "error" : radius > 0 ? "warning" : "info";
          return [
            {
              code,
              severity,
              at: radius > 0 ? piecePoint(at, 0.5) : at.a,
              ids,
              values: { radius, own, tool: tool.name },
            },
          ];
        });
      });
  },
  says: {
    "inside-radius": ({ radius, own, tool }, unit) =>
      `An inside arc of R ${lengthIn(radius, unit)} is tighter than ${tool} (R ${lengthIn(own, unit)}) gets into.`,
    "hole-below-tool": ({ diameter, own, tool }, unit) =>
      `A hole of Ø ${lengthIn(diameter, unit)} is smaller than ${tool} (Ø ${lengthIn(own, unit)}).`,
    "inside-corner": ({ own, tool }, unit) =>
      `A sharp inside corner: ${tool} leaves it round by R ${lengthIn(own, unit)}.`,
  },
  repairs: { "inside-corner": "corner-relief", "inside-radius": "change-fillet" },
};
