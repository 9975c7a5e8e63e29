import { enclosedArea } from "../contour/chainMeasure.ts";
import { settingsOf } from "../drawing/drawing.ts";
import { pieceLength, piecePoint, pieceRadius, sweepOf } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { SAME_SIZE } from "../numeric/tolerance.ts";
import type { Contour } from "../profile/profile.ts";
import { lengthIn, slackOf, type Check, type Fault } from "./check.ts";
import { roundOf } from "./holes.ts";
import { turnBetween } from "./kinks.ts";

/** Corners that turn more than a U are as deep as no corner is: so many times what their radius is below the tool's. */
const DEEPEST = 10;

/** What stays in a corner that turns so much, by how much its radius is below the tool's. */
const leftIn = (turn: number, below: number): number =>
  below * (turn < Math.PI ? Math.min(DEEPEST, 1 / Math.cos(turn / 2) - 1) : DEEPEST);

type Tight = { readonly at: Point; readonly radius: number };

/**
 * The inside corners of a contour that a tool of radius `own` does not get into: more than `within` of material would
 * stay. Sharp ones have radius 0; an arc, or a run of short pieces that turns like one, has its own.
 */
const tightCorners = ({ pieces, role }: Contour, own: number, within: number): readonly Tight[] => {
  // seen with the waste on the right an inside corner turns left where the tool goes round outside
  const side = enclosedArea(pieces) > 0 === (role === "outside") ? -1 : 1;
  // begun at the longest piece no run goes over the start
  const first = pieces.reduce((best, piece, i) => (pieceLength(piece) > pieceLength(pieces[best]!) ? i : best), 0);
  const found: Tight[] = [];
  let run: { turn: number; radius: number; at: Point } | undefined;
  const end = (): void => {
    if (run && leftIn(run.turn, own - run.radius) > within) found.push({ at: run.at, radius: run.radius });
    run = undefined;
  };
  const turns = (turn: number, radius: number, at: Point): void => {
    const was = run ?? { turn: 0, radius: Infinity, at };
    const sharper = radius < was.radius;
    run = { turn: was.turn + turn, radius: Math.min(was.radius, radius), at: sharper ? at : was.at };
  };
  pieces.forEach((_, k) => {
    const i = (first + k) % pieces.length;
    const [before, piece] = [pieces.at(i - 1)!, pieces[i]!];
    const turn = before === piece ? 0 : side * turnBetween(before, piece);
    if (leftIn(Math.max(0, turn), own) > within) {
      end();
      found.push({ at: piece.a, radius: 0 });
    } else {
      // the largest arc that would round this joint on its own halves of both
      const radius = Math.min(pieceLength(before), pieceLength(piece)) / 2 / Math.tan(Math.max(turn, 1e-12) / 2);
      if (turn > 0 && radius < own * (1 - SAME_SIZE)) turns(turn, radius, piece.a);
      else if (turn < 0 || piece.bulge === 0) end();
    }
    if (side * piece.bulge > 0 && pieceRadius(piece) < own * (1 - SAME_SIZE))
      turns(Math.abs(sweepOf(piece.bulge)), pieceRadius(piece), piecePoint(piece, 0.5));
    else if (piece.bulge !== 0) end();
  });
  end();
  return found;
};

/** Inside corners that are tighter than the tool: it leaves material in them. */
export const insideRadius: Check = {
  id: "inside-radius",
  name: "Inside corners the tool gets into",
  source:
    "Definition: a round tool leaves its own radius, here more than what joins. A jet’s own kerf is only told " +
    "(common practice).",
  find: ({ drawing, profile: { contours }, making: { tool } }) => {
    if (!tool) return [];
    const own = tool.diameter / 2;
    const isCutter = tool.kind === "cutter";
    const within = settingsOf(drawing).joinTolerance;
    return contours
      .filter(({ role }) => role !== "mark")
      .flatMap((contour): readonly Fault[] => {
        const { ids, role } = contour;
        const round = roundOf(contour);
        if (round) {
          const diameter = 2 * round.radius;
          if (role === "outside" || diameter >= tool.diameter - slackOf(drawing)) return [];
          const values = { diameter, tool: tool.name, own: tool.diameter };
          return [{ code: "hole-below-tool", severity: "error", at: round.centre, ids, values }];
        }
        return tightCorners(contour, own, within).map(({ at, radius }): Fault => {
          const code = radius > 0 ? "inside-radius" : "inside-corner";
          const severity = isCutter ? "error" : radius > 0 ? "warning" : "info";
          return { code, severity, at, ids, values: { radius, own, tool: tool.name } };
        });
      });
  },
  says: {
    "inside-radius": ({ radius, own, tool }, unit) =>
      `An inside radius of ${lengthIn(radius, unit)} is tighter than ${tool} (R ${lengthIn(own, unit)}) gets into.`,
    "hole-below-tool": ({ diameter, own, tool }, unit) =>
      `A hole of Ø ${lengthIn(diameter, unit)} is smaller than ${tool} (Ø ${lengthIn(own, unit)}).`,
    "inside-corner": ({ own, tool }, unit) =>
      `A sharp inside corner: ${tool} leaves it round by R ${lengthIn(own, unit)}.`,
  },
  repairs: { "inside-corner": "corner-relief", "inside-radius": "change-fillet" },
};
