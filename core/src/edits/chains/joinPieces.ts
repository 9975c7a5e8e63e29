import { chainOfPieces, chainPieces } from "../../contour/chain.ts";
import { enclosesNothing, joinRuns, runPieces, type Run } from "../../contour/joining.ts";
import { cutEntities, type Drawing } from "../../drawing/drawing.ts";
import { applyEdit, type Edit } from "../../drawing/edit.ts";
import { reshaped, type Entity } from "../../drawing/entity.ts";
import type { Ref } from "../../drawing/ref.ts";
import { pieceLength, pieceRadius, reversePiece, splitPiece, type Piece } from "../../geometry/piece.ts";
import { distance } from "../../geometry/point.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { profileOf, type Profile } from "../../profile/profile.ts";
import { endedNear, gapRule } from "../../tidy/gapRule.ts";
import { draftEdit } from "../draftEdit.ts";

/** What joining makes: how many contours and open chains, of how many pieces. */
export type JoinResult = {
  readonly edit: Edit;
  readonly contours: number;
  readonly chains: number;
  readonly pieces: number;
  /** Gaps that were closed. */
  readonly mended: number;
  /** Arcs whose radius changed because a gap beside them had no true corner within reach. */
  readonly bent: number;
  /** Ends that are still open afterwards, and how far the nearest of them is from another. */
  readonly openEnds: number;
  readonly nearest?: number;
  /** Layers on which ends meet that could not be joined across them. */
  readonly apart?: { readonly layer: string; readonly other: string };
};

/** Two pieces run to one place, as tidying brings ends together. Returns whether anything moved. */
const closed = (before: Piece, after: Piece, within: number): readonly [Piece, Piece, boolean] => {
  if (distance(before.b, after.a) <= RESOLUTION) return [before, { ...after, a: before.b }, false];
  const found = gapRule(before, reversePiece(after), within);
  if (!found) return [before, after, false];
  return [endedNear(before, found.corner), reversePiece(endedNear(reversePiece(after), found.corner)), true];
};

/** The pieces of a run with its gaps closed, and how many there were. */
const mendedRun = (
  run: Run,
  parts: readonly (readonly Piece[])[],
  within: number,
): { pieces: readonly Piece[]; mended: number; bent: number } => {
  const pieces = run.links.flatMap(({ part, reversed }) =>
    reversed ? parts[part]!.map(reversePiece).reverse() : [...parts[part]!],
  );
  // an arc that is closed on itself is taken in halves
  if (run.closed && pieces.length === 1 && pieces[0]!.bulge !== 0) pieces.splice(0, 1, ...splitPiece(pieces[0]!, 0.5));
  const radii = pieces.map(pieceRadius);
  let mended = 0;
  const last = run.closed ? pieces.length : pieces.length - 1;
  for (let i = 0; i < last; i++) {
    const next = (i + 1) % pieces.length;
    const [before, after, moved] = closed(pieces[i]!, pieces[next]!, within);
    [pieces[i], pieces[next]] = [before, after];
    if (moved) mended += 1;
  }
  const bent = pieces.filter(
    (piece, i) => piece.bulge !== 0 && Math.abs(pieceRadius(piece) - radii[i]!) > RESOLUTION,
  ).length;
  return { pieces, mended, bent };
};

type Joinable = { readonly entity: Entity; readonly pieces: readonly Piece[]; readonly refs: readonly Ref[] };

const partOf = (entity: Entity): Joinable | undefined => {
  if (entity.kind === "piece") return { entity, pieces: [entity], refs: [{ id: entity.id }] };
  if (entity.kind !== "chain" || entity.closed) return undefined;
  const pieces = chainPieces(entity);
  return { entity, pieces, refs: pieces.map((_, i) => ({ id: entity.id, vertex: entity.vertices[i]!.id })) };
};

/**
 * Joins all pieces and open chains that meet within the resolution, layer by layer, or those among `only`. With
 * `within`, gaps no wider than that are closed on the way, at the true corner where it is near enough. The longest
 * part's id and look stay.
 */
export const joinPieces = (drawing: Drawing, only?: ReadonlySet<Id>, within = RESOLUTION): Outcome<JoinResult> => {
  const parts = cutEntities(drawing)
    .filter(({ id }) => !only || only.has(id))
    .map(partOf)
    .filter((part) => part !== undefined);
  if (parts.length === 0) return refuse("nothing-to-join");
  const layers = [...new Set(parts.map(({ entity }) => entity.layer))];
  const draft = draftEdit(drawing, "Join", "join");
  const result = { contours: 0, chains: 0, pieces: 0, mended: 0, bent: 0 };
  for (const layer of layers) {
    const here = parts.filter(({ entity }) => entity.layer === layer);
    const ends = here.map(({ pieces }) => ({ a: pieces[0]!.a, b: pieces.at(-1)!.b }));
    const own = here.map((part) => part.pieces);
    for (const run of joinRuns(ends, within)) {
      if (run.links.length === 1 && !run.closed) continue;
      const mend =
        within > RESOLUTION
          ? mendedRun(run, own, within)
          : { pieces: runPieces(run, (part) => own[part]!), mended: 0, bent: 0 };
      const { pieces } = mend;
      if (run.closed && enclosesNothing(pieces)) continue;
      result.mended += mend.mended;
      result.bent += mend.bent;
      const refs = run.links.flatMap(({ part, reversed }) =>
        reversed ? [...here[part]!.refs].reverse() : here[part]!.refs,
      );
      const standing = longest(run.links.map(({ part }) => here[part]!)).entity;
      const { id } = standing;
      const chain = chainOfPieces(pieces, run.closed, draft.newId);
      for (const { part } of run.links) draft.remove(here[part]!.entity.id);
      const traced = run.links.some(({ part }) => here[part]!.entity.traced) ? ({ traced: true } as const) : {};
      draft.replace({ ...reshaped(standing, chain), ...traced });
      // an end that was pulled over a gap is no longer where it was
      if (mend.mended > 0 && refs.length === pieces.length)
        refs.forEach((ref, i) => draft.became(ref, [{ id, vertex: chain.vertices[i]!.id }], { within: 2 * within }));
      result[run.closed ? "contours" : "chains"] += 1;
      result.pieces += run.links.length;
    }
  }
  if (result.contours + result.chains === 0) {
    const apart = layersApart(profileOf(drawing));
    return apart ? refuse("layers-apart", apart) : refuse("already-joined", { open: parts.length });
  }
  const edit = draft.finish();
  const profile = profileOf(applyEdit(drawing, edit));
  const { open } = profile;
  const apart = layersApart(profile);
  const gaps = open.flatMap((chain) => chain.ends.flatMap(({ gap }) => (gap ? [gap.distance] : [])));
  return done({
    edit,
    ...result,
    openEnds: 2 * open.length,
    ...(apart ? { apart } : {}),
    ...(gaps.length > 0 ? { nearest: gaps.reduce((least, gap) => Math.min(least, gap)) } : {}),
  });
};

/** Two layers on which ends meet. */
const layersApart = ({ open }: Profile): JoinResult["apart"] => {
  for (const { layer, ends } of open) {
    const met = ends.find(({ gap }) => gap?.apart && gap.distance <= RESOLUTION)?.gap?.apart;
    if (met) return { layer, other: met.layer };
  }
  return undefined;
};

const longest = (parts: readonly Joinable[]): Joinable => {
  const length = ({ pieces }: Joinable): number => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
  return parts.reduce((best, part) => (length(part) > length(best) ? part : best));
};
