import { arcFrom, arrivalOf, departureOf } from "../../construct/arcs.ts";
import { entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Entity } from "../../drawing/entity.ts";
import type { Ref } from "../../drawing/ref.ts";
import { reversePiece, type Piece } from "../../geometry/piece.ts";
import { add, distance, subtract, type Point } from "../../geometry/point.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { roundedAgain, sharpened, type Round } from "../corners/rounds.ts";
import { draftEdit } from "../draftEdit.ts";
import { beside, chainPath, runsOn, type ChainEntity, type Link } from "../path.ts";

/**
 * A piece with its end at another place: a line stays one, an arc keeps its sweep, or the direction at its other end.
 */
const endMoved = (piece: Piece, to: Point, keepsStart: boolean): Outcome<Piece> => {
  if (distance(piece.a, to) <= RESOLUTION) return refuse("no-length", {}, to);
  return piece.bulge !== 0 && keepsStart ? arcFrom(piece.a, departureOf(piece), to) : done({ ...piece, b: to });
};

/**
 * Moves ends of loose pieces and corners of chains that lie at one place to another. Where `staysTangent`, rounded
 * corners stay rounded with their radius (one of their ends moves the corner itself), and arcs keep their direction
 * where they run into the next piece. Refused: a piece left without length, and a rounding that no longer fits.
 */
export const stretch = (drawing: Drawing, refs: readonly Ref[], to: Point, staysTangent: boolean): Outcome<Edit> => {
  const draft = draftEdit(drawing, "Stretch", "handle");
  const entities = refs.map(({ id }) => entityOf(drawing, id)).filter((one): one is Entity => one !== undefined);
  const locked = refuseLocked(drawing, ...entities);
  if (locked) return locked;
  for (const ref of refs) {
    const entity = entityOf(drawing, ref.id);
    if (entity?.kind === "point") draft.reshape({ ...entity, at: to });
    else if (entity?.kind === "piece") {
      const atEnd = ref.place === "end";
      const moved = endMoved(atEnd ? entity : reversePiece(entity), to, false);
      if (!moved.ok) return moved;
      const { a, b, bulge } = atEnd ? moved.value : reversePiece(moved.value);
      draft.reshape({ ...entity, a, b, bulge });
    } else if (entity?.kind === "chain") {
      const moved = stretchCorner(entity, ref, to, staysTangent);
      if (!moved.ok) return moved;
      chainPath(entity).put(draft, moved.value);
    } else return refuse("not-a-piece");
  }
  return done(draft.finish());
};

const stretchCorner = (entity: ChainEntity, ref: Ref, to: Point, staysTangent: boolean): Outcome<readonly Link[]> => {
  const vertex = entity.vertices.find(({ id }) => id === ref.vertex);
  if (!vertex) return refuse("pick-first");
  let run: Parameters<typeof sharpened>[0] = chainPath(entity);
  // the links that end and start at the corner, by their ids, which stay
  const n = entity.vertices.length;
  const k = entity.vertices.indexOf(vertex);
  let after = k < run.links.length ? run.links[k]!.id : undefined;
  let before = k > 0 ? run.links[k - 1]!.id : entity.closed ? run.links[n - 1]!.id : undefined;
  const at = (id: number | undefined): number => run.links.findIndex((link) => link.id === id);
  const rounds: Round[] = [];
  let target = to;
  const sharpen = (i: number | undefined): Round | undefined => {
    const sharp = i === undefined || i < 0 ? undefined : sharpened(run, i);
    if (!sharp) return undefined;
    ({ run } = sharp);
    rounds.push(sharp.round);
    return sharp.round;
  };
  if (staysTangent) {
    // an end of a rounded corner stands for the corner
    const own = sharpen(at(before)) ?? sharpen(at(after));
    if (own) {
      [before, after] = [own.before, own.after];
      target = add(run.links[at(after)]!.piece.a, subtract(to, vertex.at));
    }
    if (before !== undefined) sharpen(beside(run, at(before))[0]);
    if (after !== undefined) sharpen(beside(run, at(after))[1]);
  }
  const links = [...run.links];
  const [i, j] = [at(before), at(after)];
  if (i >= 0) {
    const { piece } = links[i]!;
    const far = links[beside(run, i)[0] ?? -1];
    const moved = endMoved(piece, target, staysTangent && far !== undefined && runsOn(far.piece, piece));
    if (!moved.ok) return moved;
    links[i] = { ...links[i]!, piece: moved.value };
  }
  if (j >= 0) {
    const { piece } = links[j]!;
    const far = links[beside(run, j)[1] ?? -1];
    const back = reversePiece(piece);
    const moved = endMoved(back, target, staysTangent && far !== undefined && runsOn(piece, far.piece));
    if (!moved.ok) return moved;
    links[j] = { ...links[j]!, piece: reversePiece(moved.value) };
  }
  let result: Outcome<typeof run> = done({ links, closed: run.closed });
  for (const round of rounds) {
    if (!result.ok) return result;
    result = roundedAgain(result.value, round);
  }
  return result.ok ? done(result.value.links) : result;
};

/** An end of something; `vertex` is the one that the piece of a chain starts at. */
export type EndPiece = {
  readonly piece: Piece;
  readonly entity: Entity;
  readonly vertex?: Id;
  readonly put: (piece: Piece) => Entity;
  /** What is left when the piece goes; undefined where that is nothing. */
  readonly without: () => Entity | undefined;
};

/** The piece of an open end, or of a loose one, run so that it ends there, and how a changed one is put back. */
export const endPiece = (drawing: Drawing, ref: Ref): EndPiece | undefined => {
  const entity = entityOf(drawing, ref.id);
  if (entity?.kind === "piece") {
    const turned = ref.place !== "end";
    return {
      piece: turned ? reversePiece(entity) : entity,
      entity,
      put: (made) => {
        const { a, b, bulge } = turned ? reversePiece(made) : made;
        return { ...entity, a, b, bulge };
      },
      without: () => undefined,
    };
  }
  if (entity?.kind !== "chain" || entity.closed) return undefined;
  const { links } = chainPath(entity);
  const first = entity.vertices[0]!.id === ref.vertex;
  if (!first && entity.vertices.at(-1)!.id !== ref.vertex) return undefined;
  return {
    piece: first ? reversePiece(links[0]!.piece) : links.at(-1)!.piece,
    entity,
    vertex: (first ? links[0]! : links.at(-1)!).id,
    put: ({ b, bulge }) => ({
      ...entity,
      vertices: entity.vertices.map((vertex, i) => {
        if (first) return i === 0 ? { ...vertex, at: b, bulge: bulge === 0 ? 0 : -bulge } : vertex;
        if (i === entity.vertices.length - 1) return { ...vertex, at: b };
        return i === entity.vertices.length - 2 ? { ...vertex, bulge } : vertex;
      }),
    }),
    without: () => {
      if (links.length < 2) return undefined;
      const vertices = first ? entity.vertices.slice(1) : entity.vertices.slice(0, -1);
      return {
        ...entity,
        vertices: vertices.map((one, i) => (i === vertices.length - 1 ? { ...one, bulge: 0 } : one)),
      };
    },
  };
};

/**
 * The directions in which the piece before a corner arrives and the one after leaves; for measuring lengths and angles
 * at it.
 */
export const anchorOf = (drawing: Drawing, ref: Ref): { readonly at: Point; readonly arrives: number } | undefined => {
  const entity = entityOf(drawing, ref.id);
  if (entity?.kind === "chain") {
    const { links, closed } = chainPath(entity);
    const k = entity.vertices.findIndex(({ id }) => id === ref.vertex);
    const link = k > 0 ? links[k - 1] : closed ? links.at(-1) : undefined;
    const piece = link?.piece ?? (links[0] && reversePiece(links[0].piece));
    return piece && { at: piece.a, arrives: arrivalOf(piece) };
  }
  const end = endPiece(drawing, ref);
  return end && { at: end.piece.a, arrives: arrivalOf(end.piece) };
};
