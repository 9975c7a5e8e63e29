import { boxTree } from "../../geometry/boxTree.ts";
import { pieceBounds, pieceCentre, pieceRadius, type Piece } from "../../geometry/piece.ts";
import { cross, distance, dot, subtract } from "../../geometry/point.ts";
import type { Id } from "../../numeric/id.ts";
import { agree, beside, vanishes, type Equation } from "../equations.ts";
import { combined, constant, type Lin } from "../lin.ts";
import type { Edge, Model } from "../model.ts";
import { exactly, type Finder, type Relation } from "./relation.ts";

/** Outlines of more edges than this are not held against each other turned by every edge. */
const MOST_EDGES = 400;

type Outline = { readonly edges: readonly Edge[]; readonly box: readonly [number, number, number, number] };

const outlinesOf = (model: Model): readonly Outline[] => {
  const byChain = new Map<Id, Edge[]>();
  for (const edge of model.edges)
    if (edge.ref.vertex !== undefined && !edge.layout && !edge.flat) {
      const own = byChain.get(edge.ref.id);
      if (own) own.push(edge);
      else byChain.set(edge.ref.id, [edge]);
    }
  return [...byChain.values()]
    .filter((edges) => edges.length >= 2 && edges.length <= MOST_EDGES && edges.at(-1)!.b === edges[0]!.a)
    .map((edges) => {
      const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
      for (const { piece } of edges) {
        const { minX, minY, maxX, maxY } = pieceBounds(piece);
        box[0] = Math.min(box[0], minX);
        box[1] = Math.min(box[1], minY);
        box[2] = Math.max(box[2], maxX);
        box[3] = Math.max(box[3], maxY);
      }
      return { edges, box };
    });
};

/** How far to its right one piece lies from another of its kind; undefined where it lies aslant or about elsewhere. */
const offBy = (p: Piece, q: Piece, near: number): number | undefined => {
  if (p.bulge === 0 && q.bulge === 0) {
    const along = subtract(p.b, p.a);
    const length = distance(p.a, p.b);
    const [from, to] = [q.a, q.b].map((end) => -cross(along, subtract(end, p.a)) / length) as [number, number];
    return Math.abs(from - to) <= near && dot(along, subtract(q.b, q.a)) > 0 ? from : undefined;
  }
  if (p.bulge === 0 || q.bulge === 0 || p.bulge > 0 !== q.bulge > 0) return undefined;
  if (distance(pieceCentre(p)!, pieceCentre(q)!) > near) return undefined;
  return Math.sign(p.bulge) * (pieceRadius(q) - pieceRadius(p));
};

type Offset = { readonly by: number; readonly from: number };

/** By how much one outline is another offset, and which edge answers its first; undefined where it is none. */
const offsetBetween = (p: Outline, q: Outline, near: number): Offset | undefined => {
  const count = p.edges.length;
  for (let from = 0; from < count; from++) {
    let by: number | undefined;
    const isOne = p.edges.every(({ piece }, i) => {
      const off = offBy(piece, q.edges[(from + i) % count]!.piece, near);
      by ??= off;
      return off !== undefined && Math.abs(off - by!) <= near;
    });
    if (isOne && by !== undefined && Math.abs(by) > 10 * near) return { by, from };
  }
  return undefined;
};

const together = (p: Outline, q: Outline, from: number, land: Lin): readonly Equation[] =>
  p.edges.flatMap((edge, i): readonly Equation[] => {
    const other = q.edges[(from + i) % q.edges.length]!;
    if (edge.arc && other.arc) {
      const wider = combined(combined(other.arc.radius, edge.arc.radius, 1, -1), land, 1, -Math.sign(edge.arc.sweep));
      return [
        agree(edge.arc.centre.x, other.arc.centre.x),
        agree(edge.arc.centre.y, other.arc.centre.y),
        vanishes(wider),
      ];
    }
    return [other.a, other.b].map((end) => beside(edge.a, edge.b, end, land, -1));
  });

/** Outlines that are offsets of each other, a land between; and each land as it is, which gives way to all else. */
export const offsetPairs: Finder = (model, meant) => {
  if (meant === "rough") return [];
  const outlines = outlinesOf(model);
  const found: Relation[] = [];
  boxTree(Float64Array.from(outlines.flatMap(({ box }) => box))).pairs(0, (i, j) => {
    const [p, q] = [outlines[i]!, outlines[j]!];
    if (p.edges.length !== q.edges.length) return;
    const offset = offsetBetween(p, q, exactly(model));
    if (!offset) return;
    const land = model.help(offset.by);
    const refs = [p.edges[0]!.ref, q.edges[offset.from]!.ref];
    const at = p.edges[0]!.piece.a;
    found.push({ kind: "offset pair", refs, equations: together(p, q, offset.from, land), at });
    found.push({ kind: "land", refs, equations: [agree(land, constant(offset.by))], at });
  });
  return found;
};
