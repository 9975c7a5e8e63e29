import { joinRuns, runPieces } from "../contour/joining.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";
import { cutEntities, type Drawing } from "./drawing.ts";
import { draftEdit, type Edit } from "./edit.ts";
import { chainOfPieces, chainPieces, type Entity, type Id, type Ref } from "./entity.ts";

/** What joining makes: how many contours and open chains, of how many pieces. */
export type JoinResult = {
  readonly edit: Edit;
  readonly contours: number;
  readonly chains: number;
  readonly pieces: number;
};

type Part = { readonly entity: Entity; readonly pieces: readonly Piece[]; readonly refs: readonly Ref[] };

const partOf = (entity: Entity): Part | undefined => {
  if (entity.kind === "piece") return { entity, pieces: [entity], refs: [{ id: entity.id }] };
  if (entity.kind !== "chain" || entity.closed) return undefined;
  const pieces = chainPieces(entity);
  return { entity, pieces, refs: pieces.map((_, i) => ({ id: entity.id, vertex: entity.vertices[i]!.id })) };
};

/**
 * Joins all pieces and open chains that meet within the resolution, layer by layer, or those among `only`. The longest part's id
 * stays; links to single pieces follow to the pieces of the chain.
 */
export const joinPieces = (drawing: Drawing, only?: ReadonlySet<Id>): Outcome<JoinResult> => {
  const parts = cutEntities(drawing)
    .filter(({ id }) => !only || only.has(id))
    .map(partOf)
    .filter((part) => part !== undefined);
  if (parts.length === 0) return refuse("nothing-to-join");
  const layers = [...new Set(parts.map(({ entity }) => entity.layer))];
  const draft = draftEdit(drawing, "Join", "join");
  const result = { contours: 0, chains: 0, pieces: 0 };
  for (const layer of layers) {
    const here = parts.filter(({ entity }) => entity.layer === layer);
    const ends = here.map(({ pieces }) => ({ start: pieces[0]!.a, end: pieces.at(-1)!.b }));
    for (const run of joinRuns(ends, RESOLUTION)) {
      if (run.links.length === 1 && !run.closed) continue;
      const pieces = runPieces(
        run,
        here.map((part) => part.pieces),
      );
      const refs = run.links.flatMap(({ part, reversed }) =>
        reversed ? [...here[part]!.refs].reverse() : here[part]!.refs,
      );
      const id = longest(run.links.map(({ part }) => here[part]!)).entity.id;
      const chain = chainOfPieces(pieces, run.closed, draft.newId);
      for (const { part } of run.links) draft.remove(here[part]!.entity.id);
      draft.replace({ ...chain, id, layer });
      refs.forEach((ref, i) => draft.follow(ref, [{ id, vertex: chain.vertices[i]!.id }]));
      result[run.closed ? "contours" : "chains"] += 1;
      result.pieces += run.links.length;
    }
  }
  if (result.contours + result.chains === 0) return refuse("already-joined", { open: parts.length });
  return done({ edit: draft.finish(), ...result });
};

const longest = (parts: readonly Part[]): Part => {
  const length = ({ pieces }: Part): number => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
  return parts.reduce((best, part) => (length(part) > length(best) ? part : best));
};
