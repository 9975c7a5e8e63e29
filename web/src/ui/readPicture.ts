import type { NewSketch } from "../store/index.ts";

/** Larger pictures than this are refused: the browser's store is not for them. */
export const LARGEST_BYTES = 60_000_000;

/** A file that is not taken as a picture, with the reason in words. */
export class NoPicture extends Error {}

/** Brands of the box with which HEIC and HEIF files begin (ISO/IEC 23008-12). */
const HEIC_BRANDS = new Set(["heic", "heix", "hevc", "hevx", "heim", "heis", "mif1", "msf1"]);

/** True of a phone's HEIC photo, whatever it is called. */
const isHeic = (bytes: Uint8Array): boolean => {
  const words = (from: number): string => String.fromCharCode(...bytes.subarray(from, from + 4));
  return words(4) === "ftyp" && HEIC_BRANDS.has(words(8));
};

/**
 * A picture file, checked by decoding it; anything else is refused with a sentence. SVG is only ever shown as an image.
 */
export const readPicture = async (file: File): Promise<NewSketch> => {
  const name = file.name || "pasted picture";
  if (file.size === 0) throw new NoPicture(`${name} is empty. Choose a PNG, JPEG, WebP or SVG picture, or a PDF.`);
  if (file.size > LARGEST_BYTES)
    throw new NoPicture(
      `${name} has ${Math.round(file.size / 1e6)} MB; up to 60 MB work. Save it smaller and try again.`,
    );
  if (isHeic(new Uint8Array(await file.slice(0, 12).arrayBuffer())))
    throw new NoPicture(
      `${name} is a HEIC photo, which browsers can’t show. Open it where it was taken, save or share it as JPEG, and ` +
        "take that.",
    );
  const url = URL.createObjectURL(file);
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    if (image.naturalWidth === 0) throw new Error("no size");
  } catch {
    throw new NoPicture(`${name} is no picture that can be shown. PNG, JPEG, WebP, SVG and PDF work.`);
  } finally {
    URL.revokeObjectURL(url);
  }
  return { name, type: file.type || "image/png", bytes: new Uint8Array(await file.arrayBuffer()) };
};

/** The files of a drop or a paste. */
export const filesOf = (data: DataTransfer | null): readonly File[] => [...(data?.files ?? [])];
