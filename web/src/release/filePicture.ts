import type { PlannedContour } from "@ash-edge/core/checks";
import type { ReadShape } from "@ash-edge/core/formats";
import { readDxf } from "@ash-edge/core/formats/dxf";
import { readSvg } from "@ash-edge/core/formats/svg";
import { circleHalves, distance, type Piece } from "@ash-edge/core/geometry";
import type { MachineFile } from "@ash-edge/core/release";
import { pictureOf, type Outline, type Thumbnail } from "../store/index.ts";

/** A point of the file is shown as a small ring: this part of what is shown. */
const POINT = 0.008;
/** Ends of pieces of one contour that were read again lie this near, as a part of what is shown. */
const JOINED = 1e-6;

/** The picture of what a machine's file holds, from its text as it is read again. */
export const filePicture = ({ format, shapes, roles }: MachineFile, text: string): Thumbnail | undefined => {
  const read = format === "SVG" ? readSvg(text) : readDxf(new TextEncoder().encode(text));
  if (!read.ok) return undefined;
  // what is what stands with the shapes that were written, in the same order on each layer
  const left = new Map<string, PlannedContour["role"][]>();
  shapes.forEach(({ layer }, i) => void (left.get(layer)?.push(roles[i]!) ?? left.set(layer, [roles[i]!])));
  for (const list of left.values()) list.reverse();
  const plain = read.value.shapes.map((shape) => outline(shape, left.get(shape.layer)?.pop() ?? "mark"));
  const [, , width = 1, height = 1] = pictureOf(plain)?.box ?? [];
  const size = Math.max(width, height);
  const points = read.value.shapes.flatMap((shape): readonly Outline[] =>
    shape.kind === "point"
      ? [{ kind: "inside", pieces: circleHalves({ centre: shape.at, radius: POINT * size }), closed: true }]
      : [],
  );
  return pictureOf([...joined(plain, JOINED * size), ...points]);
};

const outline = (shape: ReadShape, kind: Outline["kind"]): Outline => {
  if (shape.kind === "circle") return { kind, pieces: circleHalves(shape), closed: true };
  if (shape.kind === "chain") return { kind, pieces: shape.pieces, closed: shape.closed };
  return { kind, pieces: shape.kind === "piece" ? [shape] : [], closed: false };
};

/** Pieces by themselves that go on into the next are one outline again, so that it can be filled. */
const joined = (outlines: readonly Outline[], within: number): readonly Outline[] => {
  const made: { kind: Outline["kind"]; pieces: Piece[]; closed: boolean }[] = [];
  for (const { kind, pieces, closed } of outlines) {
    const last = made.at(-1);
    const end = last?.pieces.at(-1)?.b;
    const goesOn =
      last && end && pieces[0] && !last.closed && !closed && last.kind === kind && distance(end, pieces[0].a) <= within;
    if (!goesOn) made.push({ kind, pieces: [...pieces], closed });
    else {
      for (const piece of pieces) last.pieces.push(piece);
      last.closed = distance(pieces.at(-1)!.b, last.pieces[0]!.a) <= within;
    }
  }
  return made;
};
