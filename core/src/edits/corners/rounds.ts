import { sharpCorner } from "../../construct/cornerCuts.ts";
import { filletCorner } from "../../construct/fillet.ts";
import { pieceRadius } from "../../geometry/piece.ts";
import type { Id } from "../../numeric/id.ts";
import { done, type Outcome } from "../../numeric/outcome.ts";
import { beside, runsOn, type Link } from "../path.ts";
import { HALF_TURN_BULGE } from "../../numeric/tolerance.ts";

/** A rounded corner that was taken back to the sharp one: its arc, and the links that meet there now. */
export type Round = { readonly arc: Link; readonly before: Id; readonly after: Id };

type LinkRun = { readonly links: readonly Link[]; readonly closed: boolean };

/**
 * The path with the rounded corner at position `i` made sharp; undefined where there is none: no arc tangent to both
 * its neighbours.
 */
export const sharpened = ({ links, closed }: LinkRun, i: number): { run: LinkRun; round: Round } | undefined => {
  const [before, after] = beside({ links, closed }, i);
  const [p, arc, q] = [links[before ?? -1], links[i], links[after ?? -1]];
  if (!p || !arc || !q || p === q || arc.piece.bulge === 0 || Math.abs(arc.piece.bulge) > HALF_TURN_BULGE)
    return undefined;
  if (!runsOn(p.piece, arc.piece) || !runsOn(arc.piece, q.piece)) return undefined;
  const sharp = sharpCorner(p.piece, arc.piece, q.piece);
  if (!sharp.ok) return undefined;
  const next = links.flatMap((link) =>
    link === arc
      ? []
      : link === p
        ? [{ ...p, piece: sharp.value.before }]
        : link === q
          ? [{ ...q, piece: sharp.value.after }]
          : [link],
  );
  return { run: { links: next, closed }, round: { arc, before: p.id, after: q.id } };
};

/** The corner rounded again with the radius it had. A refusal where that no longer fits, with the largest that does. */
export const roundedAgain = ({ links, closed }: LinkRun, { arc, before, after }: Round): Outcome<LinkRun> => {
  const [p, q] = [links.find(({ id }) => id === before), links.find(({ id }) => id === after)];
  if (!p || !q) return done({ links, closed }); // an edge was used up by the corner beside it
  const corner = filletCorner(p.piece, q.piece, pieceRadius(arc.piece));
  if (!corner.ok) return corner;
  const next = links.flatMap((link) => {
    if (link !== p && link !== q) return [link];
    if (link === p) {
      const kept = corner.value.before ? [{ ...p, piece: corner.value.before }] : [];
      return [...kept, { ...arc, piece: corner.value.arc }];
    }
    return corner.value.after ? [{ ...q, piece: corner.value.after }] : [];
  });
  return done({ links: next, closed });
};
