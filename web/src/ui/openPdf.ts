import type { NewSketch } from "../store/index.ts";
import { LARGEST_BYTES, NoPicture } from "./readPicture.ts";

/** A document whose pages can be had as pictures. */
export type OpenPdf = {
  readonly pages: number;
  /** A page, counted from 1, as a picture no wider and no higher than so many pixels. */
  readonly draw: (page: number, most: number) => Promise<Blob>;
  readonly close: () => void;
};

/** As many pixels as a page of a sketch has at most, and to the inch: what was scanned has few more. */
const [MOST_PX, PER_INCH] = [2600, 200];
const POINTS_IN_INCH = 72;

/** True of a PDF, whatever it is called: its mark is within the first kilobyte (ISO 32000, annex on older readers). */
export const isPdf = async (file: File): Promise<boolean> =>
  new TextDecoder("latin1").decode(await file.slice(0, 1024).arrayBuffer()).includes("%PDF-");

/** Opens a PDF; its reader is loaded when one is opened. What can't be read is refused in words. */
export const openPdf = async (file: File): Promise<OpenPdf> => {
  if (file.size > LARGEST_BYTES)
    throw new NoPicture(`${file.name} has ${Math.round(file.size / 1e6)} MB; up to 60 MB work.`);
  const reader = await import("pdfjs-dist");
  const worker = new Worker(new URL("pdfjs-dist/build/pdf.worker.min.mjs", import.meta.url), { type: "module" });
  const task = reader.getDocument({
    data: new Uint8Array(await file.arrayBuffer()),
    worker: reader.PDFWorker.fromPort({ port: worker }),
    isEvalSupported: false,
  });
  const close = (): void => void task.destroy().finally(() => worker.terminate());
  try {
    const document = await task.promise;
    return {
      pages: document.numPages,
      close,
      draw: async (number, most) => {
        const page = await document.getPage(number);
        const own = page.getViewport({ scale: 1 });
        const scale = Math.min(PER_INCH / POINTS_IN_INCH, most / Math.max(own.width, own.height));
        const viewport = page.getViewport({ scale });
        const canvas = new OffscreenCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height));
        const canvasContext = canvas.getContext("2d") as unknown as CanvasRenderingContext2D;
        await page.render({ canvasContext, viewport, background: "#fff" }).promise;
        return canvas.convertToBlob({ type: "image/png" });
      },
    };
  } catch (reason) {
    close();
    throw new NoPicture(
      (reason as Error).name === "PasswordException"
        ? `${file.name} is protected by a password. Save it without one, and take that.`
        : `${file.name} is damaged, or no PDF that can be read. Save it anew, or take a picture of its page.`,
    );
  }
};

/** A page of a PDF as a sketch. */
export const pageAsSketch = async ({ draw }: OpenPdf, file: File, page: number): Promise<NewSketch> => {
  const blob = await draw(page, MOST_PX);
  const name = `${file.name.replace(/\.pdf$/i, "")} page ${page}.png`;
  return { name, type: "image/png", bytes: new Uint8Array(await blob.arrayBuffer()) };
};
