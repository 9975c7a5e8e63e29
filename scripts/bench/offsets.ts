import type { MainModule, PathsD } from "clipper2-wasm/dist/clipper2z.js";
import Coordinate from "jsts/org/locationtech/jts/geom/Coordinate.js";
import GeometryFactory from "jsts/org/locationtech/jts/geom/GeometryFactory.js";
import BufferOp from "jsts/org/locationtech/jts/operation/buffer/BufferOp.js";
import { createRequire } from "node:module";
import { enclosedArea } from "@ash-edge/core/contour";
import { pieceLength, circleHalves, type Piece } from "@ash-edge/core/geometry";
import { offset, offsetRegion } from "@ash-edge/core/offset";
import { blob, comb, polygon, randomFrom, traced } from "../../core/src/testing/contours.ts";
import { flattened } from "../../core/src/testing/flattened.ts";
import { race, say, table } from "./report.ts";

/** Polygon libraries get arcs as chords within this. */
const CHORD = 1e-3;

type ArcLoop = { readonly vertexes: readonly { readonly x: number; readonly y: number; readonly bulge: number }[] };
type ArcOffset = (loop: ArcLoop & { isClosed: boolean }, by: number, sharp: boolean) => readonly ArcLoop[];

const require = createRequire(import.meta.url);
const arcOffset = (require("@crhio/offset") as { default: ArcOffset }).default;
/** Rounds before it counts: what is measured is what a drafter at work meets. */
const WARM = 4;
const loadClipper = require("clipper2-wasm/dist/umd/clipper2z.js") as () => Promise<MainModule>;

const vertexes = (pieces: readonly Piece[]): ArcLoop["vertexes"] => pieces.map(({ a, bulge }) => ({ ...a, bulge }));
const chords = (pieces: readonly Piece[]) => pieces.flatMap((piece) => flattened(piece, CHORD));

const areaOf = (loops: readonly (readonly Piece[])[]): number =>
  loops.reduce((sum, loop) => sum + enclosedArea(loop), 0);
const loopPieces = ({ vertexes: all }: ArcLoop): Piece[] =>
  all.map((a, i) => ({ a, b: all[(i + 1) % all.length]!, bulge: a.bulge }));

/** Offsets inwards (above 0) and outwards, ours and theirs on the same contours, with the areas that come out. */
export const offsets = async (): Promise<void> => {
  const clipper = await loadClipper();
  const factory = new GeometryFactory();
  const work = (name: string, contours: readonly (readonly Piece[])[], by: number, arcsToo = true): void => {
    const flat = contours.map(chords);
    const rings = flat.map((points) => {
      const ring = points.map(({ x, y }) => new Coordinate(x, y));
      return factory.createLinearRing([...ring, ring[0]!]);
    });
    const polygonOf = factory.createPolygon(rings[0]!, rings.slice(1));
    const paths: PathsD = new clipper.PathsD();
    flat.forEach((points, i) => {
      const ordered = i === 0 ? points : [...points].reverse();
      paths.push_back(clipper.MakePathD(ordered.flatMap(({ x, y }) => [x, y])));
    });
    const areas: Record<string, number> = {};
    const single = contours.length === 1;
    const arcsAsWell = single && arcsToo;
    const times = race(
      {
        ours: () => {
          const runs = single
            ? offset([{ pieces: contours[0]!, closed: true }], by, { corners: "round" })
            : offsetRegion(contours, -by, { corners: "round" }).runs;
          areas.ours = areaOf(runs.map(({ pieces }) => pieces));
        },
        ...(arcsAsWell && {
          "@crhio/offset (arcs)": () => {
            areas["@crhio/offset (arcs)"] = areaOf(
              arcOffset({ vertexes: vertexes(contours[0]!), isClosed: true }, by, false).map(loopPieces),
            );
          },
        }),
        [`jsts, chords within ${CHORD}`]: () => {
          areas[`jsts, chords within ${CHORD}`] = BufferOp.bufferOp(polygonOf, -by, 32).getArea() as number;
        },
        [`clipper2-wasm, chords within ${CHORD}`]: () => {
          const made = clipper.InflatePathsD(paths, -by, clipper.JoinType.Round, clipper.EndType.Polygon, 2, 4, CHORD);
          areas[`clipper2-wasm, chords within ${CHORD}`] = clipper.AreaPathsD(made);
          made.delete();
        },
      },
      5,
      WARM,
    );
    table(`Offset: ${name}`, times);
    say(
      `\nAreas: ${Object.entries(areas)
        .map(([who, area]) => `${who} ${area.toFixed(3)}`)
        .join(", ")}.`,
    );
  };
  const small = blob(500, 500, 0.01, randomFrom(1));
  const great = blob(5000, 5000, 0.001, randomFrom(1));
  work("blob of 1 000 pieces, 0.5 outwards", [small], -0.5);
  work("blob of 1 000 pieces, 3 inwards", [small], 3);
  work("blob of 10 000 pieces, 0.5 inwards", [great], 0.5);
  work("blob of 10 000 pieces, 3 outwards", [great], -3);
  work("comb into 200, 1.2 inwards", [comb(200)], 1.2);
  // straight pieces along lines and arcs; the arc library runs out of stack on them
  const shape = blob(600, 600, 0.02, randomFrom(2));
  const step = shape.reduce((sum, piece) => sum + pieceLength(piece), 0) / 50_000;
  for (const noise of [0, 0.01]) {
    const chain = traced(shape, step, noise, randomFrom(3));
    const how = noise === 0 ? "on lines and arcs" : `off lines and arcs by up to ${noise}`;
    work(`${chain.length} tiny straight pieces ${how}, 0.5 outwards`, [chain], -0.5, false);
  }
  const fine = traced(blob(600, 2000, 0.02, randomFrom(2)), 0.2, 0, randomFrom(3));
  work(`${fine.length} tiny straight pieces of a greater shape, 0.5 outwards`, [fine], -0.5, false);
  const outer = polygon([
    [-10, -10],
    [260, -10],
    [260, 210],
    [-10, 210],
  ]);
  const holes = Array.from({ length: 500 }, (_, i) =>
    circleHalves({ centre: { x: (i % 25) * 10, y: Math.floor(i / 25) * 10 }, radius: 3 }),
  );
  work("plate with 500 holes, 1 grown", [outer, ...holes], -1);
  work("plate with 500 holes, 3 shrunk, holes merge", [outer, ...holes], 3);
  const live = blob(100, 100, 0.05, randomFrom(4));
  const { ours } = race({ ours: () => offset([{ pieces: live, closed: true }], 1.37, { corners: "round" }) }, 20);
  say(`\nA contour of ${live.length} pieces, as while a distance is typed: ${ours!.toFixed(1)} ms (limit 16).`);
};
