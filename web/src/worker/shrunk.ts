import type { Bounds } from "@ash-edge/core/geometry";

/**
 * Part of a stored picture, given in its pixels, made smaller by the browser where it is longer than `longest`. Rejects
 * where the browser can't. Needs nothing from outside it, so that it can be sent to a page as it is.
 */
export const shrunkPicture = async (
  picture: Blob,
  { minX, minY, maxX, maxY }: Bounds,
  longest: number,
): Promise<ImageData> => {
  const [wide, high] = [maxX - minX, maxY - minY];
  const per = Math.max(1, Math.max(wide, high) / longest);
  const [width, height] = [Math.max(1, Math.round(wide / per)), Math.max(1, Math.round(high / per))];
  const bitmap = await createImageBitmap(picture, minX, minY, wide, high, {
    resizeWidth: width,
    resizeHeight: height,
    resizeQuality: "high",
  });
  const context = new OffscreenCanvas(width, height).getContext("2d");
  if (!context) throw new Error("This browser has no room for a picture of that size.");
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  return context.getImageData(0, 0, width, height);
};
