import fontUrl from "@expo-google-fonts/ibm-plex-mono/400Regular/IBMPlexMono_400Regular.ttf?url";
import type { Drawing } from "@ash-edge/core/drawing";
import type { PagePicture } from "@ash-edge/core/sheet/pdf";
import type { ShownSketch } from "../ui/useSketch.ts";
import type { PaperAsked } from "./sheet.worker.ts";
import { paperWork } from "./usePages.ts";

/** A sketch as a picture of a document, whatever it was stored as. */
const asPicture = async ({ image }: ShownSketch): Promise<PagePicture> => {
  const canvas = new OffscreenCanvas(image.naturalWidth, image.naturalHeight);
  const context = canvas.getContext("2d")!;
  context.fillStyle = "#fff";
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(image, 0, 0);
  const blob = await canvas.convertToBlob({ type: "image/jpeg", quality: 0.9 });
  return { bytes: new Uint8Array(await blob.arrayBuffer()), type: "JPEG" };
};

/** A job on paper as a PDF, made away from the page; rejects with a reason in words. */
export const makePdf = async (
  drawing: Drawing,
  what: PaperAsked,
  title: string,
  sketch: ShownSketch | undefined,
  signal: AbortSignal,
): Promise<Uint8Array> => {
  const answer = await fetch(fontUrl, { signal });
  if (!answer.ok) throw new Error("The lettering could not be loaded.");
  const font = new Uint8Array(await answer.arrayBuffer());
  const isAsked = what.kind === "sheet" && what.asked.sketch && sketch;
  const pictures = isAsked ? { [sketch.id]: await asPicture(sketch) } : {};
  return paperWork((remote) => remote.pdf(drawing, what, title, font, pictures), signal);
};
