import { answerCallout } from "../callouts/editCallouts.ts";
import { chamferCorner } from "../construct/cornerCuts.ts";
import { ANNOTATION_KINDS, type AnnotationKind } from "../drawing/annotation.ts";
import type { CalloutKind } from "../drawing/callout.ts";
import { annotationsOf, calloutsOf, entitiesOf, newDrawing, settingsOf, type Drawing } from "../drawing/drawing.ts";
import { applyEdit, type Edit } from "../drawing/edit.ts";
import { curvesOf, type Entity } from "../drawing/entity.ts";
import { LAYOUT_LAYER, MARK_LAYER, PROFILE_LAYER } from "../drawing/layer.ts";
import { DATUM, type Place, type Ref } from "../drawing/ref.ts";
import * as edits from "../edits/index.ts";
import { curvePoint } from "../geometry/curve.ts";
import type { Point } from "../geometry/point.ts";
import { moving, scaling, turning } from "../geometry/transform.ts";
import { indexDrawing } from "../look/drawingIndex.ts";
import type { Outcome } from "../numeric/outcome.ts";
import { profileOf } from "../profile/profile.ts";
import { propertiesOf } from "../shape/index.ts";
import type { Shape } from "../shape/shape.ts";
import { tidy } from "../tidy/tidy.ts";
import type { Random } from "./contours.ts";

type Pick = {
  readonly drawing: Drawing;
  readonly random: Random;
  readonly ref: Ref;
  readonly at: Point;
  readonly entity: Entity;
};
type Value = Edit | { readonly edit: Edit };

const one = <T>(random: Random, of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
const spread = (random: Random, size: number): number => Math.round((random() - 0.5) * 2 * size * 8) / 8;

/** Every kind of edit, made at a random place of a random thing; many are refused, as a drafter's would be. */
export const EDITS: Readonly<Record<string, (pick: Pick) => Outcome<Value> | Value | undefined>> = {
  split: ({ drawing, ref, at }) => edits.splitAt(drawing, ref, at),
  "split at crossings": ({ drawing, ref }) => edits.splitAtCrossings(indexDrawing(drawing), ref),
  divide: ({ drawing, ref, at, random }) => edits.splitInto(drawing, ref, 2 + Math.floor(random() * 3), at),
  trim: ({ drawing, ref, at }) => edits.planTrim(indexDrawing(drawing), ref, at),
  "trim along": ({ drawing, at, random }) =>
    edits.trimAlong(indexDrawing(drawing), [at, { x: at.x + spread(random, 60), y: at.y + spread(random, 60) }], "all"),
  extend: ({ drawing, ref, at }) => edits.planExtend(indexDrawing(drawing), ref, at),
  meet: (pick) => {
    const other = pickFrom(pick.drawing, pick.random);
    return other && edits.meetCurves(pick.drawing, pick, other);
  },
  fillet: ({ drawing, ref, random }) =>
    edits.cutCorners(
      drawing,
      ref.id,
      random() < 0.5 ? "all" : [ref.vertex ?? 0],
      edits.filletCut(1 + 6 * random()),
      "Fillet",
    ),
  chamfer: ({ drawing, ref, random }) =>
    edits.cutCorners(drawing, ref.id, "all", (p, q) => chamferCorner(p, q, 1 + 3 * random(), 2), "Chamfer"),
  relief: ({ drawing, ref, random }) =>
    edits.cutCorners(
      drawing,
      ref.id,
      "all",
      edits.reliefCut(2, one(random, ["bisector", "edge", "round"] as const), 1),
      "Relief",
    ),
  "loose fillet": ({ drawing, ref, entity, random }) => {
    const end = entity.kind === "piece" ? entity.b : entity.kind === "chain" ? entity.vertices[0]!.at : undefined;
    const corner = end && edits.cornerAt(indexDrawing(drawing), ref, end);
    return corner?.kind === "loose"
      ? edits.cutLooseCorner(drawing, corner, edits.filletCut(1 + 4 * random()), "Fillet")
      : undefined;
  },
  "change fillet": (pick) => ofRounded(pick, (ref) => edits.reroundCorner(pick.drawing, ref, 1 + 5 * pick.random())),
  sharpen: (pick) => ofRounded(pick, (ref) => edits.reroundCorner(pick.drawing, ref, undefined)),
  "take apart": ({ drawing, ref }) => edits.takeApart(drawing, [ref.id]),
  "open or close": ({ drawing, ref, at }) => edits.openOrClose(drawing, ref.id, at),
  "start point": ({ drawing, ref, at }) => edits.startAt(drawing, ref.id, at, false),
  direction: ({ drawing, ref, at }) => edits.startAt(drawing, ref.id, at, true),
  join: ({ drawing }) => edits.joinPieces(drawing),
  "join over gaps": ({ drawing }) => edits.joinPieces(drawing, undefined, 0.3),
  "outline on": ({ drawing, ref, entity, random }) => {
    const ends =
      entity.kind === "piece"
        ? [entity.a, entity.b]
        : entity.kind === "chain"
          ? [entity.vertices[0]!.at, entity.vertices.at(-1)!.at]
          : [];
    const at = ends.length > 0 ? one(random, ends) : undefined;
    const to = at && { x: at.x + spread(random, 30), y: at.y + spread(random, 30) + 0.5 };
    return (
      at &&
      to &&
      edits.extendOutline(drawing, { at, ref }, { a: at, b: to, bulge: random() < 0.5 ? 0 : 0.4 }, PROFILE_LAYER).edit()
    );
  },
  "give width": ({ drawing, ref, random }) =>
    edits.giveWidth(
      drawing,
      ref.id,
      { from: 2, to: 2, ends: "flat", corners: "sharp" },
      one(random, edits.WIDTH_SOURCES),
      PROFILE_LAYER,
    ),
  "arc fit": ({ drawing, ref, random }) =>
    edits.fitEntity(drawing, ref.id, { tolerance: 0.05, oneArc: random() < 0.3 }),
  smooth: ({ drawing, ref, random }) => edits.smoothEntity(drawing, ref.id, one(random, ["arcs", "free"] as const)),
  "to straight pieces": ({ drawing, ref }) => edits.straightenEntity(drawing, ref.id, 0.5),
  "keep areas": ({ drawing, at, random }) =>
    edits.keepAreas(edits.areaField(drawing, false), [{ x: at.x + 0.3, y: at.y + 0.2 }], PROFILE_LAYER, random() < 0.7),
  combine: ({ drawing, random }) => {
    const { contours } = profileOf(drawing);
    const ids = contours.flatMap((contour) => contour.ids.slice(0, 1));
    const how = one(random, ["unite", "take-away", "common"] as const);
    const two = [one(random, ids), one(random, ids)];
    if (ids.length === 0) return undefined;
    return edits.combineEntities(drawing, contours, two, how, { holes: random() < 0.5, keep: random() < 0.3 });
  },
  offset: ({ drawing, ref, random }) => {
    const what = edits.offsetWhat(indexDrawing(drawing), ref);
    return what.ok
      ? edits.offsetEdit(
          drawing,
          what.value,
          { by: spread(random, 5), bothSides: false, times: 1, corners: "round" },
          PROFILE_LAYER,
          random() < 0.6,
        )
      : undefined;
  },
  move: ({ drawing, ref, random }) =>
    edits.transformEntities(
      drawing,
      some(drawing, ref, random),
      moving({ x: spread(random, 40), y: spread(random, 40) }),
      "Move",
      "move",
    ),
  rotate: ({ drawing, ref, at, random }) =>
    edits.transformEntities(drawing, some(drawing, ref, random), turning(at, random() * 6), "Rotate", "rotate"),
  scale: ({ drawing, ref, at, random }) =>
    edits.transformEntities(drawing, some(drawing, ref, random), scaling(at, 0.5 + random()), "Scale", "scale"),
  copy: ({ drawing, ref, random }) =>
    edits.copyEntities(drawing, [ref.id], [moving({ x: spread(random, 40), y: 3 })], "Copy", "copy"),
  mirror: ({ drawing, ref, at, entity, random }) => {
    const start = entity.kind === "chain" ? entity.vertices[0]!.at : at;
    return edits.mirrorEntities(
      drawing,
      [ref.id],
      { at: start, angle: one(random, [0, Math.PI / 2, 1.1]) },
      random() < 0.6,
    );
  },
  stretch: ({ drawing, ref, entity, at, random }) => {
    const handle: Ref =
      entity.kind === "chain" ? { id: ref.id, vertex: one(random, entity.vertices).id } : { id: ref.id, place: "end" };
    return edits.stretch(
      drawing,
      [handle],
      { x: at.x + spread(random, 5), y: at.y + spread(random, 5) },
      random() < 0.5,
    );
  },
  lengthen: ({ drawing, ref, entity, random }) => {
    const end: Ref =
      entity.kind === "chain"
        ? { id: ref.id, vertex: entity.vertices.at(-1)!.id }
        : { id: ref.id, place: one(random, ["start", "end"] as const) };
    return edits.lengthenEnd(drawing, end, 3 + 40 * random());
  },
  shift: ({ drawing, ref, random }) => edits.shiftPiece(indexDrawing(drawing), ref, spread(random, 4), random() < 0.7),
  bend: ({ drawing, ref, random }) => {
    const bent = edits.bendPiece(drawing, ref, spread(random, 0.8), "Bow");
    return bent.ok ? bent.value(() => undefined) : bent;
  },
  "add a corner": ({ drawing, ref, at }) => edits.addCorner(drawing, ref, at),
  "take a corner out": ({ drawing, ref }) => edits.removeCorner(drawing, ref),
  "slide a joint": ({ drawing, ref, at }) => {
    const joint = edits.jointNear(drawing, ref.id, at);
    return joint === undefined ? undefined : edits.slideJoint(drawing, ref.id, joint, { x: at.x + 2, y: at.y + 1 });
  },
  property: ({ drawing, ref, entity, random }) => {
    const properties = propertiesOf(entity, ref.vertex);
    if (properties.length === 0) return undefined;
    const { name, value } = one(random, properties);
    return edits.changeProperty(drawing, [ref.id], name, value + 1 + 3 * random(), ref.vertex);
  },
  remove: ({ drawing, ref }) => edits.removeEntities(drawing, [ref.id]),
  "clear layout": ({ drawing }) => edits.clearLayout(drawing),
  "to layer": ({ drawing, ref, random }) =>
    edits.putOnLayer(drawing, [ref.id], one(random, [PROFILE_LAYER, MARK_LAYER])),
  tidy: ({ drawing, random }) => {
    const things = edits.tidyThings(drawing);
    const tolerance = settingsOf(drawing).joinTolerance;
    const result = tidy(things, {
      tolerance,
      ignore: new Set(),
      sharedEdges: one(random, ["keep", "drop", "merge"] as const),
    });
    return edits.tidyEdit(drawing, things, result, "Tidy");
  },
};

/** The first rounded piece of any chain of which something can be made. */
const ofRounded = ({ drawing }: Pick, make: (ref: Ref) => Outcome<Value>): Outcome<Value> | undefined => {
  for (const { id, ...shape } of entitiesOf(drawing))
    if (shape.kind === "chain")
      for (const vertex of shape.vertices) {
        const made = vertex.bulge === 0 ? undefined : make({ id, vertex: vertex.id });
        if (made?.ok) return made;
      }
  return undefined;
};

const some = (drawing: Drawing, { id }: Ref, random: Random): readonly number[] => [
  id,
  ...[...entitiesOf(drawing)].filter((entity) => entity.id !== id && random() < 0.2).map((entity) => entity.id),
];

/** A random curve of a drawing, and a place on it. */
export const pickFrom = (drawing: Drawing, random: Random): Pick | undefined => {
  const all = [...entitiesOf(drawing)];
  const entity = all.length > 0 ? one(random, all) : undefined;
  if (!entity) return undefined;
  const curves = curvesOf(entity);
  if (curves.length === 0) return { drawing, random, ref: { id: entity.id }, at: { x: 0, y: 0 }, entity };
  const { curve, ref } = one(random, curves);
  return { drawing, random, ref, at: curvePoint(curve, 0.1 + 0.8 * random()), entity };
};

const NAMES: readonly Place[] = [
  "start",
  "end",
  "middle",
  "centre",
  "area",
  { quarter: 0 },
  { quarter: 3 },
  { along: 0.3 },
  { along: 0.77 },
];

/** A random place of a drawing: on any kind of curve, a crossing, the datum, a layout point. */
const randomPlace = (drawing: Drawing, random: Random): Ref => {
  if (random() < 0.06) return DATUM;
  const pick = pickFrom(drawing, random)!;
  if (pick.entity.kind === "point") return pick.ref;
  const other = random() < 0.2 ? pickFrom(drawing, random) : undefined;
  if (other) return { ...pick.ref, place: { crosses: other.ref }, near: pick.at };
  const place = one(random, NAMES);
  return place === "area" ? { id: pick.ref.id, place } : { ...pick.ref, place };
};

const KINDS: readonly CalloutKind[] = [
  "length",
  "length",
  "length",
  "centres",
  "radius",
  "diameter",
  "angle",
  "count",
  "thread",
];

const linksFor = (kind: CalloutKind, drawing: Drawing, random: Random): readonly Ref[] => {
  const curve = (): Ref => pickFrom(drawing, random)!.ref;
  const place = (): Ref => (random() < 0.7 ? randomPlace(drawing, random) : curve());
  if (kind === "length" || kind === "centres") return random() < 0.4 ? [curve()] : [place(), place()];
  return kind === "angle" ? [curve(), curve()] : Array.from({ length: 1 + Math.floor(random() * 3) }, curve);
};

/** Some of every kind of thing, near one another, some of it touching, and twelve callouts on places of all kinds. */
export const randomDrawing = (random: Random): Drawing => {
  const at = (): Point => ({ x: spread(random, 60), y: spread(random, 60) });
  const from = ({ x, y }: Point): Point => ({ x: x + 4 + Math.abs(spread(random, 40)), y: y + spread(random, 30) });
  const chain = (closed: boolean, n: number): Shape => {
    const middle = at();
    const vertices = Array.from({ length: n }, (_, i) => {
      const [angle, away] = [(i * 2 * Math.PI) / n, 15 + 20 * random()];
      return {
        id: -i,
        at: { x: middle.x + away * Math.cos(angle), y: middle.y + away * Math.sin(angle) },
        bulge: random() < 0.3 ? 0.3 : 0,
      };
    });
    return {
      kind: "chain",
      closed,
      vertices: closed ? vertices : vertices.map((one, i) => (i === n - 1 ? { ...one, bulge: 0 } : one)),
    };
  };
  const [p, q] = [at(), at()];
  const [r, s] = [from(p), from(q)];
  const shapes: Shape[] = [
    { kind: "piece", a: p, b: r, bulge: 0 },
    { kind: "piece", a: from(r), b: r, bulge: random() < 0.5 ? 0 : 0.5 },
    { kind: "piece", a: q, b: s, bulge: -0.6 },
    { kind: "piece", a: q, b: s, bulge: -0.6 },
    { kind: "circle", centre: at(), radius: 5 + 20 * random() },
    { kind: "circle", centre: q, radius: 10 },
    chain(true, 4 + Math.floor(random() * 3)),
    chain(false, 4),
    {
      kind: "ellipse",
      centre: at(),
      major: { x: 20, y: 5 },
      ratio: 0.6,
      from: 0,
      sweep: random() < 0.5 ? 2 * Math.PI : 3,
    },
    { kind: "free", degree: 3, knots: [0, 0, 0, 0, 1, 1, 1, 1], points: [p, at(), at(), s] },
  ];
  let drawing = newDrawing(
    "mm",
    KINDS.map((kind, i) => ({ kind, value: 10, name: `${i}` })),
  );
  const draft = edits.draftEdit(drawing, "Draw", "draw");
  for (const shape of shapes) {
    const own =
      shape.kind === "chain"
        ? { ...shape, vertices: shape.vertices.map((one) => ({ ...one, id: draft.newId() })) }
        : shape;
    draft.add(own, PROFILE_LAYER);
  }
  draft.add({ kind: "point", at: at() }, LAYOUT_LAYER);
  drawing = applyEdit(drawing, draft.finish());
  return linkedAgain(annotatedAgain(drawing, random), random);
};

const annotationRefs = (kind: AnnotationKind, drawing: Drawing, random: Random): readonly Ref[] => {
  const curve = (): Ref => pickFrom(drawing, random)!.ref;
  const several = (make: () => Ref, least: number, most: number): readonly Ref[] =>
    Array.from({ length: least + Math.floor(random() * (most - least + 1)) }, make);
  const place = (): Ref => (random() < 0.7 ? randomPlace(drawing, random) : curve());
  if (kind === "linear") return random() < 0.4 ? [curve()] : [place(), place()];
  if (kind === "angle") return random() < 0.5 ? [curve(), curve()] : several(() => randomPlace(drawing, random), 3, 3);
  if (kind === "ordinate") return [DATUM, randomPlace(drawing, random)];
  if (kind === "note") return several(place, 0, 2);
  if (kind === "centre line") return several(place, 2, 4);
  return kind === "arc length" || kind === "thread mark" ? [curve()] : several(curve, 1, 3);
};

/** Two annotations of each kind that hold something, put on random places where there are fewer. */
export const annotatedAgain = (drawing: Drawing, random: Random): Drawing => {
  const draft = edits.draftEdit(drawing, "Annotate", "annotate");
  const standing = annotationsOf(drawing);
  for (const { id, lost } of standing) if (lost) draft.set("annotation", id, undefined);
  for (const kind of ANNOTATION_KINDS)
    for (let n = standing.filter((one) => one.kind === kind && !one.lost).length; n < 2; n++) {
      const id = draft.newId();
      const refs = annotationRefs(kind, drawing, random);
      const angle = kind === "linear" && random() < 0.5 ? { angle: (Math.floor(random() * 8) * Math.PI) / 4 } : {};
      const at = { x: random() < 0.5 ? 0 : spread(random, 20), y: spread(random, 20) };
      draft.set("annotation", id, { id, kind, refs, at, ...angle, ...(kind === "note" ? { text: "deburr" } : {}) });
    }
  return applyEdit(drawing, draft.finish());
};

/** Callouts that are not placed are put on random places again. */
export const linkedAgain = (drawing: Drawing, random: Random): Drawing =>
  calloutsOf(drawing)
    .filter(({ links }) => links.length === 0)
    .reduce((now, { id, kind }) => {
      const edit = pickFrom(now, random) && answerCallout(now, id, linksFor(kind, now, random));
      return edit ? applyEdit(now, edit) : now;
    }, drawing);

/** The edit of that name at a random place; undefined where it is refused. */
export const randomEdit = (drawing: Drawing, name: string, random: Random): Edit | undefined => {
  const pick = pickFrom(drawing, random);
  const made = pick && EDITS[name]!(pick);
  if (!made || ("ok" in made && !made.ok)) return undefined;
  const value = "ok" in made ? made.value : made;
  return "edit" in value ? value.edit : value;
};
