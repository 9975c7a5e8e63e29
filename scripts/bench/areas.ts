import type { MainModule, PathsD } from "clipper2-wasm/dist/clipper2z.js";
import ArrayList from "jsts/java/util/ArrayList.js";
import Coordinate from "jsts/org/locationtech/jts/geom/Coordinate.js";
import GeometryFactory from "jsts/org/locationtech/jts/geom/GeometryFactory.js";
import UnaryUnionOp from "jsts/org/locationtech/jts/operation/union/UnaryUnionOp.js";
import { createRequire } from "node:module";
import { combine } from "@ash-edge/core/arrangement";
import { enclosedArea } from "@ash-edge/core/contour";
import { circleHalves, type Piece } from "@ash-edge/core/geometry";
import { polygon, randomFrom, roundedCorners } from "../../core/src/testing/contours.ts";
import { flattened } from "../../core/src/testing/flattened.ts";
import { race, say, table } from "./report.ts";

const united = (...asked: Parameters<typeof combine>) => {
  const made = combine(...asked);
  if (!made.ok) throw new Error(made.refusal.code);
  return made.value;
};

/** Polygon libraries get arcs as chords within this. */
const CHORD = 1e-4;

/** Rounds before it counts: what is measured is what a drafter at work meets. */
const WARM = 8;
const loadClipper = createRequire(import.meta.url)("clipper2-wasm/dist/umd/clipper2z.js") as () => Promise<MainModule>;

/** Areas united and taken away, ours and theirs, with the areas that come out. */
export const areas = async (): Promise<void> => {
  const clipper = await loadClipper();
  const factory = new GeometryFactory();
  const random = randomFrom(11);
  const shapes = Array.from({ length: 200 }, (_, i): readonly Piece[] => {
    const [x, y] = [100 * random(), 100 * random()];
    if (i % 2) return circleHalves({ centre: { x, y }, radius: 3 + 5 * random() });
    return roundedCorners(
      [
        { x, y },
        { x: x + 12, y },
        { x: x + 12, y: y + 8 },
        { x, y: y + 8 },
      ],
      0.5,
    );
  });
  const pathsOf = (all: readonly (readonly Piece[])[]): PathsD => {
    const paths: PathsD = new clipper.PathsD();
    for (const pieces of all)
      paths.push_back(
        clipper.MakePathD(pieces.flatMap((piece) => flattened(piece, CHORD)).flatMap(({ x, y }) => [x, y])),
      );
    return paths;
  };
  const ringOf = (pieces: readonly Piece[]) => {
    const ring = pieces.flatMap((piece) => flattened(piece, CHORD)).map(({ x, y }) => new Coordinate(x, y));
    return factory.createPolygon(factory.createLinearRing([...ring, ring[0]!]), []);
  };
  const found: Record<string, number> = {};
  const areaOf = (loops: readonly { readonly pieces: readonly Piece[] }[]): number =>
    loops.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0);
  const paths = pathsOf(shapes);
  const rings = shapes.map(ringOf);
  table(
    "200 discs and rounded rectangles united",
    race(
      {
        ours: () =>
          void (found.ours = areaOf(
            united(
              shapes.map((one) => [one]),
              "unite",
            ),
          )),
        [`clipper2-wasm, chords within ${CHORD}`]: () => {
          const made = clipper.UnionSelfD(paths, clipper.FillRule.NonZero, 6);
          found["clipper2-wasm"] = clipper.AreaPathsD(made);
          made.delete();
        },
        [`jsts, chords within ${CHORD}`]: () => {
          const list = new ArrayList([]);
          for (const ring of rings) list.add(ring);
          found.jsts = UnaryUnionOp.union(list).getArea() as number;
        },
      },
      5,
      WARM,
    ),
  );
  say(
    `\nAreas: ${Object.entries(found)
      .map(([who, area]) => `${who} ${area.toFixed(4)}`)
      .join(", ")}.`,
  );
  const plate = polygon([
    [0, 0],
    [250, 0],
    [250, 200],
    [0, 200],
  ]);
  const holes = Array.from({ length: 500 }, (_, i) =>
    circleHalves({ centre: { x: (i % 25) * 10 + 5, y: Math.floor(i / 25) * 10 + 5 }, radius: 3 + random() }),
  );
  const [outer, inner] = [pathsOf([plate]), pathsOf(holes)];
  table(
    "a plate less 500 holes",
    race(
      {
        ours: () => void (found.ours = areaOf(united([[plate], ...holes.map((hole) => [hole])], "take-away"))),
        [`clipper2-wasm, chords within ${CHORD}`]: () => {
          const made = clipper.DifferenceD(outer, inner, clipper.FillRule.NonZero, 6);
          found["clipper2-wasm"] = clipper.AreaPathsD(made);
          made.delete();
        },
      },
      5,
      WARM,
    ),
  );
  say(`\nAreas: ours ${found.ours!.toFixed(4)}, clipper2-wasm ${found["clipper2-wasm"]!.toFixed(4)}.`);
};
