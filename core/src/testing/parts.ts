import { placeOf } from "../attach/places.ts";
import { measureCallout } from "../callouts/index.ts";
import {
  applyEdit,
  calloutsOf,
  entitiesOf,
  newDrawing,
  PROFILE_LAYER,
  LAYOUT_LAYER,
  type Drawing,
} from "../drawing/index.ts";
import type { Callout } from "../drawing/callout.ts";
import { DATUM, type Ref } from "../drawing/ref.ts";
import { freeThrough } from "../construct/freeThrough.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { arcBetween, type Piece } from "../geometry/piece.ts";
import { add, distance, subtract, times, unit as unitOf, type Point } from "../geometry/point.ts";
import { transformPoint, type Similarity } from "../geometry/transform.ts";
import { unitAt } from "../numeric/angle.ts";
import type { Id } from "../numeric/id.ts";
import type { Unit } from "../numeric/units.ts";
import type { Random } from "./contours.ts";

/** A corner of an outline by its name, with the bulge of what follows. */
type Corner = Piece & { readonly name: string };

/** What a part is made of, by names: outlines of named edges, circles, points; and what its sketch calls. */
export type PartPlan = {
  readonly unit: Unit;
  readonly outlines: readonly (readonly Corner[])[];
  readonly circles: Readonly<
    Record<string, { readonly centre: Point; readonly radius: number; readonly layout?: true }>
  >;
  /** Closed free curves by the points that they go through. */
  readonly frees?: Readonly<Record<string, readonly Point[]>>;
  readonly calls: readonly Call[];
};
/** A callout by the names of what it speaks of: `edge`, `edge.start`, `circle.centre`, `datum`. */
export type Call = Pick<Callout, "kind" | "value"> &
  Partial<Pick<Callout, "axis" | "times">> & { readonly name: string; readonly of: readonly string[] };

/** A drawing of a part with its callouts linked. */
export const partOf = (plan: PartPlan): Drawing => drawn(plan, false);
/** The same in loose pieces, every other turned round. */
export const loosePart = (plan: PartPlan): Drawing => drawn(plan, true);

/** A part by its closed forms; undefined where they have no answer, as a root of less than nothing, or another. */
export const partIfAny = (plan: () => PartPlan): Drawing | undefined => {
  try {
    const drawing = partOf(plan());
    return calloutsOf(drawing).every((one) => measureCallout(drawing, one).state === "true") ? drawing : undefined;
  } catch {
    return undefined;
  }
};

const drawn = ({ unit, outlines, circles, frees = {}, calls }: PartPlan, loose: boolean): Drawing => {
  const drawing = newDrawing(unit);
  const draft = draftEdit(drawing, "Part", "part");
  const refs = new Map<string, Ref>([["datum", { id: 0 }]]);
  for (const outline of outlines) {
    if (loose) {
      outline.forEach(({ name, a, b, bulge }, i) => {
        const piece = i % 2 === 0 ? { a, b, bulge } : { a: b, b: a, bulge: -bulge };
        refs.set(name, { id: draft.add({ kind: "piece", ...piece }, PROFILE_LAYER) });
      });
      continue;
    }
    const vertices = outline.map(({ a, bulge }) => ({ id: draft.newId(), at: a, bulge }));
    const id = draft.add({ kind: "chain", closed: true, vertices }, PROFILE_LAYER);
    outline.forEach(({ name }, i) => refs.set(name, { id, vertex: vertices[i]!.id }));
  }
  for (const [name, { centre, radius, layout }] of Object.entries(circles))
    refs.set(name, { id: draft.add({ kind: "circle", centre, radius }, layout ? LAYOUT_LAYER : PROFILE_LAYER) });
  for (const [name, points] of Object.entries(frees)) {
    const made = freeThrough(points, {}, true);
    if (!made.ok) throw new Error(made.refusal.code);
    refs.set(name, { id: draft.add({ kind: "free", ...made.value }, PROFILE_LAYER) });
  }
  for (const { name, kind, value, of, axis, times: count } of calls) {
    const links = of.map((text): Ref => {
      const [thing, place] = text.split(".");
      const ref = refs.get(thing!);
      if (!ref) throw new Error(`no ${thing}`);
      return place === undefined
        ? ref
        : {
            ...ref,
            place: place.startsWith("quarter")
              ? { quarter: Number(place.at(-1)) as 0 | 1 | 2 | 3 }
              : (place as "start" | "end" | "centre" | "middle" | "sharp"),
          };
    });
    const id = draft.newId();
    draft.set("callout", id, {
      id,
      kind,
      value,
      name,
      links,
      ...(axis ? { axis } : {}),
      ...(count === undefined ? {} : { times: count }),
    });
  }
  return applyEdit(drawing, draft.finish());
};

/** True where a callout speaks as well of other things: what its own links do, or what measures what it calls. */
export const saysAsWell = (
  exact: Drawing,
  id: Id,
  { links, axis }: { readonly links: readonly Ref[]; readonly axis?: "x" | "y" },
): boolean => {
  const callout = calloutsOf(exact).find((one) => one.id === id)!;
  return (
    linksText(exact, links) === linksText(exact, callout.links) ||
    measureCallout(exact, { ...callout, links, ...(axis ? { axis } : {}) }).state === "true"
  );
};

/** What links speak of, in any order: a hole's centre and that of the boss about it are one place in an exact part. */
const linksText = (exact: Drawing, links: readonly Ref[]): string =>
  links
    .map((ref) => {
      const at = ref.place === "centre" || ref.id === DATUM.id ? placeOf(exact, ref) : undefined;
      return at ? `${Math.round(1e6 * at.x)} ${Math.round(1e6 * at.y)}` : JSON.stringify(ref);
    })
    .sort()
    .join(" ");

const named = (pieces: readonly (readonly [name: string, piece: Piece])[]): readonly Corner[] =>
  pieces.map(([name, piece]) => ({ ...piece, name }));

/** A level slot by its middle, the distance of its centres and its width. */
const slotAt = ({ x, y }: Point, centres: number, width: number): readonly Corner[] => {
  const [h, r] = [centres / 2, width / 2];
  const at = (dx: number, dy: number): Point => ({ x: x + dx, y: y + dy });
  return named([
    ["slot below", { a: at(-h, -r), b: at(h, -r), bulge: 0 }],
    ["slot right", arcBetween(at(h, -r), at(h, r), at(h, 0), true)],
    ["slot above", { a: at(h, r), b: at(-h, r), bulge: 0 }],
    ["slot left", arcBetween(at(-h, r), at(-h, -r), at(-h, 0), true)],
  ]);
};

/** The corner at `p` of the tangent line above two circles, seen from the first to the second. */
const upper = (c: Point, r: number, d: Point, s: number): readonly [Point, Point] => {
  const far = distance(c, d);
  const along = unitOf(subtract(d, c))!;
  const cos = (r - s) / far;
  const sin = Math.sqrt(1 - cos * cos);
  const n = { x: cos * along.x - sin * along.y, y: cos * along.y + sin * along.x };
  return [add(c, times(n, r)), add(d, times(n, s))];
};

/** Where two circles meet, to the left of the way from the one to the other. */
const leftMeeting = (c: Point, r: number, d: Point, s: number): Point => {
  const far = distance(c, d);
  const along = unitOf(subtract(d, c))!;
  const part = (far * far + r * r - s * s) / (2 * far);
  const off = Math.sqrt(r * r - part * part);
  return add(c, { x: part * along.x - off * along.y, y: part * along.y + off * along.x });
};

/** The rocker plate: bosses Ø a and Ø b at centres c, a tangent line above, a belly R below that both lie inside. */
export const rocker = ({
  big = 2.25,
  small = 1.5,
  centres = 6.625,
  belly = 14,
  bore = 1.1875,
  eye = 0.625,
  tap = 2.5,
} = {}): PartPlan => {
  const [c, d] = [
    { x: 0, y: 0 },
    { x: centres, y: 0 },
  ];
  const [r, s] = [big / 2, small / 2];
  const [p, q] = upper(c, r, d, s);
  const middle = leftMeeting(c, belly - r, d, belly - s);
  const [u, v] = [add(c, times(unitOf(subtract(c, middle))!, r)), add(d, times(unitOf(subtract(d, middle))!, s))];
  return {
    unit: "in",
    outlines: [
      named([
        ["big", arcBetween(p, u, c, true)],
        ["belly", arcBetween(u, v, middle, true)],
        ["small", arcBetween(v, q, d, true)],
        ["top", { a: q, b: p, bulge: 0 }],
      ]),
    ],
    circles: {
      bore: { centre: c, radius: bore / 2 },
      eye: { centre: d, radius: eye / 2 },
      tap: { centre: { x: tap, y: 0 }, radius: 5 / 32 },
    },
    calls: [
      { name: "big", kind: "diameter", value: big, of: ["big"] },
      { name: "small", kind: "diameter", value: small, of: ["small"] },
      { name: "centres", kind: "centres", value: centres, of: ["bore.centre", "eye.centre"] },
      { name: "belly", kind: "radius", value: belly, of: ["belly"] },
      { name: "bore", kind: "diameter", value: bore, of: ["bore"] },
      { name: "eye", kind: "diameter", value: eye, of: ["eye"] },
      { name: "tap", kind: "centres", value: tap, of: ["bore.centre", "tap.centre"] },
    ],
  };
};

/** The link: two low bosses R at centres c, a third above, tangent lines to it, a hollow R below that touches both. */
export const link = ({
  low = 10,
  centres = 80,
  high = 13.5,
  rise = 25.5,
  hollow = 49,
  eye = 10,
  bore = 13.5,
} = {}): PartPlan => {
  const [left, right, top] = [
    { x: -centres / 2, y: 0 },
    { x: centres / 2, y: 0 },
    { x: 0, y: rise },
  ];
  const deep = { x: 0, y: -Math.sqrt((hollow + low) ** 2 - (centres / 2) ** 2) };
  const touch = (c: Point): Point => add(c, times(unitOf(subtract(deep, c))!, low));
  const [onTop, onRight] = upper(top, high, right, low);
  const [onLeft, onTopToo] = upper(left, low, top, high);
  return {
    unit: "mm",
    outlines: [
      named([
        ["hollow", arcBetween(touch(left), touch(right), deep, false)],
        ["right", arcBetween(touch(right), onRight, right, true)],
        ["right flank", { a: onRight, b: onTop, bulge: 0 }],
        ["top", arcBetween(onTop, onTopToo, top, true)],
        ["left flank", { a: onTopToo, b: onLeft, bulge: 0 }],
        ["left", arcBetween(onLeft, touch(left), left, true)],
      ]),
    ],
    circles: {
      "left eye": { centre: left, radius: eye / 2 },
      "right eye": { centre: right, radius: eye / 2 },
      bore: { centre: top, radius: bore / 2 },
    },
    calls: [
      { name: "low", kind: "radius", value: low, of: ["left", "right"], times: 2 },
      { name: "centres", kind: "centres", value: centres, of: ["left eye.centre", "right eye.centre"] },
      { name: "high", kind: "radius", value: high, of: ["top"] },
      { name: "rise", kind: "length", value: rise, of: ["left eye.centre", "bore.centre"], axis: "y" },
      { name: "hollow", kind: "radius", value: hollow, of: ["hollow"] },
      { name: "eye", kind: "diameter", value: eye, of: ["left eye", "right eye"], times: 2 },
      { name: "bore", kind: "diameter", value: bore, of: ["bore"] },
    ],
  };
};

/** The strainer cover: a ring with three bosses on a pitch circle, blended by tangent arcs; a bore, holes, a slot. */
export const strainer = ({
  bore = 120,
  ring = 78,
  boss = 18,
  pitch = 190,
  blend = 25,
  hole = 14,
  slotWidth = 8,
  slot = 30,
  above = 69,
} = {}): PartPlan => {
  const origin = { x: 0, y: 0 };
  const middles = [0, 1, 2].map((k) => {
    const angle = ((90 + 120 * k) * Math.PI) / 180;
    return { x: (pitch / 2) * Math.cos(angle), y: (pitch / 2) * Math.sin(angle) };
  });
  const sides = middles.map((middle) => {
    const left = leftMeeting(origin, ring + blend, middle, boss + blend);
    const right = leftMeeting(middle, boss + blend, origin, ring + blend);
    const onRing = (f: Point): Point => times(f, ring / (ring + blend));
    const onBoss = (f: Point): Point => add(middle, times(subtract(f, middle), boss / (boss + blend)));
    return { middle, left, right, onRing, onBoss };
  });
  const outline = sides.flatMap(({ middle, left, right, onRing, onBoss }, k): (readonly [string, Piece])[] => {
    const next = sides[(k + 1) % 3]!;
    return [
      [`in ${k}`, arcBetween(onRing(right), onBoss(right), right, false)],
      [`boss ${k}`, arcBetween(onBoss(right), onBoss(left), middle, true)],
      [`out ${k}`, arcBetween(onBoss(left), onRing(left), left, false)],
      [`ring ${k}`, arcBetween(onRing(left), next.onRing(next.right), origin, true)],
    ];
  });
  return {
    unit: "mm",
    outlines: [named(outline), slotAt({ x: 0, y: above }, slot, slotWidth)],
    circles: {
      bore: { centre: origin, radius: bore / 2 },
      ...Object.fromEntries(middles.map((centre, k) => [`hole ${k}`, { centre, radius: hole / 2 }])),
    },
    calls: [
      { name: "bore", kind: "diameter", value: bore, of: ["bore"] },
      { name: "ring", kind: "radius", value: ring, of: ["ring 0", "ring 1", "ring 2"] },
      { name: "boss", kind: "radius", value: boss, of: ["boss 0", "boss 1", "boss 2"], times: 3 },
      { name: "pitch", kind: "diameter", value: pitch, of: ["hole 0.centre", "hole 1.centre", "hole 2.centre"] },
      { name: "blend", kind: "radius", value: blend, of: [0, 1, 2].flatMap((k) => [`in ${k}`, `out ${k}`]), times: 6 },
      { name: "hole", kind: "diameter", value: hole, of: ["hole 0", "hole 1", "hole 2"], times: 3 },
      { name: "slotWidth", kind: "length", value: slotWidth, of: ["slot below", "slot above"] },
      { name: "slot", kind: "centres", value: slot, of: ["slot left.centre", "slot right.centre"] },
      { name: "above", kind: "length", value: above, of: ["bore.centre", "slot left.centre"], axis: "y" },
    ],
  };
};

/** The bar: one full round end, two holes on its middle line. */
export const bar = ({ length = 18, width = 3.5, hole = 1.0625, first = 2 } = {}): PartPlan => {
  const x = length - width / 2;
  return {
    unit: "in",
    outlines: [
      named([
        ["below", { a: { x: 0, y: 0 }, b: { x, y: 0 }, bulge: 0 }],
        ["round", { a: { x, y: 0 }, b: { x, y: width }, bulge: 1 }],
        ["above", { a: { x, y: width }, b: { x: 0, y: width }, bulge: 0 }],
        ["end", { a: { x: 0, y: width }, b: { x: 0, y: 0 }, bulge: 0 }],
      ]),
    ],
    circles: {
      one: { centre: { x: first, y: width / 2 }, radius: hole / 2 },
      two: { centre: { x, y: width / 2 }, radius: hole / 2 },
    },
    calls: [
      { name: "length", kind: "length", value: length, of: ["end", "round.quarter0"] },
      { name: "width", kind: "length", value: width, of: ["end"] },
      { name: "hole", kind: "diameter", value: hole, of: ["one", "two"], times: 2 },
      { name: "first", kind: "length", value: first, of: ["one.centre", "end"] },
    ],
  };
};

/** The hearth stone: a bowed front with rounded corners, notched at the back, a slot with round ends. */
export const hearth = ({
  width = 1380,
  depth = 460,
  bow = 60,
  corner = 40,
  notch = 110,
  notchDeep = 75,
  slot = 160,
  slotWidth = 40,
  back = 150,
} = {}): PartPlan => {
  const h = width / 2;
  const front = (h * h + bow * bow) / (2 * bow);
  const middle = { x: 0, y: -depth - bow + front };
  const round = (side: 1 | -1): Point => {
    const x = side * (h - corner);
    return { x, y: middle.y - Math.sqrt((front - corner) ** 2 - x * x) };
  };
  const onFront = (c: Point): Point => add(middle, times(unitOf(subtract(c, middle))!, front));
  const [left, right] = [round(-1), round(1)];
  const l = (a: Point, b: Point): Piece => ({ a, b, bulge: 0 });
  const p = (x: number, y: number): Point => ({ x, y });
  return {
    unit: "mm",
    outlines: [
      named([
        ["left side", l(p(-h, -notchDeep), p(-h, left.y))],
        ["left round", arcBetween(p(-h, left.y), onFront(left), left, true)],
        ["front", arcBetween(onFront(left), onFront(right), middle, true)],
        ["right round", arcBetween(onFront(right), p(h, right.y), right, true)],
        ["right side", l(p(h, right.y), p(h, -notchDeep))],
        ["right notch", l(p(h, -notchDeep), p(h - notch, -notchDeep))],
        ["right step", l(p(h - notch, -notchDeep), p(h - notch, 0))],
        ["back", l(p(h - notch, 0), p(notch - h, 0))],
        ["left step", l(p(notch - h, 0), p(notch - h, -notchDeep))],
        ["left notch", l(p(notch - h, -notchDeep), p(-h, -notchDeep))],
      ]),
      slotAt({ x: 0, y: -back }, slot, slotWidth),
    ],
    circles: {},
    calls: [
      { name: "width", kind: "length", value: width, of: ["left side", "right side"] },
      { name: "depth", kind: "length", value: depth, of: ["back.start", "right round.sharp"], axis: "y" },
      { name: "bow", kind: "length", value: bow, of: ["right round.sharp", "front.middle"], axis: "y" },
      { name: "corner", kind: "radius", value: corner, of: ["left round", "right round"], times: 2 },
      { name: "notch", kind: "length", value: notch, of: ["right notch"] },
      { name: "notchDeep", kind: "length", value: notchDeep, of: ["right step"] },
      { name: "slot", kind: "centres", value: slot, of: ["slot left.centre", "slot right.centre"] },
      { name: "slotWidth", kind: "length", value: slotWidth, of: ["slot below", "slot above"] },
      { name: "back", kind: "length", value: back, of: ["slot left.centre", "back"] },
    ],
  };
};

/** A joint: outer and inner circle, holes round a pitch circle that is laid out. */
export const joint = ({ outer = 165, inner = 92, pitch = 130, hole = 18, count = 8 } = {}): PartPlan => {
  const origin = { x: 0, y: 0 };
  const holes = Array.from({ length: count }, (_, k): [string, { centre: Point; radius: number }] => {
    const angle = (2 * Math.PI * (k + 0.5)) / count;
    return [
      `hole ${k}`,
      { centre: { x: (pitch / 2) * Math.cos(angle), y: (pitch / 2) * Math.sin(angle) }, radius: hole / 2 },
    ];
  });
  return {
    unit: "mm",
    outlines: [],
    circles: {
      outer: { centre: origin, radius: outer / 2 },
      inner: { centre: origin, radius: inner / 2 },
      pitch: { centre: origin, radius: pitch / 2, layout: true },
      ...Object.fromEntries(holes),
    },
    calls: [
      { name: "outer", kind: "diameter", value: outer, of: ["outer"] },
      { name: "inner", kind: "diameter", value: inner, of: ["inner"] },
      { name: "pitch", kind: "diameter", value: pitch, of: ["pitch"] },
      { name: "hole", kind: "diameter", value: hole, of: holes.map(([name]) => name), times: count },
    ],
  };
};

/** A rectangle about a middle with round corners, from its lower side on. */
const rounded = (name: string, { x, y }: Point, w: number, h: number, r: number): readonly Corner[] => {
  const quarter = Math.tan(Math.PI / 8);
  const [a, b] = [w / 2, h / 2];
  const at = (dx: number, dy: number): Point => ({ x: x + dx, y: y + dy });
  const places = [
    at(r - a, -b),
    at(a - r, -b),
    at(a, r - b),
    at(a, b - r),
    at(a - r, b),
    at(r - a, b),
    at(-a, b - r),
    at(-a, r - b),
  ];
  const names = ["low", "corner 0", "right", "corner 1", "high", "corner 2", "left", "corner 3"];
  return places.map((p, i) => ({
    name: `${name} ${names[i]}`,
    a: p,
    b: places[(i + 1) % 8]!,
    bulge: i % 2 === 1 ? quarter : 0,
  }));
};
const corners = (name: string): readonly string[] => [0, 1, 2, 3].map((k) => `${name} corner ${k}`);

/** The valve chest joint: a plate with round corners, two ports, holes at its corners. */
export const chest = ({
  width = 180,
  height = 120,
  corner = 16,
  port = 56,
  portHigh = 70,
  portCorner = 10,
  apart = 76,
  hole = 9,
  holes = 156,
  holesHigh = 96,
} = {}): PartPlan => {
  const x = apart / 2;
  const spots = [
    { x: -holes / 2, y: -holesHigh / 2 },
    { x: holes / 2, y: -holesHigh / 2 },
    { x: holes / 2, y: holesHigh / 2 },
    { x: -holes / 2, y: holesHigh / 2 },
  ];
  return {
    unit: "mm",
    outlines: [
      rounded("plate", { x: 0, y: 0 }, width, height, corner),
      rounded("one", { x: -x, y: 0 }, port, portHigh, portCorner),
      rounded("two", { x, y: 0 }, port, portHigh, portCorner),
    ],
    circles: Object.fromEntries(spots.map((centre, k) => [`hole ${k}`, { centre, radius: hole / 2 }])),
    calls: [
      { name: "width", kind: "length", value: width, of: ["plate left", "plate right"] },
      { name: "height", kind: "length", value: height, of: ["plate low", "plate high"] },
      { name: "corner", kind: "radius", value: corner, of: corners("plate"), times: 4 },
      { name: "port", kind: "length", value: port, of: ["one left", "one right"] },
      { name: "portHigh", kind: "length", value: portHigh, of: ["one low", "one high"] },
      { name: "portCorner", kind: "radius", value: portCorner, of: [...corners("one"), ...corners("two")], times: 8 },
      { name: "apart", kind: "length", value: apart, of: ["one left", "two left"] },
      { name: "hole", kind: "diameter", value: hole, of: [0, 1, 2, 3].map((k) => `hole ${k}`), times: 4 },
      { name: "holes", kind: "centres", value: holes, of: ["hole 0.centre", "hole 1.centre"] },
      { name: "holesHigh", kind: "centres", value: holesHigh, of: ["hole 0.centre", "hole 3.centre"] },
    ],
  };
};

/** A clock hand: a round hub with a bore, tapering by tangent lines to a round tip. */
export const hand = ({ hub = 24, tip = 5, reach = 140, bore = 8 } = {}): PartPlan => {
  const [c, d] = [
    { x: 0, y: 0 },
    { x: 0, y: reach },
  ];
  const [r, s] = [hub / 2, tip / 2];
  const [p, q] = upper(c, r, d, s);
  const across = ({ x, y }: Point): Point => ({ x: -x, y });
  return {
    unit: "mm",
    outlines: [
      named([
        ["hub", arcBetween(p, across(p), c, true)],
        ["right", { a: across(p), b: across(q), bulge: 0 }],
        ["tip", arcBetween(across(q), q, d, true)],
        ["left", { a: q, b: p, bulge: 0 }],
      ]),
    ],
    circles: { bore: { centre: c, radius: bore / 2 } },
    calls: [
      { name: "hub", kind: "diameter", value: hub, of: ["hub"] },
      { name: "tip", kind: "diameter", value: tip, of: ["tip"] },
      { name: "reach", kind: "length", value: reach, of: ["bore.centre", "tip.centre"] },
      { name: "bore", kind: "diameter", value: bore, of: ["bore"] },
    ],
  };
};

/** The nameplate: a plate with round corners, eight tapped holes on a grid, their drill called. */
export const nameplate = ({
  width = 240,
  height = 120,
  corner = 12,
  drill = 5,
  across = 66,
  up = 90,
} = {}): PartPlan => {
  const spots = [0, 1].flatMap((row) => [0, 1, 2, 3].map((k) => ({ x: (k - 1.5) * across, y: (row - 0.5) * up })));
  return {
    unit: "mm",
    outlines: [rounded("plate", { x: 0, y: 0 }, width, height, corner)],
    circles: Object.fromEntries(spots.map((centre, k) => [`hole ${k}`, { centre, radius: drill / 2 }])),
    calls: [
      { name: "width", kind: "length", value: width, of: ["plate left", "plate right"] },
      { name: "height", kind: "length", value: height, of: ["plate low", "plate high"] },
      { name: "corner", kind: "radius", value: corner, of: corners("plate"), times: 4 },
      { name: "drill", kind: "diameter", value: drill, of: spots.map((_, k) => `hole ${k}`), times: 8 },
      ...[0, 1].map((k): Call => ({
        name: k === 0 ? "across" : `across ${k}`,
        kind: "centres",
        value: across,
        of: [`hole ${k}.centre`, `hole ${k + 1}.centre`],
      })),
      { name: "up", kind: "centres", value: up, of: ["hole 0.centre", "hole 4.centre"] },
    ],
  };
};

/** The plate with a hole in its middle, tapped M20: drilled 17.5, its thread drawn. */
export const tapped = ({ width = 40, height = 60, drill = 17.5 } = {}): PartPlan => {
  const p = (x: number, y: number): Point => ({ x, y });
  const l = (a: Point, b: Point): Piece => ({ a, b, bulge: 0 });
  const [o, a, b, c] = [p(0, 0), p(width, 0), p(width, height), p(0, height)];
  return {
    unit: "mm",
    outlines: [
      named([
        ["low", l(o, a)],
        ["right", l(a, b)],
        ["high", l(b, c)],
        ["left", l(c, o)],
      ]),
    ],
    circles: { hole: { centre: p(width / 2, height / 2), radius: drill / 2 } },
    calls: [
      { name: "width", kind: "length", value: width, of: ["low"] },
      { name: "height", kind: "length", value: height, of: ["right"] },
      { name: "drill", kind: "diameter", value: drill, of: ["hole"] },
    ],
  };
};

/** The cover: a slab, a recess above it, a straight top to a boss, a tangent line down to the base, fillets. */
export const cover = ({
  base = 7,
  bossX = 7.5,
  boss = 1.5,
  toe = 1,
  crown = 0.75,
  fillet = 0.25,
  slab = 1,
  recess = 1,
  wall = 0.5,
  deep = 2.5,
  high = 4,
} = {}): PartPlan => {
  const centre = { x: bossX, y: high - boss };
  const away = Math.hypot(centre.x - base, centre.y);
  const long = Math.sqrt(away * away - boss * boss);
  const heading = Math.atan2(centre.y, centre.x - base) - Math.asin(boss / away);
  const back = toe / Math.tan((Math.PI - heading) / 2);
  const [c, s] = [Math.cos(heading), Math.sin(heading)];
  const up = slab + recess;
  const ends: readonly (readonly [name: string, x: number, y: number, radius: number])[] = [
    ["bottom", 0, 0, 0],
    ["toe", base - back, 0, toe],
    ["flank", base + back * c, back * s, 0],
    ["boss", base + long * c, long * s, boss],
    ["top", bossX, high, 0],
    ["crown", wall + crown, high, crown],
    ["wall", wall, high - crown, 0],
    ["ledge", wall, up, 0],
    ["fillet 0", deep - fillet, up, -fillet],
    ["recess", deep, up - fillet, 0],
    ["fillet 1", deep, slab + fillet, -fillet],
    ["shelf", deep - fillet, slab, 0],
    ["end", 0, slab, 0],
  ];
  const outline = ends.map(([name, x, y, radius], i): readonly [string, Piece] => {
    const [, u, v] = ends[(i + 1) % ends.length]!;
    const [a, b] = [
      { x, y },
      { x: u, y: v },
    ];
    if (name === "boss") return [name, arcBetween(a, b, centre, true)];
    const half = radius === 0 ? 0 : Math.asin(distance(a, b) / (2 * radius));
    return [name, { a, b, bulge: Math.tan(half / 2) }];
  });
  return {
    unit: "in",
    outlines: [named(outline)],
    circles: {},
    calls: [
      { name: "base", kind: "length", value: base, of: ["bottom.start", "toe.sharp"] },
      { name: "bossX", kind: "length", value: bossX, of: ["end", "boss.centre"] },
      { name: "boss", kind: "radius", value: boss, of: ["boss"] },
      { name: "toe", kind: "radius", value: toe, of: ["toe"] },
      { name: "crown", kind: "radius", value: crown, of: ["crown"] },
      { name: "fillet", kind: "radius", value: fillet, of: ["fillet 0", "fillet 1"], times: 2 },
      { name: "slab", kind: "length", value: slab, of: ["end"] },
      { name: "recess", kind: "length", value: recess, of: ["shelf", "ledge"] },
      { name: "wall", kind: "length", value: wall, of: ["end", "wall"] },
      { name: "deep", kind: "length", value: deep, of: ["end", "recess"] },
      { name: "high", kind: "length", value: high, of: ["bottom", "top"] },
    ],
  };
};

/** The basin opening: a lopsided oval through given points, and a tap hole behind it. */
export const basin = ({ tap = 35, back = 235 } = {}): PartPlan => ({
  unit: "mm",
  outlines: [],
  circles: { tap: { centre: { x: 0, y: back }, radius: tap / 2 } },
  frees: {
    opening: [
      { x: -210, y: 0 },
      { x: -150, y: 120 },
      { x: 0, y: 165 },
      { x: 170, y: 130 },
      { x: 240, y: 10 },
      { x: 180, y: -110 },
      { x: 20, y: -150 },
      { x: -140, y: -105 },
    ],
  },
  calls: [
    { name: "tap", kind: "diameter", value: tap, of: ["tap"] },
    { name: "back", kind: "length", value: back, of: ["datum", "tap.centre"], axis: "y" },
  ],
});

/** Parts by their names: what each is made of, from what is called. A slot is called by its centres. */
export const PARTS: Readonly<Record<string, (values?: Readonly<Record<string, number>>) => PartPlan>> = {
  rocker,
  link,
  strainer,
  bar,
  hearth,
  joint,
  chest,
  hand,
  nameplate,
  tapped,
  cover,
  basin,
};

/** A rack of so many pieces, level runs joined by tangent arcs up and down, and as many holes in a row below it. */
export const rack = (pieces: number): PartPlan => {
  const periods = Math.floor((pieces - 3) / 6);
  const [run, r] = [10, 4];
  const all: (readonly [string, Piece])[] = [];
  let at: Point = { x: 0, y: 0 };
  const go = (name: string, dx: number, dy: number, bulge: number): void => {
    const b = { x: at.x + dx, y: at.y + dy };
    all.push([name, { a: at, b, bulge }]);
    at = b;
  };
  const quarter = Math.tan(Math.PI / 8);
  // counter-clockwise: along the bottom, up, and back along the toothed top
  const length = periods * (2 * run + 4 * r);
  go("bottom", length, 0, 0);
  go("right", 0, 30, 0);
  for (let k = 0; k < periods; k++) {
    go(`low ${k}`, -run, 0, 0);
    go(`a ${k}`, -r, r, -quarter);
    go(`b ${k}`, -r, r, quarter);
    go(`high ${k}`, -run, 0, 0);
    go(`c ${k}`, -r, -r, quarter);
    go(`d ${k}`, -r, -r, -quarter);
  }
  go("left", 0, -30, 0);
  const each = <T>(make: (k: number) => T, count = periods): T[] => Array.from({ length: count }, (_, k) => make(k));
  const step = length / (pieces + 1);
  return {
    unit: "mm",
    outlines: [named(all)],
    circles: Object.fromEntries(
      each(
        (k) => [`hole ${k}`, { centre: { x: (k + 1) * step, y: 15 }, radius: Math.min(2, step / 4) }] as const,
        pieces,
      ),
    ),
    calls: [
      ...each((k): Call => ({ name: `low ${k}`, kind: "length", value: run, of: [`low ${k}`] })),
      ...each((k): Call => ({ name: `high ${k}`, kind: "length", value: run, of: [`high ${k}`] })),
      {
        name: "rounds",
        kind: "radius",
        value: r,
        of: each((k) => ["a", "b", "c", "d"].map((n) => `${n} ${k}`)).flat(),
      },
      { name: "left", kind: "length", value: 30, of: ["left"] },
      ...each(
        (k): Call => ({
          name: `step ${k}`,
          kind: "centres",
          value: step,
          of: [k === 0 ? "left.start" : `hole ${k - 1}.centre`, `hole ${k}.centre`],
          axis: "x",
        }),
        pieces,
      ),
    ],
  };
};

/** What a hand makes of a drawing: turned by 3°, its places off by 2 to 5 % of what lies beside them, radii by 10 %. */
export const roughened = (drawing: Drawing, random: Random): Drawing => {
  const draft = draftEdit(drawing, "Rough", "rough");
  const turn = unitAt(((random() < 0.5 ? -3 : 3) * Math.PI) / 180);
  const off = (): number => 1 + 0.1 * (2 * random() - 1);
  const moved = ({ x, y }: Point, size: number): Point => {
    const by = times(unitAt(2 * Math.PI * random()), size * (0.02 + 0.03 * random()));
    return add({ x: turn.x * x - turn.y * y, y: turn.y * x + turn.x * y }, by);
  };
  for (const entity of entitiesOf(drawing)) {
    if (entity.kind === "circle" && entity.layer !== LAYOUT_LAYER)
      draft.reshape({ ...entity, centre: moved(entity.centre, entity.radius), radius: entity.radius * off() });
    if (entity.kind !== "chain") continue;
    const lengths = entity.vertices.map(({ at }, i) =>
      distance(at, entity.vertices[(i + 1) % entity.vertices.length]!.at),
    );
    const vertices = entity.vertices.map((vertex, i) => {
      const shorter = Math.min(lengths[i]!, lengths.at(i - 1)!);
      return { ...vertex, at: moved(vertex.at, shorter), bulge: vertex.bulge * off() };
    });
    draft.reshape({ ...entity, vertices });
  }
  return applyEdit(drawing, draft.finish());
};

/** A plan put elsewhere, scaled with its numbers; mirrored ones are left alone, as an outline would turn round. */
export const placedPlan = (plan: PartPlan, by: Similarity, scale: number): PartPlan => {
  const at = (p: Point): Point => transformPoint(by, p);
  return {
    ...plan,
    outlines: plan.outlines.map((outline) => outline.map((one) => ({ ...one, a: at(one.a), b: at(one.b) }))),
    circles: Object.fromEntries(
      Object.entries(plan.circles).map(([name, one]) => [
        name,
        { ...one, centre: at(one.centre), radius: scale * one.radius },
      ]),
    ),
    ...(plan.frees
      ? { frees: Object.fromEntries(Object.entries(plan.frees).map(([name, points]) => [name, points.map(at)])) }
      : {}),
    calls: plan.calls.map((call) => ({ ...call, value: scale * call.value })),
  };
};

/** A stepped plate whose level lengths are called three times: the whole is the sum of two. */
export const stepped = (whole: number, one: number, other: number): PartPlan => {
  const corners: readonly (readonly [string, number, number])[] = [
    ["whole", 0, 0],
    ["right", 160, 0],
    ["other", 160, 40],
    ["step", 130, 40],
    ["one", 130, 80],
    ["left", 0, 80],
  ];
  return {
    unit: "mm",
    outlines: [
      corners.map(([name, x, y], i) => {
        const next = corners[(i + 1) % corners.length]!;
        return { name, a: { x, y }, b: { x: next[1], y: next[2] }, bulge: 0 };
      }),
    ],
    circles: {},
    calls: [
      { name: "whole", kind: "length", value: whole, of: ["whole"] },
      { name: "one", kind: "length", value: one, of: ["one"] },
      { name: "other", kind: "length", value: other, of: ["other"] },
      { name: "high", kind: "length", value: 80, of: ["left"] },
    ],
  };
};
