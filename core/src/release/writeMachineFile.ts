import { compareRead, type FoundEntity } from "../formats/dxf/compareRead.ts";
import { writeShapes } from "../formats/dxf/writeDxf.ts";
import type { ReadShape, WholeShape } from "../formats/readShapes.ts";
import { compareSvg, type FoundSvg } from "../formats/svg/compareSvg.ts";
import { readSvg } from "../formats/svg/readSvg.ts";
import { writeSvg } from "../formats/svg/writeSvg.ts";
import { circleLength } from "../geometry/circle.ts";
import { pieceLength, type Piece } from "../geometry/piece.ts";
import { distance } from "../geometry/point.ts";
import { normalAngle } from "../numeric/angle.ts";
import { done, type Outcome } from "../numeric/outcome.ts";
import type { MachineFile } from "./machineFile.ts";
import { readBackDxf } from "./readBackDxf.ts";

/** So much of a layer was written, and was read back by a reader that is not ours; lengths in the file's unit. */
export type LayerTally = {
  readonly layer: string;
  readonly written: { readonly things: number; readonly length: number };
  readonly read: { readonly things: number; readonly length: number };
};

/** What an independent reader finds different in a file, in sentences; and layer by layer how much it holds. */
export type Comparison = { readonly differences: readonly string[]; readonly layers: readonly LayerTally[] };

/** A machine's file as text. */
export const machineText = ({ format, shapes, unit, layers, decimals }: MachineFile): Outcome<string> =>
  format === "SVG" ? writeSvg(shapes, unit) : done(writeShapes(shapes, unit, { version: format, layers, decimals }));

type Measured = { readonly layer: string; readonly length: number };

const lengthOf = (pieces: readonly Piece[]): number => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);

const shapeLength = (shape: ReadShape): number => {
  if (shape.kind === "circle") return circleLength(shape);
  if (shape.kind === "chain") return lengthOf(shape.pieces);
  return shape.kind === "piece" ? pieceLength(shape) : 0;
};

const foundLength = (found: FoundEntity): number => {
  switch (found.kind) {
    case "circle":
      return circleLength({ centre: found, radius: found.radius });
    case "line":
      return distance(found.a, found.b);
    case "arc":
      return found.radius * normalAngle(found.to - found.from);
    case "polyline": {
      const { vertices, closed } = found;
      const ends = closed ? vertices : vertices.slice(0, -1);
      return lengthOf(ends.map((a, i) => ({ a, b: vertices[(i + 1) % vertices.length]!, bulge: a.bulge })));
    }
    default:
      return 0;
  }
};

const tally = (written: readonly Measured[], read: readonly Measured[]): readonly LayerTally[] => {
  const names = [...new Set([...written, ...read].map(({ layer }) => layer))];
  const sum = (all: readonly Measured[], layer: string): LayerTally["read"] => {
    const own = all.filter((one) => one.layer === layer);
    return { things: own.length, length: own.reduce((total, { length }) => total + length, 0) };
  };
  return names.map((layer) => ({ layer, written: sum(written, layer), read: sum(read, layer) }));
};

const measured = (shapes: readonly ReadShape[]): readonly Measured[] =>
  shapes.map((shape) => ({ layer: shape.layer, length: shapeLength(shape) }));

/** A DXF compared with what was to be written, by a reader that is not ours. */
export const compareDxf = ({ shapes, unit, decimals }: MachineFile, text: string): Comparison => {
  const found = readBackDxf(text);
  return {
    differences: compareRead(shapes, unit, found, decimals),
    layers: tally(
      measured(shapes),
      found.entities.map((entity) => ({ layer: entity.layer, length: foundLength(entity) })),
    ),
  };
};

/** An SVG compared with what was to be written: as a browser's own engine found it, and as our reader reads it. */
export const compareMachineSvg = ({ shapes, unit }: MachineFile, text: string, found: FoundSvg): Comparison => {
  const whole = shapes.filter((one): one is WholeShape => one.kind === "circle" || one.kind === "chain");
  const read = readSvg(text);
  const differences = read.ok ? compareSvg(whole, unit, found, read.value) : ["It can’t be read again."];
  const seen = found.shapes.map((shape) => ({
    layer: shape.layer,
    length: shape.kind === "path" ? shape.length : Math.PI * (shape.box.maxX - shape.box.minX),
  }));
  return { differences, layers: tally(measured(shapes), seen) };
};
