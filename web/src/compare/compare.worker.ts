import { expose } from "comlink";
import { compareDrawings, isSame, sayComparison } from "@ash-edge/core/compare";
import { drawingFromRows, unitOf, type Drawing } from "@ash-edge/core/drawing";
import { openDrawing } from "@ash-edge/core/formats";
import { readDxf } from "@ash-edge/core/formats/dxf";
import { readJobFile } from "@ash-edge/core/formats/job";
import { readSvg } from "@ash-edge/core/formats/svg";
import { unionBounds, type Curve, type Point } from "@ash-edge/core/geometry";
import type { Unit } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import { shapePath, thumbnailOf, type Thumbnail } from "../store/index.ts";

/** One side of a comparison: a drawing, or a file that holds one. */
export type Side = { readonly drawing: Drawing } | { readonly name: string; readonly bytes: Uint8Array };

/** What differs, in words and as paths to be drawn over one another. */
export type Compared = {
  readonly same: boolean;
  readonly words: readonly string[];
  /** In the job's unit, y up: left, low, width, height of both. */
  readonly box: readonly [number, number, number, number] | undefined;
  readonly before: Thumbnail | undefined;
  readonly after: Thumbnail | undefined;
  readonly came: string;
  readonly went: string;
  readonly moved: string;
  /** Where something differs, first what came, then what went and moved; at most so many as a list shows. */
  readonly places: readonly { readonly what: "came" | "went" | "moved"; readonly at: Point }[];
};

/** A list of more places is read by nobody. */
const LISTED = 200;

const isJobFile = (name: string): boolean => /\.ashedge\.json$/i.test(name);
/** What has callouts: files of other formats have none. */
const isJob = (side: Side): boolean => "drawing" in side || isJobFile(side.name);

const drawingOf = (side: Side, unit: Unit): Drawing => {
  if ("drawing" in side) return side.drawing;
  const { name, bytes } = side;
  if (isJobFile(name)) {
    const job = readJobFile(new TextDecoder().decode(bytes));
    if (!job.ok) throw new Error(sayRefusal(job.refusal, unit));
    return drawingFromRows(job.value.drawing as never, job.value.nextId);
  }
  const read = /\.svg$/i.test(name) ? readSvg(bytes) : readDxf(bytes);
  if (!read.ok) throw new Error(sayRefusal(read.refusal, unit));
  return openDrawing(read.value, read.value.unit ?? unit);
};

export const worker = {
  compare: (one: Side, other: Side, unit: Unit): Compared => {
    const [a, b] = [drawingOf(one, unit), drawingOf(other, unit)];
    const found = compareDrawings(a, b, { called: [one, other].every(isJob) });
    const [before, after] = [thumbnailOf(a), thumbnailOf(b)];
    const whole = unionBounds(
      [before, after].flatMap((one) => {
        const [x, y, width, height] = one?.box ?? [];
        return x === undefined ? [] : [{ minX: x, minY: y!, maxX: x + width!, maxY: y! + height! }];
      }),
    );
    const paths = (curves: readonly Curve[]): string =>
      whole ? curves.map((curve) => shapePath(curve, whole)).join("") : "";
    return {
      same: isSame(found),
      words: sayComparison(found, unitOf(b)),
      box: whole && [whole.minX, whole.minY, whole.maxX - whole.minX, whole.maxY - whole.minY],
      before,
      after,
      came: paths(found.came.map(({ curve }) => curve)),
      went: paths([...found.went.map(({ curve }) => curve), ...found.moved.map(({ from }) => from)]),
      moved: paths(found.moved.map(({ to }) => to)),
      places: [
        ...found.came.map(({ at }) => ({ what: "came" as const, at })),
        ...found.went.map(({ at }) => ({ what: "went" as const, at })),
        ...found.moved.map(({ at }) => ({ what: "moved" as const, at })),
      ].slice(0, LISTED),
    };
  },
};
export type CompareWorker = typeof worker;
expose(worker);
