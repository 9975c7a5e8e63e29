import { expose } from "comlink";
import type { Bounds } from "@ash-edge/core/geometry";
import { sayRefusal } from "@ash-edge/core/say";
import { enlarged, LONGEST, tracePicture, type PictureTrace } from "@ash-edge/core/picture/trace";
import { shrunkPicture } from "./shrunk.ts";

/** What part of a stored picture is looked at, in its pixels. */
export type TraceInput = {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly type: string;
  readonly box: Bounds;
};

const work = async ({ bytes, type, box }: TraceInput, report: (part: number) => void): Promise<PictureTrace> => {
  const pixels = await shrunkPicture(new Blob([bytes], { type }), box, LONGEST);
  const traced = tracePicture(pixels, report);
  if (!traced.ok) throw new Error(sayRefusal(traced.refusal, "mm"));
  return enlarged(traced.value, (box.maxX - box.minX) / pixels.width, { x: box.minX, y: box.minY });
};

export const worker = { work };
export type TraceWorker = typeof worker;
expose(worker);
