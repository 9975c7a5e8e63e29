import { pieceLength } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import { severityOf } from "./things.ts";
import { absorb, GONE, NO_VALUES, type Work } from "./work.ts";

/**
 * The commonest group by itself: two loose lines, one on the other from end to end, that no outlines share. The one
 * that came first stays. False where it is another group.
 */
export const resolvePair = (i: number, j: number, work: Work): boolean => {
  const { all, things, classes, options, outlinesMeet, noted, out } = work;
  const { tolerance } = options;
  const one = all[i]!;
  const other = all[j]!;
  const first = things[one.thing]!;
  const second = things[other.thing]!;
  if (one.piece.bulge !== 0 || first.shape.kind !== "piece" || second.shape.kind !== "piece") return false;
  if (first.attached || second.attached) return false;
  // where both begin and end along the longer one
  const longer = pieceLength(other.piece) > pieceLength(one.piece) ? other.piece : one.piece;
  const { x, y } = longer.a;
  const length = pieceLength(longer);
  const dx = (longer.b.x - x) / length;
  const dy = (longer.b.y - y) / length;
  const position = (p: Point): number => dx * (p.x - x) + dy * (p.y - y);
  const a = position(one.piece.a);
  const b = position(one.piece.b);
  const c = position(other.piece.a);
  const d = position(other.piece.b);
  const apart = Math.max(Math.abs(Math.min(a, b) - Math.min(c, d)), Math.abs(Math.max(a, b) - Math.max(c, d)));
  const from = Math.min(a, b, c, d);
  const to = Math.min(Math.max(a, b), Math.max(c, d));
  // ends that are told apart make stretches of their own, and short ones none
  if (apart > tolerance / 8 || to - from <= 2 * tolerance) return false;
  const own = classes[one.thing]!;
  if (outlinesMeet(one.piece.a, own) && outlinesMeet(one.piece.b, own)) return false;
  const middle = (from + to) / 2;
  const at = { x: x + dx * middle, y: y + dy * middle };
  const finding = {
    code: "duplicate" as const,
    severity: severityOf("duplicate"),
    mendable: true,
    at,
    ids: [second.id, first.id],
    values: NO_VALUES,
    fixed: true,
  };
  const fixed = (finding.fixed = options.accept?.(finding) ?? true);
  noted.findings.push(finding);
  if (!fixed) return true;
  out[j] = GONE;
  noted.touched.push(other.thing);
  absorb(other, one, work);
  return true;
};
