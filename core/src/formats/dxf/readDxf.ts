import { isColour } from "../../drawing/colour.ts";
import { times } from "../../geometry/point.ts";
import { after } from "../../geometry/transform.ts";
import { toRadians } from "../../numeric/angle.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { plainName } from "../../numeric/plainName.ts";
import type { Unit } from "../../numeric/units.ts";
import {
  MOST_CURVES,
  placed,
  type Affine,
  type ReadDimension,
  type ReadDrawing,
  type ReadGeometry,
  type ReadLayer,
  type ReadLeader,
  type ReadShape,
} from "../readShapes.ts";
import {
  asideBy,
  cornerOf,
  facing,
  polylineHead,
  polylineOf,
  readRecord,
  type NoShape,
  type Corner,
  type PolylineHead,
} from "./entities.ts";
import { readDimension } from "./readDimension.ts";
import { Leaders } from "./readLeaders.ts";
import { numberOf, runRecords, sound, textOf, type DxfRecord, type Groups } from "./records.ts";
import { tokensOf } from "./tokens.ts";

/**
 * `$INSUNITS` as the format's public reference has it, in millimetres each; 1 and 4 are the units that drawings have
 * here.
 */
const IN_MM: Readonly<Record<number, readonly [name: string, mm: number]>> = {
  2: ["ft", 304.8],
  3: ["mi", 1_609_344],
  5: ["cm", 10],
  6: ["m", 1000],
  7: ["km", 1_000_000],
  8: ["µin", 0.0000254],
  9: ["mil", 0.0254],
  10: ["yd", 914.4],
  11: ["Å", 1e-7],
  12: ["nm", 1e-6],
  13: ["µm", 1e-3],
  14: ["dm", 100],
  15: ["dam", 10_000],
  16: ["hm", 100_000],
  // the survey foot is 1200 / 3937 m (Mendenhall Order, 1893)
  21: ["US survey ft", 1_200_000 / 3937],
  22: ["US survey in", 100_000 / 3937],
  23: ["US survey yd", 3_600_000 / 3937],
  24: ["US survey mi", (5280 * 1_200_000) / 3937],
};

const DEEPEST = 64;

/** No drawing that anyone reads has more dimensions; what goes beyond is counted as left out. */
const MOST_DIMENSIONS = 20_000;

type Look = { readonly layer: string; readonly colour?: string; readonly line?: string };
/** A shape as it lies in its block, or a block put there. */
type Item = ReadShape | (Insert & Look);
type Insert = {
  readonly kind: "insert";
  readonly name: string;
  readonly places: readonly Affine[];
  readonly at: number;
};
type Block = {
  readonly items: Item[];
  readonly base: { readonly x: number; readonly y: number };
  readonly not: NotRead;
};

/** What makes no shape, counted. */
type NotRead = {
  texts: number;
  invisible: number;
  readonly leftOut: Record<string, number>;
  readonly aside: Record<string, number>;
  readonly degenerate: { readonly type: string; readonly line: number }[];
};
const notRead = (): NotRead => ({ texts: 0, invisible: 0, leftOut: {}, aside: {}, degenerate: [] });

const addNotRead = (sum: NotRead, more: NotRead, isFirst: boolean): void => {
  sum.texts += more.texts;
  sum.invisible += more.invisible;
  for (const [type, count] of Object.entries(more.leftOut)) sum.leftOut[type] = (sum.leftOut[type] ?? 0) + count;
  for (const [type, count] of Object.entries(more.aside)) sum.aside[type] = (sum.aside[type] ?? 0) + count;
  // each speaks of a line of the file, however often its block is put
  if (isFirst) for (const one of more.degenerate) sum.degenerate.push(one);
};

const IDENTITY: Affine = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/**
 * Reads a DXF, ASCII of any version or binary: lines, arcs, circles, polylines old and new with their bulges, ellipses,
 * splines, points, and blocks put in place (turned, mirrored, scaled, also unequally, nested, in rows). Texts and
 * everything else are counted by their type, nothing is guessed. A file that can't be used is a refusal that names the
 * line.
 */
export const readDxf = (source: string | Uint8Array): Outcome<ReadDrawing> => {
  const layers: ReadLayer[] = [];
  const styles = new Map<string, string>(); // of the layers, by their names in capitals
  const blocks = new Map<string, Block>();
  const top: Item[] = [];
  const not = notRead();
  const dimensions: ReadDimension[] = [];
  const leaders = new Leaders();
  let insunits: number | undefined;
  let sawEntities = false;
  let block: Block | undefined;
  let pending: { head: PolylineHead | NoShape; type: string; line: number; look: Look; corners: Corner[] } | undefined;

  // what a block holds counts where the block is put: that of a dimension, or one never used, is none of the drawing
  const no = (why: NoShape, { type, line }: { type: string; line: number }): void => {
    const own = block?.not ?? not;
    if (why === "text") own.texts += 1;
    else if (why === "invisible") own.invisible += 1;
    else if (why === "left out") own.leftOut[type] = (own.leftOut[type] ?? 0) + 1;
    else if (why === "aside") own.aside[type] = (own.aside[type] ?? 0) + 1;
    else own.degenerate.push({ type, line });
  };
  let curves = 0;
  const put = (made: ReadGeometry | Insert | NoShape, look: Look, from: { type: string; line: number }): void => {
    if (typeof made === "string") return no(made, from);
    curves += curvesIn(made);
    (block?.items ?? top).push(dressed(made, look));
  };
  const flush = (): void => {
    if (!pending) return;
    const { head, corners, look } = pending;
    put(typeof head === "string" ? head : polylineOf(head, corners), look, pending);
    pending = undefined;
  };

  const ran = runRecords(tokensOf(source), {
    full: () => curves + (pending?.corners.length ?? 0) > MOST_CURVES,
    header: (name, value) => {
      if (name === "$INSUNITS") insunits = Number(value);
    },
    record: (section, record) => {
      if (section === "TABLES" && record.type === "LAYER") {
        const layer = layerOf(record.groups);
        layers.push(layer);
        styles.set(layer.name.toUpperCase(), (textOf(record.groups, 6) ?? CONTINUOUS).toUpperCase());
      }
      if (section === "ENTITIES") sawEntities = true;
      if (section !== "ENTITIES" && section !== "BLOCKS") return;
      if (record.type === "VERTEX" && pending) {
        const corner = cornerOf(record.groups);
        if (corner) pending.corners.push(corner);
        return;
      }
      if (record.type === "SEQEND") return flush();
      flush();
      if (section === "BLOCKS" && record.type === "BLOCK") {
        const base = { x: numberOf(record.groups, 10, 0), y: numberOf(record.groups, 20, 0) };
        block = { items: [], base, not: notRead() };
        blocks.set((textOf(record.groups, 2) ?? "").toUpperCase(), block);
        return;
      }
      if (section === "BLOCKS" && record.type === "ENDBLK") return void (block = undefined);
      if (section === "BLOCKS" && !block) return;
      if (section === "ENTITIES") block = undefined;
      const { type, line, groups } = record;
      if (type === "DIMENSION" && section === "ENTITIES" && !asideBy(groups)) {
        const dimension = dimensions.length < MOST_DIMENSIONS ? readDimension(groups) : undefined;
        if (dimension) return void dimensions.push(dimension);
      }
      if (section === "ENTITIES" && !asideBy(groups)) {
        if (type === "LEADER" && leaders.leader(groups)) return;
        if (type === "TEXT" || type === "MTEXT") leaders.text(groups, type);
      }
      const look = lookOf(groups, styles);
      if (type === "POLYLINE") pending = { head: polylineHead(groups), type, line, look, corners: [] };
      else put(type === "INSERT" ? insertOf(record) : readRecord(record), look, record);
    },
  });
  if (!ran.ok) return ran;
  flush();
  if (!sawEntities && top.length === 0 && blocks.size === 0 && layers.length === 0 && insunits === undefined)
    return refuse("dxf-no-entities");
  if (countOf(top, blocks, new Map(), []) > MOST_CURVES) return refuse("file-too-many", { limit: MOST_CURVES });
  const shapes: ReadShape[] = [];
  place(top, IDENTITY, undefined, { blocks, shapes, not, put: new Set(), within: [] });
  const converted = insunits === undefined ? undefined : IN_MM[insunits];
  const by = converted?.[1] ?? 1;
  const led = leaders.found();
  not.texts -= led.texts;
  if (led.bare > 0) not.aside.LEADER = (not.aside.LEADER ?? 0) + led.bare;
  return done({
    unit: unitOf(insunits, converted !== undefined),
    ...(converted ? { convertedFrom: converted[0] } : {}),
    layers,
    shapes: converted ? scaled(shapes, converted[1]) : shapes,
    ...(dimensions.length > 0 ? { dimensions: dimensions.map((one) => scaledDimension(one, by)) } : {}),
    ...(led.leaders.length > 0 ? { leaders: led.leaders.map((one) => scaledLeader(one, by)) } : {}),
    ...not,
  });
};

const unitOf = (insunits: number | undefined, converted: boolean): Unit | undefined =>
  insunits === 1 ? "in" : insunits === 4 || converted ? "mm" : undefined;

const scaledDimension = (one: ReadDimension, by: number): ReadDimension => ({
  ...one,
  places: one.places.map((p) => times(p, by)),
  line: times(one.line, by),
  ...(one.text ? { text: times(one.text, by) } : {}),
});

const scaledLeader = ({ tips, line, text }: ReadLeader, by: number): ReadLeader => ({
  tips: tips.map((tip) => times(tip, by)),
  line: times(line, by),
  text,
});

const scaled = (shapes: readonly ReadShape[], by: number): readonly ReadShape[] =>
  shapes.flatMap((shape) =>
    placed({ a: by, b: 0, c: 0, d: by, e: 0, f: 0 }, shape).map((made) => dressed(made, shape)),
  );

const CONTINUOUS = "CONTINUOUS";

/**
 * Its layer; colour and line style where an entity has its own, which is not that of its layer: a palette number, or
 * `#rrggbb`.
 */
const lookOf = (groups: Groups, styles: ReadonlyMap<string, string>): Look => {
  const own = textOf(groups, 62);
  const deep = textOf(groups, 420);
  const line = textOf(groups, 6) && plainName(textOf(groups, 6)!);
  const layer = layerName(textOf(groups, 8));
  if (own === undefined && deep === undefined && line === undefined) return { layer };
  const colour = deepColour(deep) ?? (own === "0" ? own : paletteColour(own ?? ""));
  const named = line?.toUpperCase().slice(0, LONGEST_NAME) || undefined;
  const inherits = named === undefined || named === "BYLAYER" || named === "BYBLOCK";
  const style = inherits || named === (styles.get(layer.toUpperCase()) ?? CONTINUOUS) ? undefined : named;
  return { layer, ...(colour === undefined ? {} : { colour }), ...(style === undefined ? {} : { line: style }) };
};

/** Names of a DXF are no longer. */
const LONGEST_NAME = 255;

/** A number of the standard palette as a file names it; undefined for what is none (256 is the layer's). */
const paletteColour = (text: string): string | undefined => (isColour(text) ? text : undefined);

const deepColour = (text: string | undefined): string | undefined =>
  /^-?\d{1,10}$/.test(text ?? "") ? `#${(Number(text) & 0xffffff).toString(16).padStart(6, "0")}` : undefined;

/** A shape that was just made, given its look in place: copies of hundreds of thousands are what costs time here. */
const dressed = <T extends ReadGeometry | Insert>(made: T, { layer, colour, line }: Look): T & Look => {
  const own = made as T & { layer: string; colour?: string; line?: string };
  own.layer = layer;
  if (colour !== undefined) own.colour = colour;
  if (line !== undefined) own.line = line;
  return own;
};

/** Millions of things name few layers. */
const cleaned = new Map<string, string>();

const layerName = (name: string | undefined): string => {
  if (name === undefined) return "0";
  const known = cleaned.get(name);
  if (known !== undefined) return known;
  const plain = plainName(name) || "0";
  if (cleaned.size > 10_000) cleaned.clear();
  cleaned.set(name, plain);
  return plain;
};

const layerOf = (groups: Groups): ReadLayer => {
  const flags = numberOf(groups, 70, 0);
  // below 0 where it is off
  const number = textOf(groups, 62) ?? "7";
  const colour = paletteColour(number.replace(/^-/, ""));
  return {
    name: layerName(textOf(groups, 2)),
    ...(colour === undefined ? {} : { colour }),
    hidden: (flags & 1) !== 0 || number.startsWith("-"),
    locked: (flags & 4) !== 0,
  };
};

const insertOf = ({ groups, line }: DxfRecord): Insert | NoShape => {
  const aside = asideBy(groups);
  if (aside) return aside;
  const number = (code: number, otherwise: number): number => numberOf(groups, code, otherwise);
  const [x, y, sx, sy] = [number(10, NaN), number(20, NaN), number(41, 1), number(42, 1)];
  const [turn, columns, rows, dx, dy] = [number(50, 0), number(70, 1), number(71, 1), number(44, 0), number(45, 0)];
  const side = facing(groups);
  if (![x, y, sx, sy, turn, columns, rows, dx, dy].every(sound) || sx === 0 || sy === 0 || side === undefined)
    return "degenerate";
  if (!(columns >= 0 && rows >= 0) || columns * rows > MOST_CURVES) return "degenerate";
  const [c, s] = [Math.cos(toRadians(turn)), Math.sin(toRadians(turn))];
  const places: Affine[] = [];
  for (let row = 0; row < Math.max(1, rows); row++)
    for (let column = 0; column < Math.max(1, columns); column++) {
      const [px, py] = [column * dx, row * dy];
      places.push({
        a: side * c * sx,
        b: s * sx,
        c: side * -s * sy,
        d: c * sy,
        e: side * (x + c * px - s * py),
        f: y + s * px + c * py,
      });
    }
  return { kind: "insert", name: (textOf(groups, 2) ?? "").toUpperCase(), places, at: line };
};

type Into = {
  readonly blocks: ReadonlyMap<string, Block>;
  readonly shapes: ReadShape[];
  readonly not: NotRead;
  /** The blocks that were put already. */
  readonly put: Set<Block>;
  /** The blocks being put, outermost first: one that holds itself is told, not followed. */
  readonly within: readonly string[];
};

/** Puts the items of a block in place; layer 0 and colours "by block" take what the insert has. */
const place = (
  items: readonly Item[],
  m: Affine,
  by: { readonly layer: string; readonly colour?: string } | undefined,
  into: Into,
): void => {
  for (const item of items) {
    const layer = by && item.layer === "0" ? by.layer : item.layer;
    const colour = item.colour === "0" ? by?.colour : item.colour;
    if (!by && item.kind !== "insert" && colour === item.colour) {
      into.shapes.push(item);
      continue;
    }
    const look: Look = {
      layer,
      ...(colour === undefined ? {} : { colour }),
      ...(item.line === undefined ? {} : { line: item.line }),
    };
    if (item.kind !== "insert") {
      for (const made of placed(m, item)) into.shapes.push(dressed(made, look));
      continue;
    }
    const { name, places, at } = item;
    const block = into.blocks.get(name);
    if (!block || into.within.includes(name) || into.within.length >= DEEPEST) {
      into.not.degenerate.push({ type: "INSERT", line: at });
      continue;
    }
    for (const own of places) {
      addNotRead(into.not, block.not, !into.put.has(block));
      into.put.add(block);
      const { a, b, c, d, e, f } = own;
      const { x, y } = block.base;
      const based: Affine = { a, b, c, d, e: e - a * x - c * y, f: f - b * x - d * y };
      place(block.items, m === IDENTITY ? based : after(based, m), look, {
        ...into,
        within: [...into.within, name],
      });
    }
  }
};

const curvesIn = (made: ReadGeometry | Insert): number => (made.kind === "chain" ? made.pieces.length : 1);

/** How many curves items make, before any is made: rows of rows of blocks can name more than any memory holds. */
const countOf = (
  items: readonly Item[],
  blocks: ReadonlyMap<string, Block>,
  known: Map<string, number>,
  within: readonly string[],
): number =>
  items.reduce((sum, item) => {
    if (item.kind !== "insert") return sum + curvesIn(item);
    const { name, places } = item;
    const block = blocks.get(name);
    if (!block || within.includes(name) || within.length >= DEEPEST) return sum;
    const each = known.get(name) ?? countOf(block.items, blocks, known, [...within, name]);
    known.set(name, each);
    return sum + places.length * each;
  }, 0);
