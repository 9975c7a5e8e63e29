import type { MainModule, PathsD } from "clipper2-wasm/dist/clipper2z.js";
import Coordinate from "jsts/org/locationtech/jts/geom/Coordinate.js";
import GeometryFactory from "jsts/org/locationtech/jts/geom/GeometryFactory.js";
import BufferOp from "jsts/org/locationtech/jts/operation/buffer/BufferOp.js";
import { createRequire } from "node:module";
import { enclosedArea } from "@ash-edge/core/contour";
import { pieceLength } from "@ash-edge/core/geometry";
import { offset } from "@ash-edge/core/offset";
import { flattened } from "../../core/src/testing/flattened.ts";
import { FAMILY_NAMES, offsetTrial } from "../../core/src/testing/offsetTrial.ts";
import { unionTrial } from "../../core/src/testing/unionTrial.ts";
import { say } from "./report.ts";

const TRIALS = 10_000;
const CHORD = 1e-4;
const loadClipper = createRequire(import.meta.url)("clipper2-wasm/dist/umd/clipper2z.js") as () => Promise<MainModule>;

type Count = { trials: number; faults: number; clipper: number; jsts: number; round: number };

/**
 * Ten thousand made-up contours of every family, offset and looked at; where corners are round, areas against two
 * libraries too.
 */
export const trials = async (): Promise<void> => {
  const clipper = await loadClipper();
  const factory = new GeometryFactory();
  const start = 1 + Math.floor(Math.random() * 1e8);
  const counts = FAMILY_NAMES.map((): Count => ({ trials: 0, faults: 0, clipper: 0, jsts: 0, round: 0 }));
  const bad: string[] = [];
  let worst = 0;
  for (let i = 0; i < TRIALS; i++) {
    const seed = start + i;
    const { family, corners, by, contours, faults, error } = offsetTrial(seed);
    const count = counts[family]!;
    count.trials += 1;
    worst = Math.max(worst, error);
    if (faults.length > 0) {
      count.faults += 1;
      bad.push(`${seed} (${faults.join(", ")})`);
    }
    const [pieces, ...others] = contours;
    // the libraries are asked for single contours that don't touch themselves
    if (corners !== "round" || others.length > 0 || !pieces) continue;
    count.round += 1;
    const runs = offset([{ pieces, closed: true }], by, { corners });
    const ours = runs.reduce((sum, run) => sum + enclosedArea(run.pieces), 0);
    const length = [...runs.flatMap((run) => run.pieces), ...pieces].reduce(
      (sum, piece) => sum + pieceLength(piece),
      0,
    );
    const allowed = 3 * CHORD * length;
    const points = pieces.flatMap((piece) => flattened(piece, CHORD));
    const paths: PathsD = new clipper.PathsD();
    paths.push_back(clipper.MakePathD(points.flatMap(({ x, y }) => [x, y])));
    const made = clipper.InflatePathsD(paths, -by, clipper.JoinType.Round, clipper.EndType.Polygon, 2, 6, CHORD);
    if (Math.abs(clipper.AreaPathsD(made) - ours) > allowed) count.clipper += 1;
    made.delete();
    const ring = points.map(({ x, y }) => new Coordinate(x, y));
    const theirs = BufferOp.bufferOp(
      factory.createPolygon(factory.createLinearRing([...ring, ring[0]!]), []),
      -by,
      100,
    );
    if (Math.abs((theirs.getArea() as number) - ours) > allowed) count.jsts += 1;
  }
  say(`\n## ${TRIALS} made-up contours offset\n`);
  say(
    `Seeds from ${start} on. Each result is closed, welded and crosses nothing; with round corners every place ` +
      `is at the distance (worst difference ${worst.toExponential(1)}) and 200 places at random lie in or out ` +
      `as their own distance says. The last columns count areas that differ by more than three chords of ` +
      `${CHORD} all along.\n`,
  );
  say("| family | contours | faults | round corners | clipper2-wasm differs | jsts differs |");
  say("| --- | ---: | ---: | ---: | ---: | ---: |");
  counts.forEach((count, i) =>
    say(
      `| ${FAMILY_NAMES[i]} | ${count.trials} | ${count.faults} | ${count.round} | ${count.clipper} | ${count.jsts} |`,
    ),
  );
  if (bad.length > 0) say(`\nFaults at ${bad.join("; ")}.`);
  unions(clipper);
};

const UNIONS = 5000;
/** Flat enough that what it leaves out is told from an area that is lost. */
const COARSE = 1e-3;

/** Contours whose edges lie nearly on one another, united; areas against what they must add up to, and a library's. */
const unions = (clipper: MainModule): void => {
  const start = 1 + Math.floor(Math.random() * 1e8);
  let [refused, differ] = [0, 0];
  const bad: string[] = [];
  for (let seed = start; seed < start + UNIONS; seed++) {
    const { parts, isRefused, united, faults } = unionTrial(seed);
    if (isRefused) refused += 1;
    if (faults.length > 0) bad.push(`${seed} (${faults.join(", ")})`);
    if (isRefused) continue;
    // near the origin, as the library keeps a fixed number of decimals
    const from = parts[0]![0]!.a;
    const paths = parts.map((pieces): PathsD => {
      const made: PathsD = new clipper.PathsD();
      const points = pieces.flatMap((piece) => flattened(piece, COARSE));
      made.push_back(clipper.MakePathD(points.flatMap(({ x, y }) => [x - from.x, y - from.y])));
      return made;
    });
    const theirs = clipper.UnionD(paths[0]!, paths[1]!, clipper.FillRule.NonZero, 6);
    const length = parts.flat().reduce((sum, piece) => sum + pieceLength(piece), 0);
    if (Math.abs(clipper.AreaPathsD(theirs) - united) > 3 * COARSE * length) differ += 1;
    for (const one of [...paths, theirs]) one.delete();
  }
  say(`\n## ${UNIONS} unions of contours that nearly lie on one another\n`);
  say(
    `Seeds from ${start} on: edges 0 to 1e-3 apart. United, taken away and common, the areas must add up ` +
      `(${bad.length} did not); ${refused} refused; ${differ} differ from clipper2-wasm by more than three chords of ` +
      `${COARSE} all along.`,
  );
  if (bad.length > 0) say(`\nFaults at ${bad.join("; ")}.`);
};
