import { expose } from "comlink";
import { unitOf, type Drawing } from "@ash-edge/core/drawing";
import { questionsOf, sayRefusal } from "@ash-edge/core/say";
import { sheetPages, templatePages, type PaperPage, type SheetAsked } from "@ash-edge/core/sheet";
import { writePdf, type PagePicture } from "@ash-edge/core/sheet/pdf";
import { shownPage, type ShownPage } from "./shownPage.ts";

/** A sheet, or a template of the same paper. */
export type PaperAsked =
  | { readonly kind: "sheet"; readonly asked: Omit<SheetAsked, "questions">; readonly questions: boolean }
  | { readonly kind: "template"; readonly paper: SheetAsked["paper"]; readonly words: string };

type Pages<T> = { readonly pages: readonly T[]; readonly scale: number; readonly questions: number };

const pagesOf = (drawing: Drawing, what: PaperAsked): Pages<PaperPage> => {
  const questions = what.kind === "sheet" && what.questions ? questionsOf(drawing) : [];
  const made =
    what.kind === "sheet"
      ? sheetPages(drawing, { ...what.asked, questions })
      : templatePages(drawing, what.paper, what.words);
  if (!made.ok) throw new Error(sayRefusal(made.refusal, unitOf(drawing)));
  const { pages } = made.value;
  return { pages, scale: "scale" in made.value ? made.value.scale : 1, questions: questions.length };
};

/** The pages of a job on paper, to be shown, and as a PDF; refusals as errors in words. */
export const worker = {
  show: (drawing: Drawing, what: PaperAsked): Pages<ShownPage> => {
    const made = pagesOf(drawing, what);
    return { ...made, pages: made.pages.map(shownPage) };
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
