import { relieveCorner, sharpCorner, type CutCorner, type Relief } from "../../construct/cornerCuts.ts";
import { cornerSide, filletCorner, filletInRun, type FilletedCorner } from "../../construct/fillet.ts";
import { chainPieces } from "../../contour/chain.ts";
import { enclosedArea } from "../../contour/chainMeasure.ts";
import { cutEntities, entityOf, refuseLocked, type Drawing } from "../../drawing/drawing.ts";
import type { Edit } from "../../drawing/edit.ts";
import type { Entity } from "../../drawing/entity.ts";
import type { Ref } from "../../drawing/ref.ts";
import { pieceLength, plainPiece, reversePiece, type Piece } from "../../geometry/piece.ts";
import { distance, type Point } from "../../geometry/point.ts";
import { searchIndex, type DrawingIndex } from "../../look/drawingIndex.ts";
import type { Id } from "../../numeric/id.ts";
import { done, refuse, type Outcome, type Refusal } from "../../numeric/outcome.ts";
import { RESOLUTION } from "../../numeric/tolerance.ts";
import { profileOf } from "../../profile/profile.ts";
import { shapeBounds } from "../../shape/kinds.ts";
import { draftEdit, type EditDraft } from "../draftEdit.ts";
import { linksOf, runsOn, verticesOf, type ChainEntity, type Link } from "../path.ts";
import { endPiece, type EndPiece } from "../reshape/stretch.ts";

/** A corner: of a chain at a vertex, or where two loose pieces or open chains end at one place. */
export type Corner = { readonly kind: "chain"; readonly id: Id; readonly vertex: Id; readonly at: Point } | LooseCorner;
export type LooseCorner = { readonly kind: "loose"; readonly ends: readonly [Ref, Ref]; readonly at: Point };

/** What is made of one corner: from its edges, the first ending where the second starts. */
export type CornerCut = ((before: Piece, after: Piece) => Outcome<CutCorner>) & {
  /** The radius of a cut that rounds: it may go on to what an edge smoothly runs on into. */
  readonly rounds?: number;
};

/** The corner at a place: of the chain that has one there, else of two loose pieces that end there. */
export const cornerAt = (index: DrawingIndex, ref: Ref, at: Point): Corner | undefined => {
  const entity = entityOf(index.drawing, ref.id);
  if (entity?.kind === "chain") {
    const vertex = entity.vertices.find((one) => distance(one.at, at) <= RESOLUTION);
    const i = vertex ? entity.vertices.indexOf(vertex) : -1;
    const inner = entity.closed || (i > 0 && i < entity.vertices.length - 1);
    if (vertex && inner) return { kind: "chain", id: entity.id, vertex: vertex.id, at: vertex.at };
  }
  const box = { minX: at.x - RESOLUTION, minY: at.y - RESOLUTION, maxX: at.x + RESOLUTION, maxY: at.y + RESOLUTION };
  const ids = [...new Set(searchIndex(index, box).map((item) => item.ref.id))].sort((p, q) => p - q);
  const ends = ids.flatMap((id) => endsThere(index.drawing, id, at));
  const [one, other] = ends;
  return one && other && ends.length === 2 && one.id !== other.id
    ? { kind: "loose", ends: [one, other], at }
    : undefined;
};

/** The ends that a loose piece or an open chain has at a place. */
const endsThere = (drawing: Drawing, id: Id, at: Point): readonly Ref[] => {
  const entity = entityOf(drawing, id);
  const there = (p: Point): boolean => distance(p, at) <= RESOLUTION;
  if (entity?.kind === "piece")
    return [
      ...(there(entity.a) ? [{ id, place: "start" } as const] : []),
      ...(there(entity.b) ? [{ id, place: "end" } as const] : []),
    ];
  if (entity?.kind !== "chain" || entity.closed) return [];
  return [entity.vertices[0]!, entity.vertices.at(-1)!]
    .filter((vertex) => there(vertex.at))
    .map((vertex) => ({ id, vertex: vertex.id }));
};

/** What was done at corners: the edit, how many, and why not at the others. */
export type CornersCut = {
  readonly edit: Edit;
  readonly count: number;
  readonly refusals: readonly Refusal[];
};

/** A cut of a size, by which the largest that fits at both ends of an edge is found. */
export type SizedCut = { readonly size: number; readonly of: (size: number) => CornerCut };
const NONE: ReadonlySet<Id> = new Set();

/** Corners that can be cut each alone, but not both, because the edge between them is too short for two. */
const clashes = (entity: ChainEntity, cut: CornerCut): ReadonlySet<Id> => {
  const pieces = chainPieces(entity);
  const n = entity.vertices.length;
  const found = new Set<Id>();
  entity.vertices.forEach((_, i) => {
    const next = (i + 1) % n;
    const [before, own, after] = [pieces[(i + n - 1) % n], pieces[i], pieces[next]];
    const inner = entity.closed || (i > 0 && next < n - 1);
    if (!inner || !before || !own || !after || cornerSide(before, own) === 0 || cornerSide(own, after) === 0) return;
    const [one, other] = [cut(before, own), cut(own, after)];
    if (!one.ok || !other.ok || bothFit(before, own, after, cut)) return;
    found.add(entity.vertices[i]!.id);
    found.add(entity.vertices[next]!.id);
  });
  return found;
};

const bothFit = (before: Piece, own: Piece, after: Piece, cut: CornerCut): boolean => {
  const one = cut(before, own);
  if (!one.ok) return false;
  // an edge that the first corner used up leaves nothing for the second
  return one.value.after !== undefined && cut(one.value.after, after).ok;
};

/**
 * The refusal of a corner that clashes with the next, with the largest size that fits at both ends of each edge there.
 */
const sharedRefusal = (entity: ChainEntity, clashing: ReadonlySet<Id>, { size, of }: SizedCut, vertex: Id): Refusal => {
  const pieces = chainPieces(entity);
  const n = entity.vertices.length;
  const at = entity.vertices.findIndex(({ id }) => id === vertex);
  let limit = size;
  for (const i of [(at + n - 1) % n, at]) {
    const ends = [entity.vertices[i]!.id, entity.vertices[(i + 1) % n]!.id];
    const [before, own, after] = [pieces[(i + n - 1) % n], pieces[i], pieces[(i + 1) % n]];
    if (!before || !own || !after || !ends.every((id) => clashing.has(id))) continue;
    let [fits, fails] = [0, limit];
    if (bothFit(before, own, after, of(limit))) continue;
    for (let step = 0; step < HALVINGS; step++) {
      const middle = (fits + fails) / 2;
      if (middle > 0 && bothFit(before, own, after, of(middle))) fits = middle;
      else fails = middle;
    }
    limit = fits;
  }
  return refuse("radius-too-large", { typed: size, limit }, entity.vertices[at]!.at).refusal;
};
/** Halvings after which a size is known to the last digits of a double. */
const HALVINGS = 60;

/**
 * Cuts the corners of a chain at some of its vertices, or at all where it has a corner, in one edit; edges that are
 * used up go, and links to them are cut loose. Corners that can't be cut are told; if none can, the first reason is the
 * refusal. With `keepEdges` the chain stays as it is, and what would come between is added loose.
 */
export const cutCorners = (
  drawing: Drawing,
  id: Id,
  which: readonly Id[] | "all",
  cut: CornerCut,
  label: string,
  link?: (draft: EditDraft, refs: readonly Ref[]) => void,
  { keepEdges = false, sized }: { readonly keepEdges?: boolean; readonly sized?: SizedCut } = {},
): Outcome<CornersCut> => {
  const entity = entityOf(drawing, id);
  if (entity?.kind !== "chain") return refuse("chain-needed");
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const draft = draftEdit(drawing, label, "corner");
  let links = linksOf(entity);
  const refs: Ref[] = [];
  const refusals: Refusal[] = [];
  let count = 0;
  const wanted = which === "all" ? entity.vertices.map((vertex) => vertex.id) : which;
  const clashing = which === "all" && sized && !keepEdges ? clashes(entity, cut) : NONE;
  for (const vertex of clashing) refusals.push(sharedRefusal(entity, clashing, sized!, vertex));
  for (const vertex of wanted) {
    if (clashing.has(vertex)) continue;
    const at = links.findIndex((one) => one.id === vertex);
    if (at < 0 || (at === 0 && !entity.closed)) continue;
    const before = (at + links.length - 1) % links.length;
    const [p, q] = [links[before]!, links[at]!];
    if (before === at || (which === "all" && cornerSide(p.piece, q.piece) === 0)) continue;
    const found = cutAt(links, entity.closed, at, cut, wanted.length === 1 && !keepEdges);
    if (!found.ok) {
      refusals.push(found.refusal);
      continue;
    }
    const { corner, skipBefore, skipAfter } = found.value;
    count += 1;
    if (keepEdges) {
      for (const { a, b, bulge } of corner.between)
        refs.push({ id: draft.add({ kind: "piece", a, b, bulge }, entity.layer) });
      continue;
    }
    const between = corner.between.map((piece): Link => ({ piece, id: draft.newId() }));
    const made = between.map((one): Ref => ({ id, vertex: one.id }));
    for (const ref of made) refs.push(ref);
    draft.corner(p.piece.b, sharpOf({ id, vertex: p.id }, { id, vertex: q.id }, made));
    const slots: Link[][] = links.map((one) => [one]);
    // what the fillet went past is gone; the corner keeps its place in the path
    const n = links.length;
    for (let i = 0; i < skipBefore; i++) slots[(before + n - i) % n] = [];
    for (let i = 0; i < skipAfter; i++) slots[(at + i) % n] = [];
    const [first, last] = [(before + n - skipBefore) % n, (at + skipAfter) % n];
    slots[first] = corner.before ? [{ piece: corner.before, id: links[first]!.id }] : [];
    slots[last] = corner.after ? [{ piece: corner.after, id: links[last]!.id }] : [];
    slots[at] = [...between, ...slots[at]!];
    links = slots.flat();
  }
  if (count === 0) return refusals[0] ? { ok: false, refusal: refusals[0] } : refuse("no-corner-here");
  const last = entity.closed ? undefined : entity.vertices.at(-1);
  if (!keepEdges) draft.replace({ ...entity, vertices: verticesOf(links, entity.closed, last) });
  link?.(draft, refs);
  return done({ edit: draft.finish(), count, refusals });
};

/** The edges of a corner where two ends meet, the first ending where the second starts. */
export const looseEdges = (drawing: Drawing, { ends }: LooseCorner): readonly [Piece, Piece] | undefined => {
  const [p, q] = ends.map((end) => endPiece(drawing, end));
  return p && q && [p.piece, reversePiece(q.piece)];
};

/**
 * Cuts a corner where two loose pieces, or ends of open chains, meet: they are shortened, and what comes between is
 * added loose.
 */
export const cutLooseCorner = (
  drawing: Drawing,
  { ends }: LooseCorner,
  cut: CornerCut,
  label: string,
  keepEdges = false,
  link?: (draft: EditDraft, refs: readonly Ref[]) => void,
): Outcome<CornersCut> => {
  const [p, q] = ends.map((end) => endPiece(drawing, end));
  if (!p || !q) return refuse("no-corner-here");
  const locked = refuseLocked(drawing, p.entity, q.entity);
  if (locked) return locked;
  const corner = cut(p.piece, reversePiece(q.piece));
  if (!corner.ok) return corner;
  const draft = draftEdit(drawing, label, "corner");
  const { before, after, between } = corner.value;
  for (const [end, piece] of [
    [p, before],
    [q, after && reversePiece(after)],
  ] as const) {
    if (keepEdges) continue;
    const left = piece ? end.put(piece) : end.without();
    if (left) draft.replace(left);
    else draft.remove(end.entity.id);
  }
  const refs = between.map(({ a, b, bulge }): Ref => ({
    id: draft.add({ kind: "piece", a, b, bulge }, p.entity.layer),
  }));
  if (!keepEdges) draft.corner(p.piece.b, sharpOf(endRef(p), endRef(q)));
  link?.(draft, refs);
  return done({ edit: draft.finish(), count: 1, refusals: [] });
};

const endRef = ({ entity, vertex }: EndPiece): Ref => ({ id: entity.id, ...(vertex === undefined ? {} : { vertex }) });

/**
 * What names a corner that was cut: the sharp corner of the one piece put there in a chain, else where its edges would
 * meet.
 */
const sharpOf = (before: Ref, after: Ref, between: readonly Ref[] = []): Ref =>
  between.length === 1 ? { ...between[0]!, place: "sharp" } : { ...before, place: { crosses: after } };

/** The cut that rounds a corner with an arc of `radius`. */
export const filletCut = (radius: number): CornerCut =>
  Object.assign(
    (before: Piece, after: Piece): Outcome<CutCorner> => {
      const made = filletCorner(before, after, radius);
      return made.ok ? done(cutOf(made.value)) : made;
    },
    { rounds: radius },
  );

const cutOf = ({ arc, ...rest }: FilletedCorner): CutCorner => ({ ...rest, between: [arc] });

/** A cut of a corner in a path, and how many links it takes the place of on both sides, beyond those it shortens. */
type CutInPath = { readonly corner: CutCorner; readonly skipBefore: number; readonly skipAfter: number };

/** So many pieces on each side of a corner may be taken by one fillet. */
const TAKEN = 16;

/** The corner at position `at` of a path cut: a fillet alone at its corner may go on along what runs on smoothly. */
const cutAt = (
  links: readonly Link[],
  closed: boolean,
  at: number,
  cut: CornerCut,
  mayGoOn: boolean,
): Outcome<CutInPath> => {
  const n = links.length;
  const before = (at + n - 1) % n;
  if (!mayGoOn || cut.rounds === undefined) {
    const made = cut(links[before]!.piece, links[at]!.piece);
    return made.ok ? done({ corner: made.value, skipBefore: 0, skipAfter: 0 }) : made;
  }
  const most = Math.min(TAKEN, Math.floor(n / 2));
  const befores = [links[before]!.piece];
  for (let i = before; befores.length < most; i = (i + n - 1) % n) {
    const previous = closed || i > 0 ? links[(i + n - 1) % n]!.piece : undefined;
    if (!previous || !runsOn(previous, links[i]!.piece)) break;
    befores.push(previous);
  }
  const afters = [links[at]!.piece];
  for (let i = at; afters.length < most; i = (i + 1) % n) {
    const next = closed || i + 1 < n ? links[(i + 1) % n]!.piece : undefined;
    if (!next || !runsOn(links[i]!.piece, next)) break;
    afters.push(next);
  }
  const made = filletInRun(befores, afters, cut.rounds);
  return made.ok ? done({ ...made.value, corner: cutOf(made.value.corner) }) : made;
};

/** On which side of a contour's path the cutter moves: inside holes, outside outlines; 1 left, -1 right. */
export const freeSide = (drawing: Drawing, id: Id): Outcome<1 | -1> => {
  const entity = entityOf(drawing, id);
  if (entity?.kind !== "chain" || !entity.closed) return refuse("not-closed");
  const { x, y } = entity.vertices[0]!.at;
  // only what lies round it decides its role; loose pieces may be a contour together, so they are all asked
  const round = [...cutEntities(drawing)].filter((other) => {
    if (other.kind !== "circle" && !(other.kind === "chain" && other.closed)) return true;
    const box = shapeBounds(other)!;
    return x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;
  });
  const contour = profileOf(drawing, RESOLUTION, round).contours.find(({ ids }) => ids.includes(id));
  if (!contour) return refuse("not-closed");
  const leftIsInside = enclosedArea(chainPieces(entity)) > 0;
  return done(leftIsInside === (contour.role === "inside") ? 1 : -1);
};

/** The cut that relieves an inside corner for a cutter of `radius`. */
export const reliefCut =
  (radius: number, kind: Relief, side: 1 | -1): CornerCut =>
  (before, after) =>
    relieveCorner(before, after, radius, kind, side);

/**
 * Takes a rounded corner of a chain back to the sharp one, or gives it another radius: the arc at `vertex` goes, its
 * edges run to their meeting, and with `radius` the corner is rounded anew. Links to the arc follow to the new one.
 */
export const reroundCorner = (
  drawing: Drawing,
  { id, vertex }: Ref,
  radius: number | undefined,
  link?: (draft: EditDraft, refs: readonly Ref[]) => void,
): Outcome<CornersCut> => {
  const entity = entityOf(drawing, id);
  if (entity?.kind === "piece") return reroundLoose(drawing, entity, radius, link);
  if (entity?.kind !== "chain") return refuse("chain-needed");
  const locked = refuseLocked(drawing, entity);
  if (locked) return locked;
  const links = linksOf(entity);
  const at = links.findIndex((one) => one.id === vertex);
  const n = links.length;
  const inner = entity.closed ? n > 2 : at > 0 && at < n - 1;
  if (at < 0 || !inner || links[at]!.piece.bulge === 0) return refuse("not-a-fillet");
  const [before, arc, after] = [links[(at + n - 1) % n]!, links[at]!, links[(at + 1) % n]!];
  const sharp = sharpCorner(before.piece, arc.piece, after.piece);
  if (!sharp.ok) return sharp;
  const { before: edge, after: next } = sharp.value;
  if (Math.min(pieceLength(edge), pieceLength(next)) <= RESOLUTION) return refuse("no-length", {}, edge.b);
  const rounded = radius === undefined ? undefined : filletCorner(sharp.value.before, sharp.value.after, radius);
  if (rounded && !rounded.ok) return rounded;
  const draft = draftEdit(drawing, radius === undefined ? "Sharpen" : "Change fillet", "corner");
  const slots: Link[][] = links.map((one) => [one]);
  const [p, q] = rounded ? [rounded.value.before, rounded.value.after] : [sharp.value.before, sharp.value.after];
  slots[(at + n - 1) % n] = p ? [{ ...before, piece: p }] : [];
  slots[at] = rounded ? [{ ...arc, piece: rounded.value.arc }] : [];
  slots[(at + 1) % n] = q ? [{ ...after, piece: q }] : [];
  draft[rounded ? "reshape" : "replace"]({
    ...entity,
    vertices: verticesOf(slots.flat(), entity.closed, entity.closed ? undefined : entity.vertices.at(-1)),
  });
  if (rounded) link?.(draft, [{ id, vertex: arc.id }]);
  return done({ edit: draft.finish(), count: 1, refusals: [] });
};

/** The same for a loose arc that runs on from one loose line or arc into another. */
const reroundLoose = (
  drawing: Drawing,
  arc: Entity & Piece,
  radius: number | undefined,
  link?: (draft: EditDraft, refs: readonly Ref[]) => void,
): Outcome<CornersCut> => {
  const neighbours = [arc.a, arc.b].map((at) => {
    const there = [...cutEntities(drawing)].flatMap((entity) =>
      entity.kind !== "piece" || entity.id === arc.id
        ? []
        : distance(entity.a, at) <= RESOLUTION
          ? [{ entity, turned: true }]
          : distance(entity.b, at) <= RESOLUTION
            ? [{ entity, turned: false }]
            : [],
    );
    return there.length === 1 ? there[0] : undefined;
  });
  const [p, q] = neighbours;
  if (arc.bulge === 0 || !p || !q || p.entity.id === q.entity.id) return refuse("not-a-fillet");
  const locked = refuseLocked(drawing, arc, p.entity, q.entity);
  if (locked) return locked;
  const before = p.turned ? reversePiece(p.entity) : p.entity;
  const after = q.turned ? q.entity : reversePiece(q.entity);
  if (!runsOn(before, arc) || !runsOn(arc, after)) return refuse("not-a-fillet");
  const sharp = sharpCorner(before, arc, after);
  if (!sharp.ok) return sharp;
  const rounded = radius === undefined ? undefined : filletCorner(sharp.value.before, sharp.value.after, radius);
  if (rounded && !rounded.ok) return rounded;
  const draft = draftEdit(drawing, radius === undefined ? "Sharpen" : "Change fillet", "corner");
  const edges = rounded ? rounded.value : sharp.value;
  for (const [{ entity }, piece] of [
    [p, edges.before && (p.turned ? reversePiece(edges.before) : edges.before)],
    [q, edges.after && (q.turned ? edges.after : reversePiece(edges.after))],
  ] as const)
    if (piece) draft.reshape({ ...entity, a: piece.a, b: piece.b, bulge: piece.bulge });
    else draft.remove(entity.id);
  if (rounded) draft.reshape({ ...arc, ...plainPiece(rounded.value.arc) });
  else draft.remove(arc.id);
  if (rounded) link?.(draft, [{ id: arc.id }]);
  return done({ edit: draft.finish(), count: 1, refusals: [] });
};
