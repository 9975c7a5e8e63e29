import {
  checkOf,
  BOOLEAN,
  ID,
  listOf,
  NUMBER,
  optional,
  POINT,
  POSITIVE,
  REFERENCE,
  TEXT,
  type Check,
  type Field,
  type Fields,
} from "../numeric/fields.ts";
import { UNITS } from "../numeric/units.ts";
import { KINDS, kindOf, shapeIds, type ShapeKind } from "../shape/index.ts";
import { ANNOTATION_KINDS, ARROWS, DENOMINATORS, LETTERING, MOST_LETTERS } from "./annotation.ts";
import { CALLOUT_KINDS } from "./callout.ts";
import type { TableName } from "./drawing.ts";
import type { Entity } from "./entity.ts";
import { CUT_ROLES } from "./layer.ts";
import { TOOL_KINDS } from "../tables/tools.ts";
import type { Place, Ref } from "./ref.ts";

/** What every entity has beside its shape. */
const BESIDE: Fields = {
  id: ID,
  layer: ID,
  line: optional({ is: "text", most: 255 }),
  colour: optional({ is: "text", most: 7 }),
  traced: optional({ is: "one of", of: [true] }),
};

/** The fields of an entity of each kind. */
const ENTITY_FIELDS = Object.fromEntries(
  Object.entries(KINDS).map(([kind, { fields }]) => [
    kind,
    { kind: { is: "one of", of: [kind] }, ...BESIDE, ...fields },
  ]),
) as unknown as Readonly<Record<ShapeKind, Fields>>;

/** What a callout says; with its id and its links it is a row. */
const CALLOUT_FIELDS: Fields = {
  kind: { is: "one of", of: CALLOUT_KINDS },
  value: NUMBER,
  thread: optional(TEXT),
  angle: optional(POSITIVE),
  other: optional(POSITIVE),
  times: optional({ is: "whole", least: 1, most: 100_000 }),
  throughout: optional({ is: "one of", of: [true] }),
  reference: optional({ is: "one of", of: [true] }),
  fit: optional(TEXT),
  axis: optional({ is: "one of", of: ["x", "y"] }),
  bound: optional({ is: "one of", of: ["max", "min"] }),
  between: optional({ is: "one of", of: [true] }),
  name: { is: "text", empty: true },
  tolerance: optional(POSITIVE),
  limits: optional({ is: "record", of: { low: NUMBER, high: NUMBER } }),
  waived: optional({
    is: "record",
    of: { reason: { is: "text", most: 300 }, on: { is: "text", most: 10 }, measured: optional(NUMBER) },
  }),
  looked: optional(NUMBER),
  pin: optional({ is: "record", of: { sketch: TEXT, x: NUMBER, y: NUMBER } }),
};

const PAPER: Field = { is: "number", least: 0, most: 20 };
const STYLE_FIELDS: Fields = {
  height: { is: "one of", of: LETTERING },
  arrow: { is: "one of", of: ARROWS },
  decimals: { is: "whole", least: 0, most: 6 },
  zeros: BOOLEAN,
  denominator: { is: "one of", of: DENOMINATORS },
  unit: BOOLEAN,
  dual: BOOLEAN,
  gap: PAPER,
  overhang: PAPER,
  sheet: optional(POSITIVE),
};
const styleCheck = checkOf(STYLE_FIELDS, () => false);

/** What is wrong with how dimensions should look, in words; undefined where it can be stored. */
export const unsoundStyle: Check = (style) => styleCheck(style);

/** The fields of the rows of each table; those of entities by their kinds. */
const ROW_FIELDS: Readonly<Record<Exclude<TableName, "entity">, Fields>> = {
  layer: {
    id: ID,
    name: TEXT,
    role: { is: "one of", of: CUT_ROLES },
    shown: BOOLEAN,
    locked: BOOLEAN,
    colour: optional({ is: "text", most: 7 }),
    order: optional({ is: "whole", least: 0, most: 1e6 }),
  },
  callout: { ...CALLOUT_FIELDS, id: ID, links: listOf(REFERENCE) },
  picture: {
    id: ID,
    blob: TEXT,
    width: POSITIVE,
    height: POSITIVE,
    at: POINT,
    scale: POSITIVE,
    angle: NUMBER,
    scaled: BOOLEAN,
    shown: BOOLEAN,
    locked: BOOLEAN,
    opacity: { is: "number", least: 0, most: 1 },
    from: optional(TEXT),
    plan: optional(listOf({ is: "record", of: { a: POINT, b: POINT } }, 0, 1000)),
  },
  annotation: {
    id: ID,
    kind: { is: "one of", of: ANNOTATION_KINDS },
    refs: listOf(REFERENCE, 0, 100_000),
    at: POINT,
    angle: optional(NUMBER),
    text: optional({ is: "text", most: MOST_LETTERS }),
    size: optional(POSITIVE),
    flipped: optional({ is: "one of", of: [true] }),
    bare: optional({ is: "one of", of: [true] }),
    callout: optional(ID),
    lost: optional(listOf(POINT, 2, 2)),
  },
  settings: {
    id: { is: "one of", of: [0] },
    unit: { is: "one of", of: UNITS },
    datum: POINT,
    joinTolerance: POSITIVE,
    left: optional(listOf({ is: "text", most: 200 })),
    generalTolerance: optional(POSITIVE),
    annotationsHidden: optional({ is: "one of", of: [true] }),
    annotationsLocked: optional({ is: "one of", of: [true] }),
    annotationStyle: optional({ is: "record", of: STYLE_FIELDS }),
    making: optional({
      is: "record",
      of: {
        tool: optional({
          is: "record",
          of: { name: TEXT, kind: { is: "one of", of: TOOL_KINDS }, diameter: POSITIVE },
        }),
        sheet: optional({ is: "record", of: { name: TEXT, width: POSITIVE, height: POSITIVE } }),
        wall: optional(POSITIVE),
      },
    }),
  },
};

const NAMED: ReadonlySet<unknown> = new Set(["start", "end", "middle", "centre", "area", "sharp"]);
const PLACE_FIELDS: Readonly<Record<string, Fields>> = {
  quarter: { quarter: { is: "one of", of: [0, 1, 2, 3] } },
  along: { along: NUMBER },
  pixel: { pixel: POINT },
  crosses: { crosses: REFERENCE },
};
const REF_FIELDS: Fields = {
  id: ID,
  vertex: optional(ID),
  place: optional(REFERENCE), // checked by itself
  near: optional(POINT),
  turned: optional({ is: "one of", of: [true] }),
};

const PLACE_CHECKS: Readonly<Record<string, Check>> = Object.fromEntries(
  Object.entries(PLACE_FIELDS).map(([name, fields]) => [name, checkOf(fields, (value) => isRef(value))]),
);

const isPlace = (value: unknown): value is Place => {
  if (typeof value !== "object" || value === null) return NAMED.has(value);
  const [name] = Object.keys(value);
  const check = name !== undefined && Object.hasOwn(PLACE_CHECKS, name) ? PLACE_CHECKS[name] : undefined;
  return check !== undefined && check(value) === undefined;
};

const refCheck = checkOf(REF_FIELDS, isPlace);

/** True for what can be stored as a reference. */
export const isRef = (value: unknown): value is Ref => refCheck(value) === undefined;

const ENTITY_CHECKS: ReadonlyMap<unknown, Check> = new Map(
  Object.entries(ENTITY_FIELDS).map(([kind, fields]) => [kind, checkOf(fields, isRef)]),
);
const ROW_CHECKS = Object.fromEntries(
  Object.entries(ROW_FIELDS).map(([table, fields]) => [table, checkOf(fields, isRef)]),
) as Readonly<Record<Exclude<TableName, "entity">, Check>>;

const newCalloutCheck = checkOf(CALLOUT_FIELDS, isRef);

/** What is wrong with a callout that has no id yet, in words; undefined where it can be added. */
export const unsoundNewCallout: Check = (callout) => newCalloutCheck(callout);

/** What is wrong with a row, in words; undefined where it can be stored and read back. */
export const unsoundRow = (table: TableName, row: unknown): string | undefined => {
  if (table !== "entity") return ROW_CHECKS[table](row);
  const kind = (row as { kind?: unknown } | null)?.kind;
  const check = ENTITY_CHECKS.get(kind);
  if (!check) return `kind ${String(kind)} is unknown`;
  return check(row) ?? kindOf(row as Entity).nonsense(row as never);
};

/** The ids that a row takes up: its own and those of its vertices. */
export const idsOfRow = (table: TableName, row: unknown): readonly number[] => {
  const { id } = row as { id: number };
  return table === "entity" ? [id, ...shapeIds(row as Entity)] : [id];
};

/** True for a row that has ids in it beside its own. */
export const hasIds = (table: TableName, row: unknown): boolean =>
  table === "entity" && shapeIds(row as Entity).length > 0;
