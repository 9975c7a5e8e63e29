import { expose } from "comlink";
import type { Bounds } from "@ash-edge/core/geometry";
import { sayRefusal } from "@ash-edge/core/say";
import { enlarged, tracePicture, type PictureTrace } from "@ash-edge/core/picture/trace";

/** A picture is decoded no longer than this: strokes are followed at that size. */
const LONGEST = 2000;

/** What part of a stored picture is looked at, in its pixels. */
export type TraceInput = {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly type: string;
  readonly box: Bounds;
};

const work = async (
  { bytes, type, box: { minX, minY, maxX, maxY } }: TraceInput,
  report: (part: number) => void,
): Promise<PictureTrace> => {
  const [wide, high] = [maxX - minX, maxY - minY];
  const per = Math.max(1, Math.max(wide, high) / LONGEST);
  const [width, height] = [Math.max(1, Math.round(wide / per)), Math.max(1, Math.round(high / per))];
  const bitmap = await createImageBitmap(new Blob([bytes], { type }), minX, minY, wide, high, {
    resizeWidth: width,
    resizeHeight: height,
    resizeQuality: "high",
  });
  const context = new OffscreenCanvas(width, height).getContext("2d");
  if (!context) throw new Error("This browser has no room for a picture of that size.");
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  const traced = tracePicture(context.getImageData(0, 0, width, height), report);
  if (!traced.ok) throw new Error(sayRefusal(traced.refusal, "mm"));
  return enlarged(traced.value, wide / width, { x: minX, y: minY });
};

export const worker = { work };
export type TraceWorker = typeof worker;
expose(worker);
