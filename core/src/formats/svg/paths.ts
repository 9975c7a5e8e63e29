import { SAME_SIZE } from "../../numeric/tolerance.ts";
import { SVGPathData } from "svg-pathdata";
import { bulgeOf, type Piece } from "../../geometry/piece.ts";
import type { Point } from "../../geometry/point.ts";
import { TURN } from "../../numeric/angle.ts";
import type { ReadGeometry } from "../readShapes.ts";

/** A run of lines and round arcs being gathered; curves of other kinds stand by themselves between runs. */
type Gathering = { readonly out: ReadGeometry[]; run: Piece[] };

/**
 * The outlines of a path's data, in the path's own coordinates (y down): lines and round arcs as chains, other arcs as
 * ellipses, Béziers as B-splines. Undefined where the data can't be read or holds numbers that are none.
 */
export const shapesOfPath = (data: string): readonly ReadGeometry[] | undefined => {
  let commands;
  try {
    commands = new SVGPathData(data).toAbs().normalizeHVZ(false).normalizeST().commands;
  } catch {
    return undefined;
  }
  const state: Gathering = { out: [], run: [] };
  let [at, start]: [Point, Point] = [
    { x: 0, y: 0 },
    { x: 0, y: 0 },
  ];
  for (const command of commands) {
    if (Object.values(command).some((value) => typeof value === "number" && !(Math.abs(value) <= 1e9)))
      return undefined;
    switch (command.type) {
      case SVGPathData.MOVE_TO:
        end(state, false);
        [at, start] = [
          { x: command.x, y: command.y },
          { x: command.x, y: command.y },
        ];
        break;
      case SVGPathData.LINE_TO: {
        const to = { x: command.x, y: command.y };
        state.run.push({ a: at, b: to, bulge: 0 });
        at = to;
        break;
      }
      case SVGPathData.ARC: {
        const to = { x: command.x, y: command.y };
        arc(state, at, to, command);
        at = to;
        break;
      }
      case SVGPathData.CURVE_TO: {
        const to = { x: command.x, y: command.y };
        curve(state, [at, { x: command.x1, y: command.y1 }, { x: command.x2, y: command.y2 }, to]);
        at = to;
        break;
      }
      case SVGPathData.QUAD_TO: {
        const to = { x: command.x, y: command.y };
        curve(state, [at, { x: command.x1, y: command.y1 }, to]);
        at = to;
        break;
      }
      case SVGPathData.CLOSE_PATH:
        close(state, at, start);
        at = start;
        break;
      default:
        return undefined;
    }
  }
  end(state, false);
  return state.out;
};

/** Back to where the outline began: by a line where there is a gap; the run closes where it is the whole outline. */
const close = (state: Gathering, at: Point, start: Point): void => {
  const size = state.run.reduce(
    (most, { a, b }) => Math.max(most, Math.abs(a.x), Math.abs(a.y), Math.abs(b.x), Math.abs(b.y)),
    1,
  );
  const gap = Math.hypot(at.x - start.x, at.y - start.y);
  if (gap > SAME_SIZE * size) state.run.push({ a: at, b: start, bulge: 0 });
  const first = state.run[0];
  const whole = first !== undefined && first.a.x === start.x && first.a.y === start.y;
  if (whole && gap <= SAME_SIZE * size && gap > 0) state.run[state.run.length - 1] = { ...state.run.at(-1)!, b: start };
  end(state, whole);
};

const end = (state: Gathering, closed: boolean): void => {
  const { run } = state;
  if (run.length === 1 && !closed) state.out.push({ kind: "piece", ...run[0]! });
  else if (run.length > 0) state.out.push({ kind: "chain", closed, pieces: run });
  state.run = [];
};

const curve = (state: Gathering, points: readonly Point[]): void => {
  end(state, false);
  const degree = points.length - 1;
  const knots = [...points.map(() => 0), ...points.map(() => 1)];
  state.out.push({ kind: "free", degree, knots, points });
};

type ArcCommand = {
  readonly rX: number;
  readonly rY: number;
  readonly xRot: number;
  readonly lArcFlag: 0 | 1;
  readonly sweepFlag: 0 | 1;
};

const HALF_TURN = 4 * Number.EPSILON;

/** Source: W3C, SVG 1.1, appendix F.6 (end point to centre parameters, radii that are too small made larger). */
const arc = (state: Gathering, a: Point, b: Point, { rX, rY, xRot, lArcFlag, sweepFlag }: ArcCommand): void => {
  let [rx, ry] = [Math.abs(rX), Math.abs(rY)];
  if (a.x === b.x && a.y === b.y) return;
  if (rx === 0 || ry === 0) return void state.run.push({ a, b, bulge: 0 });
  const [c, s] = [Math.cos((xRot * Math.PI) / 180), Math.sin((xRot * Math.PI) / 180)];
  const [hx, hy] = [(a.x - b.x) / 2, (a.y - b.y) / 2];
  const [x, y] = [c * hx + s * hy, -s * hx + c * hy];
  const large = Math.hypot(x / rx, y / ry);
  if (large > 1) [rx, ry] = [rx * large, ry * large];
  const turns = sweepFlag === 1 ? 1 : -1;
  if (rx === ry) {
    // a round arc by its chord: half the sweep is asin(chord / 2r), or the rest of the turn
    const reach = Math.hypot(hx, hy) / rx;
    const half = Math.asin(Math.min(1, reach));
    // a radius that is half the chord but for rounding means half a turn, exactly
    const bulge = reach > 1 - HALF_TURN ? 1 : bulgeOf(lArcFlag ? TURN - 2 * half : 2 * half);
    return void state.run.push({ a, b, bulge: turns * bulge });
  }
  const [px, py] = [x / rx, y / ry];
  const square = px * px + py * py;
  const root = Math.sqrt(Math.max(0, 1 / square - 1)) * (lArcFlag === sweepFlag ? -1 : 1);
  const [ux, uy] = [root * py, -root * px]; // the centre on the unit circle's scale
  const [cx, cy] = [c * rx * ux - s * ry * uy + (a.x + b.x) / 2, s * rx * ux + c * ry * uy + (a.y + b.y) / 2];
  const from = Math.atan2(py - uy, px - ux);
  const to = Math.atan2(-py - uy, -px - ux);
  const turn = ((((to - from) * turns) % TURN) + TURN) % TURN;
  end(state, false);
  const long = rx >= ry;
  state.out.push({
    kind: "ellipse",
    centre: { x: cx, y: cy },
    major: long ? { x: c * rx, y: s * rx } : { x: -s * ry, y: c * ry },
    ratio: long ? ry / rx : rx / ry,
    from: long ? from : from - Math.PI / 2,
    sweep: turns * turn,
  });
};
