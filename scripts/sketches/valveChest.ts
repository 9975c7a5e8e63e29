// Job 0416, a customer's file: the joint of a valve chest, spoilt as such files are. What is wrong with it is counted
// beside it.
import type { ReadShape } from "@ash-edge/core/formats";
import { writeShapes } from "@ash-edge/core/formats/dxf";
import { arcBetween, line, partOfPiece, reversePiece, type Piece, type Point } from "@ash-edge/core/geometry";

export type Faults = Readonly<
  Record<"duplicate" | "overlap" | "fragment" | "gap" | "tail" | "stray" | "doubledLayer", number>
>;

const at = (x: number, y: number): Point => ({ x, y });

/** A rectangle with rounded corners as sides and arcs in turn, from its lower left corner. */
const rounded = (w: number, h: number, r: number, x = 0, y = 0): Piece[] => [
  line(at(x + r, y), at(x + w - r, y)),
  arcBetween(at(x + w - r, y), at(x + w, y + r), at(x + w - r, y + r), true),
  line(at(x + w, y + r), at(x + w, y + h - r)),
  arcBetween(at(x + w, y + h - r), at(x + w - r, y + h), at(x + w - r, y + h - r), true),
  line(at(x + w - r, y + h), at(x + r, y + h)),
  arcBetween(at(x + r, y + h), at(x, y + h - r), at(x + r, y + h - r), true),
  line(at(x, y + h - r), at(x, y + r)),
  arcBetween(at(x, y + r), at(x + r, y), at(x + r, y + r), true),
];

const lengthened = ({ a, b }: Piece, by: number): Piece => {
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  return line(a, at(b.x + ((b.x - a.x) / length) * by, b.y + ((b.y - a.y) / length) * by));
};

/**
 * The file, and how many of each fault are in it. A joint 180 by 120 with two ports, a slot between them and eight bolt
 * holes.
 */
export const valveChestJoint = (): { readonly dxf: string; readonly faults: Faults; readonly contours: number } => {
  const outer = rounded(180, 120, 16);
  const ports = [rounded(56, 70, 10, 22, 25), rounded(56, 70, 10, 102, 25)];
  const slot = rounded(12, 60, 6, 84, 30).filter(({ a, b }) => Math.hypot(b.x - a.x, b.y - a.y) > 1e-9);
  const holes = [14, 90, 166].flatMap((x) => [14, 106].map((y) => at(x, y))).concat([at(14, 60), at(166, 60)]);
  const [bottom, corner, right, , top] = outer as [Piece, Piece, Piece, Piece, Piece];
  const [first, second] = ports as [Piece[], Piece[]];
  const pieces: Piece[] = [
    // the outline: one side three deep, an arc twice, a side in two overlapping parts, a gap and a tail
    bottom,
    reversePiece(bottom),
    bottom,
    corner,
    reversePiece(corner),
    partOfPiece(right, 0, 0.7),
    partOfPiece(right, 0.4, 1),
    outer[3]!,
    lengthened(top, -0.03),
    outer[5]!,
    ...outer.slice(6),
    // the first port: a side in fragments, a side twice, an end that runs past
    partOfPiece(first[0]!, 0, 0.25),
    partOfPiece(first[0]!, 0.25, 0.6),
    partOfPiece(first[0]!, 0.6, 1),
    ...first.slice(1, 6),
    first[6]!,
    reversePiece(first[6]!),
    first[7]!,
    // the second port: sharp at one corner, where one side runs past the other
    ...second.slice(1, 8),
    second[0]!,
    // and a short piece on a side of it; the slot's round ends come in quarters
    partOfPiece(second[2]!, 0.3, 0.5),
    ...slot,
  ];
  const shapes: ReadShape[] = [
    ...pieces.map((piece): ReadShape => ({ kind: "piece", layer: "JOINT", ...piece })),
    ...holes.map((centre): ReadShape => ({ kind: "circle", layer: "JOINT", centre, radius: 4.5 })),
    ...holes.map((centre): ReadShape => ({ kind: "circle", layer: "OLD", centre, radius: 4.5 })),
    { kind: "circle", layer: "JOINT", centre: holes[0]!, radius: 4.5 },
    { kind: "point", layer: "JOINT", at: at(200, 10) },
  ];
  // a tag at a corner of its own: two sides that cross, each a trace too long
  const tag = [at(-30, 0), at(-12, 0), at(-12, 14), at(-30, 14)];
  const sides = tag.map((a, i) => line(a, tag[(i + 1) % 4]!));
  for (const [i, side] of sides.entries())
    shapes.push({ kind: "piece", layer: "JOINT", ...(i === 1 ? lengthened(side, 0.02) : side) });
  return {
    dxf: writeShapes(shapes, "mm"),
    faults: { duplicate: 5, overlap: 2, fragment: 3, gap: 1, tail: 1, stray: 1, doubledLayer: holes.length },
    contours: 5 + holes.length,
  };
};
