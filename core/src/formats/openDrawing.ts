import { applyEdit, newDrawing, type CutRole, type Drawing } from "../drawing/index.ts";
import { draftEdit } from "../edits/index.ts";
import type { Id } from "../numeric/index.ts";
import type { Unit } from "../numeric/units.ts";
import type { ReadDrawing, ReadShape } from "./readShapes.ts";

/** Layers whose names say their role; the rest is cut, outside or inside by nesting. */
const ROLES: Readonly<Record<string, CutRole>> = { OUTSIDE: "outside", INSIDE: "inside", MARK: "mark", MARKS: "mark" };

/** A new drawing with everything that was read, each thing on its layer. */
export const openDrawing = (read: ReadDrawing, unit: Unit): Drawing => {
  const drawing = newDrawing(unit);
  const draft = draftEdit(drawing, "Open a file", "open");
  const layers = new Map<string, Id>();
  const layerFor = (name: string): Id => {
    const known = layers.get(name);
    if (known !== undefined) return known;
    const own = read.layers.find((layer) => layer.name === name);
    const id = draft.newId();
    layers.set(name, id);
    const role = ROLES[name.toUpperCase()] ?? "profile";
    draft.set("layer", id, { id, name, role, shown: !own?.hidden, locked: own?.locked ?? false });
    return id;
  };
  for (const shape of read.shapes) {
    const layer = layerFor(shape.layer);
    switch (shape.kind) {
      case "chain": {
        const vertices = shape.pieces.map(({ a, bulge }) => ({ id: draft.newId(), at: a, bulge }));
        if (!shape.closed) vertices.push({ id: draft.newId(), at: shape.pieces.at(-1)!.b, bulge: 0 });
        draft.add({ kind: "chain", closed: shape.closed, vertices }, layer);
        break;
      }
      default:
        draft.add(storedShape(shape), layer);
    }
  }
  return applyEdit(drawing, draft.finish());
};

/** The shape alone, without how the file showed it. */
const storedShape = (
  shape: Exclude<ReadShape, { kind: "chain" }>,
): Parameters<ReturnType<typeof draftEdit>["add"]>[0] => {
  const { layer: _, colour: __, line: ___, ...rest } = shape;
  return rest;
};

/** What came with a file and what did not, in sentences. */
export const importReport = (read: ReadDrawing): readonly string[] => {
  const counts = new Map<string, number>();
  for (const shape of read.shapes) {
    const name = shape.kind === "piece" ? (shape.bulge === 0 ? "line" : "arc") : NAMES[shape.kind];
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  const counted = (name: string, n: number): string => `${n} ${name}${n === 1 ? "" : "s"}`;
  const hidden = read.layers.filter(({ hidden: off, name }) => off && read.shapes.some(({ layer }) => layer === name));
  return [
    `${[...counts].map(([name, n]) => counted(name, n)).join(", ") || "No geometry"} on ` +
      `${counted("layer", new Set(read.shapes.map(({ layer }) => layer)).size)}.`,
    ...(read.convertedFrom ? [`Converted from ${read.convertedFrom} to mm.`] : []),
    ...(read.texts > 0 ? [`Left out: ${counted("text", read.texts)}.`] : []),
    ...Object.entries(read.leftOut).map(
      ([type, n]) => `Missing: ${n} of ${type}, geometry that can’t be read here. Ask for it as lines and arcs.`,
    ),
    ...(read.invisible > 0 ? [`Left out: ${counted("thing", read.invisible)} marked invisible in the file.`] : []),
    ...(read.clips ? [`Not applied: ${counted("clip-path", read.clips)}. What lies beyond is here, too.`] : []),
    ...Object.entries(read.aside).map(([type, n]) => `Left out: ${n} of ${type}, nothing that is cut.`),
    ...read.degenerate
      .slice(0, 5)
      .map(({ type, line }) => `${type} at line ${line} makes no geometry and was left out.`),
    ...(read.degenerate.length > 5 ? [`${read.degenerate.length - 5} more make no geometry.`] : []),
    ...hidden.map(({ name }) => `The layer ${name} is off in the file; it is hidden here, too.`),
  ];
};

const NAMES = { chain: "polyline", circle: "circle", ellipse: "ellipse", free: "spline", point: "point" } as const;
