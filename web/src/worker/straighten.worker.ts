import { expose } from "comlink";
import { straightenRows, type StraightenPlan } from "@ash-edge/core/picture";

/** Rows done between two reports. */
const ROWS = 64;

/** Straightens a photo: decodes it, fills the straight picture row by row, and encodes it as a JPEG of high quality. */
const straighten = async (
  bytes: Uint8Array<ArrayBuffer>,
  type: string,
  plan: StraightenPlan,
  report: (part: number) => void,
): Promise<Uint8Array> => {
  const bitmap = await createImageBitmap(new Blob([bytes], { type }));
  const photo = contextOf(bitmap.width, bitmap.height);
  photo.drawImage(bitmap, 0, 0);
  const source = photo.getImageData(0, 0, bitmap.width, bitmap.height);
  bitmap.close();
  const target = new ImageData(plan.width, plan.height);
  for (let row = 0; row < plan.height; row += ROWS) {
    straightenRows(source, plan, target, row, Math.min(row + ROWS, plan.height));
    report(row / plan.height);
  }
  const made = contextOf(plan.width, plan.height);
  made.fillStyle = "#fff";
  made.fillRect(0, 0, plan.width, plan.height);
  made.drawImage(await createImageBitmap(target), 0, 0);
  const blob = await made.canvas.convertToBlob({ type: "image/jpeg", quality: 0.92 });
  return new Uint8Array(await blob.arrayBuffer());
};

const contextOf = (width: number, height: number): OffscreenCanvasRenderingContext2D => {
  const context = new OffscreenCanvas(width, height).getContext("2d");
  if (!context) throw new Error("This browser has no room for a picture of that size.");
  return context;
};

export const worker = { straighten };
export type StraightenWorker = typeof worker;
expose(worker);
