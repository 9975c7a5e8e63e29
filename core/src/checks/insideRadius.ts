import { enclosedArea } from "../contour/chainMeasure.ts";
import { settingsOf } from "../drawing/drawing.ts";
import {
  bulgeOf,
  line,
  pieceDirection,
  pieceLength,
  piecePoint,
  pieceRadius,
  sweepOf,
  type Piece,
} from "../geometry/piece.ts";
import { along, type Point } from "../geometry/point.ts";
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

type Tight = { readonly at: Point; readonly radius: number; readonly region?: readonly Piece[] };

/**
 * What a tool of radius `own` leaves in a corner between two straight sides, sharp or rounded by an arc that runs on
 * into both; undefined where a side is shorter than the tool's way along it.
 */
const leftStanding = (
  before: Piece,
  arc: Piece | undefined,
  after: Piece,
  own: number,
): readonly Piece[] | undefined => {
  if (before.bulge !== 0 || after.bulge !== 0) return undefined;
  const turn = turnBetween(before, after);
  const way = (own - (arc ? pieceRadius(arc) : 0)) * Math.abs(Math.tan(turn / 2));
  if (!(way > 0) || way > pieceLength(before) || way > pieceLength(after)) return undefined;
  const from = along(before.b, pieceDirection(before, 1), -way);
  const to = along(after.a, pieceDirection(after, 0), way);
  return [line(from, before.b), ...(arc ? [arc] : []), line(after.a, to), { a: to, b: from, bulge: bulgeOf(-turn) }];
};

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
  let run: { turn: number; radius: number; at: Point; parts: number; arc: number } | undefined;
  const end = (): void => {
    if (run && leftIn(run.turn, own - run.radius) > within) {
      const { at, radius, parts, arc: i } = run;
      const [before, after] = [pieces.at(i - 1)!, pieces[(i + 1) % pieces.length]!];
      const region = parts === 1 && pieces[i]!.bulge !== 0 ? leftStanding(before, pieces[i], after, own) : undefined;
      found.push({ at, radius, ...(region ? { region } : {}) });
    }
    run = undefined;
  };
  const turns = (turn: number, radius: number, at: Point, arc: number): void => {
    const was = run ?? { turn: 0, radius: Infinity, at, parts: 0, arc };
    const sharper = radius < was.radius;
    run = {
      turn: was.turn + turn,
      radius: Math.min(was.radius, radius),
      at: sharper ? at : was.at,
      parts: was.parts + 1,
      arc: was.arc,
    };
  };
  pieces.forEach((_, k) => {
    const i = (first + k) % pieces.length;
    const [before, piece] = [pieces.at(i - 1)!, pieces[i]!];
    const turn = before === piece ? 0 : side * turnBetween(before, piece);
    if (leftIn(Math.max(0, turn), own) > within) {
      end();
      const region = leftStanding(before, undefined, piece, own);
      found.push({ at: piece.a, radius: 0, ...(region ? { region } : {}) });
    } else {
      // the largest arc that would round this joint on its own halves of both
      const radius = Math.min(pieceLength(before), pieceLength(piece)) / 2 / Math.tan(Math.max(turn, 1e-12) / 2);
      if (turn > 0 && radius < own * (1 - SAME_SIZE)) turns(turn, radius, piece.a, i);
      else if (turn < 0 || piece.bulge === 0) end();
    }
    if (side * piece.bulge > 0 && pieceRadius(piece) < own * (1 - SAME_SIZE))
      turns(Math.abs(sweepOf(piece.bulge)), pieceRadius(piece), piecePoint(piece, 0.5), i);
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
        return tightCorners(contour, own, within).map(({ at, radius, region }): Fault => {
          const code = radius > 0 ? "inside-radius" : "inside-corner";
          const severity = isCutter ? "error" : radius > 0 ? "warning" : "info";
          const values = { radius, own, tool: tool.name };
          return { code, severity, at, ids, values, ...(region ? { region } : {}) };
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
