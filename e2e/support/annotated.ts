import { drawingFromRows, type Annotation, type Drawing } from "@ash-edge/core/drawing";
import type { Bench } from "./bench.ts";

/** The drawing as it is saved to a file. */
export const drawingOf = async (bench: Bench): Promise<Drawing> =>
  drawingFromRows(JSON.parse(await bench.content()) as Parameters<typeof drawingFromRows>[0], 1_000_000);

/** The dimensions, notes and marks of the drawing as it is saved to a file. */
export const annotationsIn = async (bench: Bench): Promise<readonly Annotation[]> =>
  (JSON.parse(await bench.content()) as { annotation?: Annotation[] }).annotation ?? [];
