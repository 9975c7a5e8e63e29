import { calloutsOf, drawingFromRows, drawingText, picturesOf, type Drawing } from "@ash-edge/core/drawing";

/** The id of the nth sketch of a job. */
export const sketchId = (job: string, number: number): string => `${job}-sketch-${number}`;

/** The drawing with its pins and its pictures on other sketches, as `named` says. */
export const withSketches = (drawing: Drawing, named: (sketch: string) => string): Drawing => {
  const rows = JSON.parse(drawingText(drawing)) as Parameters<typeof drawingFromRows>[0];
  const callout = calloutsOf(drawing).map((row) =>
    row.pin ? { ...row, pin: { ...row.pin, sketch: named(row.pin.sketch) } } : row,
  );
  const picture = picturesOf(drawing).map(({ from, ...row }) => ({
    ...row,
    blob: named(row.blob),
    ...(from ? { from: named(from) } : {}),
  }));
  return drawingFromRows({ ...rows, callout, picture }, drawing.nextId);
};

/** A job file names sketches by their place in its list, whatever job it comes from. */
const PLACE = /(?:^|-)sketch-(\d+)$/;

/** The drawing as a file holds it: its pins name sketches by their place among `ids`. */
export const namedByPlace = (drawing: Drawing, ids: readonly string[]): Drawing =>
  withSketches(drawing, (sketch) => (ids.includes(sketch) ? `sketch-${ids.indexOf(sketch) + 1}` : sketch));

/** The drawing of a file as that of a job: its pins name the job's own sketches. */
export const namedByJob = (drawing: Drawing, job: string): Drawing =>
  withSketches(drawing, (sketch) => {
    const number = PLACE.exec(sketch)?.[1];
    return number === undefined ? sketch : sketchId(job, Number(number));
  });
