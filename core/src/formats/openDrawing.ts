import { addAnnotations } from "../annotate/index.ts";
import { chainOfPieces } from "../contour/index.ts";
import { annotationsOf, applyEdit, newDrawing, type CutRole, type Drawing } from "../drawing/index.ts";
import { draftEdit } from "../edits/index.ts";
import type { Id } from "../numeric/index.ts";
import type { Unit } from "../numeric/units.ts";
import type { Shape } from "../shape/index.ts";
import { attachRead } from "./attachRead.ts";
import type { ReadDrawing, ReadGeometry } from "./readShapes.ts";

/** Layers whose names say their role; the rest is cut, outside or inside by nesting. */
const ROLES: Readonly<Record<string, CutRole>> = { OUTSIDE: "outside", INSIDE: "inside", MARK: "mark", MARKS: "mark" };

/** A new drawing with everything that was read, each thing on its layer, and the dimensions that lie on it. */
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
    const colour = own?.colour === undefined ? {} : { colour: own.colour };
    draft.set("layer", id, { id, name, role, shown: !own?.hidden, locked: own?.locked ?? false, ...colour });
    return id;
  };
  for (const shape of read.shapes) {
    const { layer: name, colour, line, ...geometry } = shape;
    const look = { ...(colour === undefined ? {} : { colour }), ...(line === undefined ? {} : { line }) };
    draft.add({ ...storedShape(geometry, draft.newId), ...look }, layerFor(name));
  }
  const opened = applyEdit(drawing, draft.finish());
  const held = attachRead(opened, read);
  const edit = addAnnotations(opened, held, "Open a file", "open");
  return held.length > 0 && edit.ok ? applyEdit(opened, edit.value) : opened;
};

const storedShape = (shape: ReadGeometry, newId: () => Id): Shape => {
  if (shape.kind !== "chain") return shape;
  const { pieces, closed } = shape;
  return chainOfPieces(pieces, closed, newId);
};

/** What came with a file and what did not, in sentences. */
export const importReport = (read: ReadDrawing): readonly string[] => {
  const { dimensions = [], leaders = [] } = read;
  const put = dimensions.length + leaders.length > 0 ? annotationsOf(openDrawing(read, read.unit ?? "mm")) : [];
  const notes = put.filter(({ kind }) => kind === "note").length;
  const held = put.length - notes;
  const worded = dimensions.filter((one) => one.worded).length;
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
    ...(held > 0 ? [`${counted("dimension", held)} on what they measure.`] : []),
    ...(held < dimensions.length
      ? [`Left out: ${counted("dimension", dimensions.length - held)} whose points lie on nothing that was read.`]
      : []),
    ...(notes > 0 ? [`${counted("note", notes)} on what their leaders point to.`] : []),
    ...(notes < leaders.length
      ? [
          `Left out: ${counted("note", leaders.length - notes)} whose leaders point to nothing that was read, ` +
            "or whose words can’t be shown here.",
        ]
      : []),
    ...(worded > 0
      ? [`${counted("dimension", worded)} bore a text instead of the number; here they show what they measure.`]
      : []),
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
