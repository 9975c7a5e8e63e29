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
import { lengthOf } from "./numbers.ts";
import { chainOfCorners, roundedBox } from "./shapes.ts";
import { stylesOf } from "./styles.ts";
import { IDENTITY, transformOf } from "./transforms.ts";
import { fitted, viewBoxOf, type Viewport } from "./viewport.ts";

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
  let [texts, curves, invisible, clips] = [0, 0, 0, 0];
  const named = new Map<string, INode>();
  gather(root, named);
  const styles = stylesOf(root);
  const size = sizeOf(root);
  const wrong = (type: string): void => void degenerate.push({ type, line: shapes.length + 1 });
  const ignored = (what: string): void => void (aside[what] = (aside[what] ?? 0) + 1);
  const put = (made: readonly ReadGeometry[], { m, layer }: Here): void => {
    for (const shape of made)
      for (const own of placed(m, shape)) {
        shapes.push({ ...own, layer });
        curves += own.kind === "chain" ? own.pieces.length : 1;
      }
  };
  /** The place of a nested `svg`, or of a `symbol` that is used: its own corner, size and view box. */
  const inViewport = (
    own: Attributes,
    { m, viewport }: Here,
    used: Attributes = {},
  ): { m: Affine; viewport: Viewport } | undefined => {
    const of = (name: "x" | "y" | "width" | "height", otherwise: string): number =>
      lengthOf(
        used[name] ?? own[name] ?? otherwise,
        name === "x" || name === "width" ? viewport.width : viewport.height,
      );
    const [x, y, width, height] = [of("x", "0"), of("y", "0"), of("width", "100%"), of("height", "100%")];
    if (![x, y, width, height].every(Number.isFinite)) return undefined;
    const moved = after({ ...IDENTITY, e: x, f: y }, m);
    const box = viewBoxOf(own.viewBox);
    if (!box) return { m: moved, viewport: { width, height } };
    if (width <= 0 || height <= 0) return undefined;
    return {
      m: after(fitted(box, { width, height }, own.preserveAspectRatio), moved),
      viewport: { width: box[2], height: box[3] },
    };
  };
  const walk = (node: INode, here: Here): boolean => {
    if (curves > MOST_CURVES) return false;
    const { name, attributes: own } = node;
    const asked = (property: string): string | undefined => styles.valueOf(property, node, here.above);
    if (asked("display") === "none") {
      invisible += 1;
      return true;
    }
    // a child may be visible again in a group that is hidden
    const visibility = asked("visibility");
    const visible = visibility === undefined || visibility === "inherit" ? here.visible : visibility === "visible";
    const turn = transformOf(asked("transform"));
    if (!turn || (asked("transform") && asked("transform-origin"))) {
      wrong(`transform of ${name}`);
      return true;
    }
    if (asked("clip-path") !== undefined && asked("clip-path") !== "none") clips += 1;
    const next: Here = {
      ...here,
      m: after(turn, here.m),
      visible,
      layer: name === "g" && own.id ? plainName(unescaped(own.id)) || here.layer : here.layer,
      above: [...here.above, node],
    };
    const all = (children: readonly INode[], at: Here = next): boolean => children.every((child) => walk(child, at));
    if (name === "g" || name === "a") return all(node.children);
    if (name === "switch") return all(node.children.filter(({ type }) => type === "element").filter(isFirstThatSuits));
    if (name === "svg") {
      if (node === root) return all(node.children);
      const within = inViewport(own, next);
      if (within) return all(node.children, { ...next, ...within });
      wrong("svg");
      return true;
    }
    if (name === "use") {
      const id = (own.href ?? own["xlink:href"] ?? "").replace(/^#/, "");
      const target = named.get(id);
      if (!target || here.within.includes(id) || here.within.length > DEEPEST) {
        wrong("use");
        return true;
      }
      const inside = { ...next, within: [...here.within, id] };
      const moved = after(
        { ...IDENTITY, e: number(own, "x", next.viewport.width), f: number(own, "y", next.viewport.height) },
        next.m,
      );
      if (target.name !== "symbol") return walk(target, { ...inside, m: moved });
      const symbol = inViewport(target.attributes, inside, { ...own });
      if (symbol) return all(target.children, { ...inside, ...symbol, above: [...inside.above, target] });
      wrong("symbol");
      return true;
    }
    if (name === "text" || name === "tspan" || name === "textPath") texts += 1;
    else if (name === "script") ignored("script");
    else if (name in SHAPES) {
      if (!visible) invisible += 1;
      else {
        const told = { ...own };
        for (const property of GEOMETRY) {
          const value = asked(property);
          if (value !== undefined) told[property] = value;
        }
        const made = SHAPES[name]!(told, next.viewport);
        if (!made || !pointsAreWhole(own)) wrong(name);
        put(made ?? [], next);
      }
    } else if (name && !NOT_DRAWN.has(name)) ignored(name);
    return true;
  };
  const start: Here = { m: size.base, viewport: size.viewport, visible: true, layer: "0", above: [], within: [] };
  if (!walk(root, start)) return refuse("file-too-many", { limit: MOST_CURVES });
  return done({
    unit: size.unit,
    layers: [],
    shapes,
    leftOut: {},
    aside,
    invisible,
    texts,
    degenerate,
    ...(clips > 0 ? { clips } : {}),
  });
};

/** What holds for an element: where it lies, in what, and what it takes over from those above it. */
type Here = {
  readonly m: Affine;
  readonly viewport: Viewport;
  readonly visible: boolean;
  readonly layer: string;
  readonly above: readonly INode[];
  /** The ids of what is being used, outermost first. */
  readonly within: readonly string[];
};

/** Of the children of a `switch` the first whose conditions hold is drawn: nothing is required, English is spoken. */
const suits = ({ attributes: own }: INode): boolean =>
  own.requiredExtensions === undefined &&
  (own.systemLanguage === undefined || own.systemLanguage.split(",").some((one) => /^en\b/i.test(one.trim())));
const isFirstThatSuits = (node: INode, i: number, all: readonly INode[]): boolean =>
  suits(node) && !all.slice(0, i).some(suits);

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

/** How large a unit of the file is, in millimetres or inches, across and up, and what its percentages are of. */
type Size = { readonly base: Affine; readonly viewport: Viewport; readonly unit: Unit | undefined };

/** A size with its unit: how much it is in that unit's own (inches for `in`, else millimetres). */
const sizeIn = (text: string | undefined): { readonly size: number; readonly unit: Unit } | undefined => {
  const found = /^\s*([\d.eE+-]+)\s*([a-zA-Z]+)\s*$/.exec(text ?? "");
  const [unit, size] = [(found?.[2] ?? "").toLowerCase(), Number(found?.[1])];
  const mm = IN_MM[unit];
  if (mm === undefined || !(size > 0)) return undefined;
  return unit === "in" ? { size, unit: "in" } : { size: size * mm, unit: "mm" };
};

/** By the file's own size, as wide or as high as it says, and the box that it shows. */
const sizeOf = ({ attributes: own }: INode): Size => {
  const box = viewBoxOf(own.viewBox);
  const [across, up] = [sizeIn(own.width), sizeIn(own.height)];
  const unit = across?.unit ?? up?.unit;
  const flipped = (x: number, y: number): Affine => ({ ...IDENTITY, a: whole(x), d: -whole(y) });
  const viewport = box
    ? { width: box[2], height: box[3] }
    : { width: lengthOf(own.width ?? "", NaN), height: lengthOf(own.height ?? "", NaN) };
  if (unit === undefined) {
    // pixels of a screen are no size, but they can be narrower than they are high
    const pixels = [lengthOf(own.width ?? "", NaN), lengthOf(own.height ?? "", NaN)] as const;
    const stretched = box && own.preserveAspectRatio?.trim().startsWith("none") && pixels.every((size) => size > 0);
    return { base: stretched ? flipped(1, pixels[1] / box[3] / (pixels[0] / box[2])) : flipped(1, 1), viewport, unit };
  }
  const inches = (size: NonNullable<typeof across>): number =>
    size.unit === unit ? size.size : unit === "in" ? size.size / 25.4 : size.size * 25.4;
  // without a box one unit is a pixel of the screen, 96 to the inch
  if (!box) return { base: flipped((unit === "in" ? 1 : 25.4) / 96, (unit === "in" ? 1 : 25.4) / 96), viewport, unit };
  // where one is missing it follows from the other by the shape of the box
  const width = across ? inches(across) : (inches(up!) / box[3]) * box[2];
  const height = up ? inches(up) : (width / box[2]) * box[3];
  const { a, d } = fitted(box, { width, height }, own.preserveAspectRatio);
  return { base: flipped(a, d), viewport, unit };
};

const whole = (factor: number): number => (Math.abs(factor - 1) < ROUNDING ? 1 : factor);

type Attributes = Readonly<Record<string, string>>;
/** A length of an element, a percentage of what it lies in. */
const number = (own: Attributes, name: string, of: number, otherwise = 0): number =>
  own[name] === undefined ? otherwise : lengthOf(own[name], of);
const sound = (...values: readonly number[]): boolean =>
  values.every((value) => Number.isFinite(value) && Math.abs(value) <= 1e9);

/** What percentages of lengths that lie neither across nor up are of (SVG 1.1, 7.10). */
const diagonal = ({ width, height }: Viewport): number => Math.sqrt((width * width + height * height) / 2);

/** What styles may say of a shape as well as its attributes (SVG 2, 7.2 and 10). */
const GEOMETRY = ["x", "y", "cx", "cy", "r", "rx", "ry", "width", "height"] as const;

/** A list of points ends at the first that is none: what comes before is drawn, and that is told. */
const pointsAreWhole = ({ points }: Attributes): boolean =>
  points === undefined || chainOfCorners(points, false).isWhole;

const SHAPES: Readonly<Record<string, (own: Attributes, viewport: Viewport) => readonly ReadGeometry[] | undefined>> = {
  path: (own) => (own.d?.trim() ? shapesOfPath(own.d) : []),
  line: (own, { width, height }) => {
    const [x, u] = [number(own, "x1", width), number(own, "x2", width)];
    const [y, v] = [number(own, "y1", height), number(own, "y2", height)];
    return sound(x, y, u, v) ? [{ kind: "piece", a: { x, y }, b: { x: u, y: v }, bulge: 0 }] : undefined;
  },
  polyline: (own) => chainOfCorners(own.points ?? "", false).made,
  polygon: (own) => chainOfCorners(own.points ?? "", true).made,
  rect: (own, { width, height }) => {
    const [x, w] = [number(own, "x", width), number(own, "width", width)];
    const [y, h] = [number(own, "y", height), number(own, "height", height)];
    const ry = number(own, "ry", height, NaN);
    const rx = number(own, "rx", width, Number.isNaN(ry) ? 0 : ry);
    if (!sound(x, y, w, h, rx) || w < 0 || h < 0) return undefined;
    return w === 0 || h === 0 ? [] : roundedBox(x, y, w, h, rx, Number.isNaN(ry) ? rx : ry);
  },
  circle: (own, viewport) => {
    const [x, y] = [number(own, "cx", viewport.width), number(own, "cy", viewport.height)];
    const radius = number(own, "r", diagonal(viewport));
    if (!sound(x, y, radius) || radius < 0) return undefined;
    return radius === 0 ? [] : [{ kind: "circle", centre: { x, y }, radius }];
  },
  ellipse: (own, { width, height }) => {
    const [x, y] = [number(own, "cx", width), number(own, "cy", height)];
    // one that is missing is the other (SVG 2, 10.4)
    const given = [number(own, "rx", width, NaN), number(own, "ry", height, NaN)] as const;
    const [rx, ry] = [Number.isNaN(given[0]) ? given[1] : given[0], Number.isNaN(given[1]) ? given[0] : given[1]];
    if (Number.isNaN(rx)) return [];
    if (!sound(x, y, rx, ry) || rx < 0 || ry < 0) return undefined;
    if (rx === 0 || ry === 0) return [];
    return placed({ ...IDENTITY, d: ry / rx, f: y - (ry / rx) * y }, { kind: "circle", centre: { x, y }, radius: rx });
  },
};
