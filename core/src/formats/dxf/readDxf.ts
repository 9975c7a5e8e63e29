import { arcBetween, type Piece } from "../../geometry/piece.ts";
import { circlePoint } from "../../geometry/circle.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { toRadians } from "../../numeric/angle.ts";
import type { Unit } from "../../numeric/units.ts";
import { readTokens, type Token } from "./tokens.ts";

/** A shape read from a file, on its layer. */
export type ReadShape = { readonly layer: string } & (
  | { readonly kind: "circle"; readonly centre: { readonly x: number; readonly y: number }; readonly radius: number }
  | { readonly kind: "chain"; readonly closed: boolean; readonly pieces: readonly Piece[] }
  | ({ readonly kind: "piece" } & Piece)
  | { readonly kind: "point" }
);

export type ReadDrawing = {
  /** Undefined when the file names none, or one that is neither. */
  readonly unit: Unit | undefined;
  readonly shapes: readonly ReadShape[];
  /** What was met and not read, by its type. */
  readonly leftOut: Readonly<Record<string, number>>;
  /** Things whose numbers make no geometry: left out, with the line at which each begins. */
  readonly degenerate: readonly { readonly type: string; readonly line: number }[];
};

type DxfRecord = { readonly type: string; readonly line: number; readonly groups: readonly Token[] };

/**
 * Reads the lines, arcs, circles, polylines and points of an ASCII DXF. Everything else is counted by its type, nothing is
 * guessed. A file that can't be used is a refusal that names the line.
 */
export const readDxf = (text: string): Outcome<ReadDrawing> => {
  const tokens = readTokens(text);
  if (!tokens.ok) return tokens;
  const records = recordsOf(tokens.value);
  const from = records.findIndex(({ type, groups }) => type === "SECTION" && textOf(groups, 2) === "ENTITIES");
  if (from < 0) return refuse("dxf-no-entities");
  const to = records.findIndex(({ type }, i) => i > from && type === "ENDSEC");
  const shapes: ReadShape[] = [];
  const leftOut: Record<string, number> = {};
  const degenerate: { type: string; line: number }[] = [];
  for (const record of records.slice(from + 1, to)) {
    const read = READERS[record.type];
    const shape = read?.(record.groups);
    if (!read) leftOut[record.type] = (leftOut[record.type] ?? 0) + 1;
    else if (shape) shapes.push({ ...shape, layer: textOf(record.groups, 8) ?? "0" } as ReadShape);
    else degenerate.push({ type: record.type, line: record.line });
  }
  return done({ unit: unitOfHeader(tokens.value), shapes, leftOut, degenerate });
};

const recordsOf = (tokens: readonly Token[]): readonly DxfRecord[] => {
  const records: { type: string; line: number; groups: Token[] }[] = [];
  for (const token of tokens) {
    if (token.code === 0) records.push({ type: token.text.trim(), line: token.line, groups: [] });
    else records.at(-1)?.groups.push(token);
  }
  return records;
};

const unitOfHeader = (tokens: readonly Token[]): Unit | undefined => {
  const at = tokens.findIndex(({ code, text }) => code === 9 && text.trim() === "$INSUNITS");
  const number = Number(tokens[at + 1]?.text);
  return at < 0 ? undefined : number === 1 ? "in" : number === 4 ? "mm" : undefined;
};

const textOf = (groups: readonly Token[], code: number): string | undefined =>
  groups.find((group) => group.code === code)?.text.trim();

/** A group's number; NaN when it is missing without a default or is no number, so that it fails every check. */
const numberOf = (groups: readonly Token[], code: number, otherwise = NaN): number => {
  const text = textOf(groups, code);
  return text === undefined ? otherwise : text === "" ? NaN : Number(text);
};

const sound = (...numbers: readonly number[]): boolean =>
  numbers.every((number) => Number.isFinite(number) && Math.abs(number) <= 1e9);

type Reader = (groups: readonly Token[]) => object | undefined;

const READERS: Readonly<Record<string, Reader>> = {
  LINE: (groups) => {
    const [x, y, x2, y2] = [10, 20, 11, 21].map((code) => numberOf(groups, code)) as [number, number, number, number];
    return sound(x, y, x2, y2) ? { kind: "piece", a: { x, y }, b: { x: x2, y: y2 }, bulge: 0 } : undefined;
  },
  CIRCLE: (groups) => {
    const [x, y, radius] = [10, 20, 40].map((code) => numberOf(groups, code)) as [number, number, number];
    return sound(x, y, radius) && radius > 0 ? { kind: "circle", centre: { x, y }, radius } : undefined;
  },
  ARC: (groups) => {
    const [x, y, radius, from, to] = [10, 20, 40, 50, 51].map((code) => numberOf(groups, code)) as [
      number,
      number,
      number,
      number,
      number,
    ];
    if (!sound(x, y, radius, from, to) || radius <= 0) return undefined;
    const circle = { centre: { x, y }, radius };
    return {
      kind: "piece",
      ...arcBetween(circlePoint(circle, toRadians(from)), circlePoint(circle, toRadians(to)), circle.centre, true),
    };
  },
  POINT: (groups) => (sound(numberOf(groups, 10), numberOf(groups, 20)) ? { kind: "point" } : undefined),
  LWPOLYLINE: (groups) => {
    const vertices: { x: number; y: number; bulge: number }[] = [];
    for (const { code, text } of groups) {
      if (code === 10) vertices.push({ x: Number(text), y: NaN, bulge: 0 });
      else if (code === 20 && vertices.length > 0) vertices.at(-1)!.y = Number(text);
      else if (code === 42 && vertices.length > 0) vertices.at(-1)!.bulge = Number(text);
    }
    const closed = (numberOf(groups, 70, 0) & 1) === 1;
    if (vertices.length < 2 || !vertices.every(({ x, y, bulge }) => sound(x, y, bulge))) return undefined;
    const pieces = vertices.map(({ x, y, bulge }, i): Piece => {
      const next = vertices[(i + 1) % vertices.length]!;
      return { a: { x, y }, b: { x: next.x, y: next.y }, bulge };
    });
    return { kind: "chain", closed, pieces: closed ? pieces : pieces.slice(0, -1) };
  },
};
