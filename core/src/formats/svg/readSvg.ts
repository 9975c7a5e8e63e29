import { ROUNDING } from "../../numeric/tolerance.ts";
import { parseSync, type INode } from "svgson";
import { after } from "../../geometry/transform.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { plainName } from "../../numeric/plainName.ts";
import type { Unit } from "../../numeric/units.ts";
import {
  MOST_CURVES,
  placed,
  type Affine,
  type ReadDrawing,
  type ReadGeometry,
  type ReadShape,
} from "../readShapes.ts";
import { shapesOfPath } from "./paths.ts";
import { chainOfCorners, roundedBox } from "./shapes.ts";
import { IDENTITY, transformOf } from "./transforms.ts";

/**
 * Lengths of the file's own size in millimetres, by their unit; a pixel is none: 96 to the inch is a screen's, not a
 * drawing's.
 */
const IN_MM: Readonly<Record<string, number>> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6, q: 0.25 };
const DEEPEST = 200;
/** Parsed as a whole, so a larger one would take more memory than there may be. */
const LARGEST_MB = 32;

/** Elements that hold things without drawing them. */
const NOT_DRAWN: ReadonlySet<string> = new Set([
  "defs",
  "symbol",
  "clipPath",
  "mask",
  "marker",
  "pattern",
  "title",
  "desc",
  "metadata",
  "style",
  "linearGradient",
  "radialGradient",
  "filter",
]);

/**
 * Reads an SVG: paths with all their commands, lines, polygons, rectangles, circles, ellipses, groups and uses, with
 * their transforms. y points up in the drawing. The size with its unit gives the scale; without one the unit is
 * unknown. The nearest group's name is the layer. Texts, pictures and everything else are counted; what is hidden is
 * left out, scripts are never run, and entities refused.
 */
export const readSvg = (source: string | Uint8Array): Outcome<ReadDrawing> => {
  if (source.length > LARGEST_MB * 2 ** 20) return refuse("svg-too-large", { limit: LARGEST_MB });
  const text = typeof source === "string" ? source : new TextDecoder("utf-8").decode(source);
  if (text.trim() === "") return refuse("dxf-empty");
  if (/<!ENTITY/i.test(text)) return refuse("svg-entities");
  if (text.includes("\0") || !/<svg[\s>]/i.test(text)) return refuse("svg-not-one");
  if (deepestOf(text) > DEEPEST) return refuse("svg-too-deep", { limit: DEEPEST });
  let root: INode;
  try {
    root = parseSync(text.replace(/<!DOCTYPE[^>[]*(\[[^\]]*\])?>/i, ""));
  } catch (reason) {
    return refuse("svg-damaged", { found: (reason as Error).message.split("\n")[0]!.slice(0, 80) });
  }
  if (root.name !== "svg") return refuse("svg-not-one");
  const shapes: ReadShape[] = [];
  const aside: Record<string, number> = {};
  const degenerate: { type: string; line: number }[] = [];
  let [texts, curves, invisible] = [0, 0, 0];
  const named = new Map<string, INode>();
  gather(root, named);
  const scale = scaleOf(root);
  const base: Affine = { ...IDENTITY, a: scale.factor, d: -scale.factor };
  const put = (made: readonly ReadGeometry[] | undefined, m: Affine, layer: string, type: string): void => {
    if (!made) return void degenerate.push({ type, line: shapes.length + 1 });
    for (const shape of made)
      for (const own of placed(m, shape)) {
        shapes.push({ ...own, layer });
        curves += own.kind === "chain" ? own.pieces.length : 1;
      }
  };
  const walk = (node: INode, m: Affine, layer: string, within: readonly string[]): boolean => {
    if (curves > MOST_CURVES) return false;
    const { name, attributes: own } = node;
    if (hidden(own)) {
      invisible += 1;
      return true;
    }
    const turn = transformOf(own.transform);
    if (!turn) {
      degenerate.push({ type: `transform of ${name}`, line: shapes.length + 1 });
      return true;
    }
    const placedAt = after(turn, m);
    const here = name === "g" && own.id ? plainName(unescaped(own.id)) || layer : layer;
    if (name === "svg" || name === "g" || name === "a" || name === "switch")
      return node.children.every((child) => walk(child, placedAt, here, within));
    if (name === "use") {
      const id = (own.href ?? own["xlink:href"] ?? "").replace(/^#/, "");
      const target = named.get(id);
      if (!target || within.includes(id) || within.length > DEEPEST) {
        degenerate.push({ type: "use", line: shapes.length + 1 });
        return true;
      }
      const moved = after({ ...IDENTITY, e: Number(own.x ?? 0) || 0, f: Number(own.y ?? 0) || 0 }, placedAt);
      const inner = target.name === "symbol" ? { ...target, name: "g" } : target;
      return walk(inner, moved, here, [...within, id]);
    }
    if (name === "text" || name === "tspan" || name === "textPath") texts += 1;
    else if (name === "script") aside.script = (aside.script ?? 0) + 1;
    else if (name in SHAPES) put(SHAPES[name]!(own), placedAt, here, name);
    else if (name && !NOT_DRAWN.has(name)) aside[name] = (aside[name] ?? 0) + 1;
    return true;
  };
  if (!walk(root, base, "0", [])) return refuse("file-too-many", { limit: MOST_CURVES });
  return done({ unit: scale.unit, layers: [], shapes, leftOut: {}, aside, invisible, texts, degenerate });
};

/** How deep the tags of a file lie in each other, before it is parsed: the parser follows them one inside the other. */
const deepestOf = (text: string): number => {
  let [depth, deepest] = [0, 0];
  for (const [tag] of text.matchAll(/<\/?[a-zA-Z][^>]*>/g)) {
    if (tag.startsWith("</")) depth -= 1;
    else if (!tag.endsWith("/>")) deepest = Math.max(deepest, ++depth);
  }
  return deepest;
};

/** The five characters that XML writes by name; the parser leaves them. */
const unescaped = (name: string): string =>
  name.replace(
    /&(amp|lt|gt|quot|apos);/g,
    (_, own: string) => ({ amp: "&", lt: "<", gt: ">", quot: '"', apos: "'" })[own]!,
  );

const gather = (node: INode, named: Map<string, INode>): void => {
  if (node.attributes.id) named.set(node.attributes.id, node);
  for (const child of node.children) gather(child, named);
};

const hidden = (own: Readonly<Record<string, string>>): boolean =>
  own.display === "none" ||
  own.visibility === "hidden" ||
  /display\s*:\s*none|visibility\s*:\s*hidden/.test(own.style ?? "");

/** Millimetres, or inches, for one unit of the file's coordinates, by its size and the box that it shows. */
const scaleOf = ({ attributes }: INode): { readonly factor: number; readonly unit: Unit | undefined } => {
  const found = /^\s*([\d.eE+-]+)\s*([a-zA-Z%]*)\s*$/.exec(attributes.width ?? "");
  const unit = (found?.[2] ?? "").toLowerCase();
  const mm = IN_MM[unit];
  const width = Number(found?.[1]);
  const box = (attributes.viewBox ?? "")
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const shown = box.length === 4 && box[2]! > 0 ? box[2]! : undefined;
  if (mm === undefined || !(width > 0)) return { factor: 1, unit: undefined };
  const inches = unit === "in";
  const size = inches ? width : width * mm;
  // without a box one unit is a pixel of the screen, 96 to the inch
  const factor = shown === undefined ? (inches ? 1 / 96 : 25.4 / 96) : size / shown;
  return { factor: Math.abs(factor - 1) < ROUNDING ? 1 : factor, unit: inches ? "in" : "mm" };
};

type Attributes = Readonly<Record<string, string>>;
const number = (own: Attributes, name: string, otherwise = 0): number =>
  own[name] === undefined ? otherwise : /^\s*[-+.\deE]+\s*(px)?\s*$/.test(own[name]) ? parseFloat(own[name]) : NaN;
const sound = (...values: readonly number[]): boolean =>
  values.every((value) => Number.isFinite(value) && Math.abs(value) <= 1e9);

const SHAPES: Readonly<Record<string, (own: Attributes) => readonly ReadGeometry[] | undefined>> = {
  path: (own) => (own.d?.trim() ? shapesOfPath(own.d) : []),
  line: (own) => {
    const [x, y, u, v] = ["x1", "y1", "x2", "y2"].map((name) => number(own, name)) as [number, number, number, number];
    return sound(x, y, u, v) ? [{ kind: "piece", a: { x, y }, b: { x: u, y: v }, bulge: 0 }] : undefined;
  },
  polyline: (own) => chainOfCorners(own.points ?? "", false),
  polygon: (own) => chainOfCorners(own.points ?? "", true),
  rect: (own) => {
    const [x, y, w, h] = ["x", "y", "width", "height"].map((name) => number(own, name)) as [
      number,
      number,
      number,
      number,
    ];
    const rx = number(own, "rx", number(own, "ry"));
    if (!sound(x, y, w, h, rx) || w < 0 || h < 0) return undefined;
    return w === 0 || h === 0 ? [] : roundedBox(x, y, w, h, rx, number(own, "ry", rx));
  },
  circle: (own) => {
    const [x, y, radius] = ["cx", "cy", "r"].map((name) => number(own, name)) as [number, number, number];
    if (!sound(x, y, radius) || radius < 0) return undefined;
    return radius === 0 ? [] : [{ kind: "circle", centre: { x, y }, radius }];
  },
  ellipse: (own) => {
    const [x, y, rx, ry] = ["cx", "cy", "rx", "ry"].map((name) => number(own, name)) as [
      number,
      number,
      number,
      number,
    ];
    if (!sound(x, y, rx, ry) || rx < 0 || ry < 0) return undefined;
    if (rx === 0 || ry === 0) return [];
    return placed({ ...IDENTITY, d: ry / rx, f: y - (ry / rx) * y }, { kind: "circle", centre: { x, y }, radius: rx });
  },
};
