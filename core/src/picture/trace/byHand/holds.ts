import { carrierOf } from "../../../geometry/curve.ts";
import { pieceDirection } from "../../../geometry/piece.ts";
import { cross, distance } from "../../../geometry/point.ts";
import type { Proposal } from "../proposal.ts";
import { found, metAt, type Ended, type Proposals } from "./pieces.ts";

/** What a proposal was found to hold by itself, or with another. */
export type Hold =
  | { readonly kind: "level" | "upright" }
  | { readonly kind: "touches" | "one centre" | "equal"; readonly other: number };

/** What was solved to be alike is so to this, of 1; directions where pieces meet to this (sines). */
const [ALIKE, SMOOTH] = [1e-7, 1e-4];

/** All that holds at a proposal: told by how it lies, whatever made it so. */
export const holdsOf = (all: Proposals, own: Proposal): readonly Hold[] => {
  const { shape } = own;
  const out: Hold[] = [];
  if (shape.kind === "piece") {
    const [dx, dy] = [Math.abs(shape.b.x - shape.a.x), Math.abs(shape.b.y - shape.a.y)];
    if (shape.bulge === 0 && dy <= ALIKE * dx) out.push({ kind: "level" });
    if (shape.bulge === 0 && dx <= ALIKE * dy) out.push({ kind: "upright" });
    for (const end of ["a", "b"] as const) {
      const met = metAt(all, own, end)[0];
      const other = met && (found(all, met.id) as Ended);
      if (!other || (shape.bulge === 0 && other.shape.bulge === 0)) continue;
      const [p, q] = [pieceDirection(shape, end === "a" ? 0 : 1), pieceDirection(other.shape, met.end === "a" ? 0 : 1)];
      if (Math.abs(cross(p, q)) <= SMOOTH) out.push({ kind: "touches", other: other.id });
    }
  }
  const round = carrierOf(shape);
  if (round?.kind !== "circle") return out;
  for (const one of all) {
    const other = one.id === own.id ? undefined : carrierOf(one.shape);
    if (other?.kind !== "circle") continue;
    if (distance(other.centre, round.centre) <= ALIKE * round.radius) out.push({ kind: "one centre", other: one.id });
    if (Math.abs(other.radius - round.radius) <= ALIKE * round.radius) out.push({ kind: "equal", other: one.id });
  }
  return out;
};
