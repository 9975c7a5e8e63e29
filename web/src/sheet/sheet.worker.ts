import { expose } from "comlink";
import { unitOf, type Drawing } from "@ash-edge/core/drawing";
import { sayRefusal } from "@ash-edge/core/say";
import { sheetPages, templatePages, type PaperPage, type SheetAsked } from "@ash-edge/core/sheet";
import { writePdf, type PagePicture } from "@ash-edge/core/sheet/pdf";
import { shownPage, type ShownPage } from "./shownPage.ts";

/** A sheet, or a template of the same paper. */
export type PaperAsked =
  | { readonly kind: "sheet"; readonly asked: SheetAsked }
  | { readonly kind: "template"; readonly paper: SheetAsked["paper"]; readonly words: string };

const pagesOf = (drawing: Drawing, what: PaperAsked): { pages: readonly PaperPage[]; scale: number } => {
  const made = what.kind === "sheet" ? sheetPages(drawing, what.asked) : templatePages(drawing, what.paper, what.words);
  if (!made.ok) throw new Error(sayRefusal(made.refusal, unitOf(drawing)));
  return { pages: made.value.pages, scale: "scale" in made.value ? made.value.scale : 1 };
};

/** The pages of a job on paper, to be shown, and as a PDF; refusals as errors in words. */
export const worker = {
  show: (drawing: Drawing, what: PaperAsked): { pages: readonly ShownPage[]; scale: number } => {
    const { pages, scale } = pagesOf(drawing, what);
    return { pages: pages.map(shownPage), scale };
  },
  pdf: (
    drawing: Drawing,
    what: PaperAsked,
    title: string,
    font: Uint8Array,
    pictures: Readonly<Record<string, PagePicture>>,
  ): Uint8Array => writePdf(pagesOf(drawing, what).pages, { font, pictures, title }),
};
export type SheetWorker = typeof worker;
expose(worker);
