import { pieceDirection } from "../../geometry/piece.ts";
import { cross, distance, subtract, type Point } from "../../geometry/point.ts";
import { TURN } from "../../numeric/angle.ts";
import type { Joint } from "./jointsOf.ts";
import type { Shape } from "./shapes.ts";

/** A shape, and which of those given it is made of. */
export type Cut = { readonly shape: Shape; readonly of: number; readonly inside: boolean };

/** Ends on one place of a circle. */
const SAME = 1e-6;

/**
 * Circles that outlines run onto smoothly, cut where they do: what the outline goes on over is one arc, what is left
 * lies inside. Others stay as they are.
 */
export const cutRounds = (shapes: readonly Shape[], joints: readonly Joint[]): readonly Cut[] =>
  shapes.flatMap((shape, of): readonly Cut[] => {
    const whole: readonly Cut[] = [{ shape, of, inside: false }];
    if (shape.kind !== "circle") return whole;
    const { centre, radius } = shape;
    const angle = (p: Point): number => Math.atan2(p.y - centre.y, p.x - centre.x);
    const onto = joints.flatMap((joint) => {
      const other = shapes[joint.one]!;
      if (joint.other !== of || joint.into || !joint.tangent || other.kind === "circle") return [];
      const at = other[joint.end];
      if (Math.abs(distance(at, centre) - radius) > SAME * radius) return [];
      // which way round it goes on: as the piece goes where it ends
      const way = pieceDirection(other, joint.end === "a" ? 0 : 1);
      const out = joint.end === "b" ? way : { x: -way.x, y: -way.y };
      return [{ at, angle: angle(at), left: cross(subtract(at, centre), out) > 0 }];
    });
    if (onto.length !== 2) return whole;
    const [p, q] = onto as [(typeof onto)[number], (typeof onto)[number]];
    // the one goes on round to where the other comes from
    if (p.left === q.left) return whole;
    const [from, to] = p.left ? [p, q] : [q, p];
    const sweep = (((to.angle - from.angle) % TURN) + TURN) % TURN;
    const arc = (a: Point, b: Point, by: number): Shape => ({ kind: "piece", a, b, bulge: Math.tan(by / 4) });
    return [
      { shape: arc(from.at, to.at, sweep), of, inside: false },
      { shape: arc(to.at, from.at, TURN - sweep), of, inside: true },
    ];
  });
