import { describe, expect, it } from "vitest";
import { planRelease } from "../checks/index.ts";
import { applyEdit, cutEntities, layerOf, type Drawing } from "../drawing/index.ts";
import { tidyEdit, tidyThings } from "../edits/index.ts";
import { pieceLength, piecePoint, splitPiece, type Piece } from "../geometry/piece.ts";
import { shapePieces } from "../shape/index.ts";
import { blob, polygon, randomFrom, type Random } from "../testing/contours.ts";
import { SHOWN_BY, tidy, type TidyOptions } from "../tidy/index.ts";
import { readDxf } from "./dxf/readDxf.ts";
import { writeDxf, writeShapes } from "./dxf/writeDxf.ts";
import { openDrawing } from "./openDrawing.ts";
import type { ReadDrawing, ReadShape } from "./readShapes.ts";
import { shapesOf, thingsOf } from "./readThings.ts";

const COLOURS = [undefined, "1", "3", "#1e90ff"];
const LINES = [undefined, "DASHED", "CENTER2"];
const pick = <T>(all: readonly T[], random: Random): T => all[Math.floor(all.length * random())]!;

/** A customer's file: outlines in loose bits of all colours and line styles, some twice, some with gaps and tails. */
const soup = (seed: number): string => {
  const random = randomFrom(seed);
  const outlines = [
    blob(5, 40, 0.4, random),
    polygon([
      [100, 0],
      [180, 0],
      [180, 50],
      [100, 50],
    ]),
    polygon([
      [180, 0],
      [240, 0],
      [240, 50],
      [180, 50],
    ]),
    blob(7, 20, 0.5, random).map(({ a, b, bulge }): Piece => ({
      a: { x: a.x, y: a.y + 200 },
      b: { x: b.x, y: b.y + 200 },
      bulge,
    })),
  ];
  const look = (): Pick<ReadShape, "colour" | "line"> => {
    const [colour, line] = [pick(COLOURS, random), pick(LINES, random)];
    return { ...(colour === undefined ? {} : { colour }), ...(line === undefined ? {} : { line }) };
  };
  const bits = outlines.flatMap((pieces) =>
    pieces.flatMap((piece) => (random() < 0.4 ? splitPiece(piece, 0.2 + 0.6 * random()) : [piece])),
  );
  const shapes = bits.flatMap((piece): ReadShape[] => {
    const off = random() < 0.3 ? 0.01 / pieceLength(piece) : 0;
    const own = {
      kind: "piece",
      layer: "cut",
      ...piece,
      ...(piece.bulge === 0 ? { b: piecePoint(piece, 1 - off) } : {}),
      ...look(),
    } as const;
    return random() < 0.2 ? [own, { ...own, ...look() }] : [own];
  });
  return writeShapes(
    [{ kind: "chain", layer: "plate", closed: true, pieces: outlines[0]!, ...look() }, ...shapes],
    "mm",
  );
};

const FILES = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10].map(
  (seed) => [seed, new TextEncoder().encode(soup(7919 * seed))] as const,
);
const options: TidyOptions = { tolerance: 0.05, ignore: new Set(SHOWN_BY), sharedEdges: "keep" };
const read = (bytes: Uint8Array): ReadDrawing => {
  const made = readDxf(bytes);
  if (!made.ok) throw new Error(made.refusal.code);
  return made.value;
};

type Shown = { readonly layer: string; readonly colour: string | undefined; readonly line: string | undefined };
const onPage = (drawing: Drawing): readonly (Shown & { readonly pieces: readonly Piece[] })[] =>
  cutEntities(drawing).map((entity) => ({
    layer: layerOf(drawing, entity.layer)!.name,
    colour: entity.colour,
    line: entity.line,
    pieces: (shapePieces(entity) ?? []).map(({ a, b, bulge }) => ({ a, b, bulge })),
  }));
const inFile = (shapes: readonly ReadShape[]): ReturnType<typeof onPage> =>
  onPage(openDrawing({ ...read(new TextEncoder().encode(writeShapes([], "mm"))), shapes }, "mm"));
const inOrder = <T extends { readonly pieces: readonly Piece[] }>(all: readonly T[]): readonly T[] =>
  [...all].sort((p, q) => (JSON.stringify(p) < JSON.stringify(q) ? -1 : 1));

describe("files on the page and on the command line", () => {
  it.each(FILES)("file %d is tidied to the same either way, colours and line styles too", (_, bytes) => {
    const found = read(bytes);
    const drawing = openDrawing(found, found.unit ?? "mm");
    expect(inOrder(onPage(drawing))).toEqual(inOrder(inFile(found.shapes)));
    const things = tidyThings(drawing);
    const result = tidy(things, options);
    const edit = tidyEdit(drawing, things, result, "Tidy");
    const alone = tidy(thingsOf(found).things, options);
    expect(result.findings.map(({ code, fixed }) => [code, fixed])).toEqual(
      alone.findings.map(({ code, fixed }) => [code, fixed]),
    );
    const tidied = edit ? applyEdit(drawing, edit) : drawing;
    const { rest } = thingsOf(found);
    expect(inOrder(onPage(tidied))).toEqual(inOrder(inFile([...shapesOf(alone.things), ...rest])));
  });

  it("colours and line styles are written back with the drawing's own layers, and not by role, for the machine", () => {
    const [one, two] = [1, "#1e90ff"].map((colour, i): ReadShape => ({
      kind: "chain",
      layer: i === 0 ? "plate" : "plate, large",
      closed: true,
      colour: String(colour),
      line: "CENTER2",
      pieces: polygon([
        [300 * i, 0],
        [300 * i + 100, 0],
        [300 * i + 100, 50],
      ]),
    }));
    const layers = [{ name: "plate", colour: "4", hidden: false, locked: false }];
    const found = read(new TextEncoder().encode(writeShapes([one!, two!], "mm", { layers })));
    const drawing = openDrawing(found, "mm");
    const back = (by: "own" | "role"): ReadDrawing => {
      const plan = planRelease(drawing, { layers: by });
      return read(new TextEncoder().encode(writeDxf(plan.contours, plan.unit, "R2000", plan.layers)));
    };
    const looks = ({ shapes }: ReadDrawing) => shapes.map(({ layer, colour, line }) => [layer, colour, line]).sort();
    expect(looks(back("own"))).toEqual(looks(found));
    expect(back("own").layers.find(({ name }) => name === "plate")!.colour).toBe("4");
    expect(looks(back("role"))).toEqual([
      ["OUTSIDE", undefined, undefined],
      ["OUTSIDE", undefined, undefined],
    ]);
  });

  it.each([
    ["62\n\n", undefined, undefined],
    ["62\n   \n", undefined, undefined],
    ["6\n\n", undefined, undefined],
    ["62\nabc\n", undefined, undefined],
    ["62\n-5\n", undefined, undefined],
    ["62\n256\n", undefined, undefined],
    ["62\n999999\n", undefined, undefined],
    ["62\n5.0\n", undefined, undefined],
    ["420\nxyz\n", undefined, undefined],
    [`62\n${"1".repeat(9000)}\n`, undefined, undefined],
    [`6\n${"x".repeat(9000)}\n`, undefined, "X".repeat(255)],
    ["62\n5\n420\n255\n", "#0000ff", undefined],
    ["62\n5\n", "5", undefined],
  ])("what is no colour or style opens all the same: %j", (look, colour, line) => {
    const circle = `0\nCIRCLE\n8\nplate\n${look}10\n0\n20\n0\n40\n5\n`;
    const found = read(new TextEncoder().encode(`0\nSECTION\n2\nENTITIES\n${circle}0\nENDSEC\n0\nEOF\n`));
    expect(onPage(openDrawing(found, "mm"))).toMatchObject([{ layer: "plate", colour, line }]);
  });
});
