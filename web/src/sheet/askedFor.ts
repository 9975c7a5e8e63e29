import type { Point } from "@ash-edge/core/geometry";
import { revisionLetter } from "@ash-edge/core/release";
import type { JobRecord } from "../store/index.ts";
import type { ShownSketch } from "../ui/useSketch.ts";
import type { Setup } from "./setup.ts";
import type { PaperAsked } from "./sheet.worker.ts";

const today = (): string => new Date().toLocaleDateString("sv-SE");

/** The revision that a job is of: the letter of its last release, or that it was changed after that; or none yet. */
export const revisionWords = (release: number | undefined, isChanged: boolean): string => {
  if (release === undefined) return "";
  return isChanged ? `after ${revisionLetter(release)}` : revisionLetter(release);
};

/** What is put on paper of a job, as the shop has it. */
export const askedFor = (
  { number, name, customer, material, thickness, quantity }: JobRecord,
  { paper, template, scale, callouts, sketch: wanted, questions, shop }: Setup,
  { shift, sketch, revision }: { shift: Point; sketch: ShownSketch | undefined; revision: string },
): PaperAsked => {
  if (template) return { kind: "template", paper, words: `${number} ${name}` };
  const head = { job: number, part: name, customer, material, thickness, quantity: String(quantity) };
  const { naturalWidth = 1, naturalHeight = 1 } = sketch?.image ?? {};
  return {
    kind: "sheet",
    questions,
    asked: {
      paper,
      scale,
      shift,
      callouts,
      title: { shop, ...head, date: today(), revision },
      ...(wanted && sketch ? { sketch: { name: sketch.id, width: naturalWidth, height: naturalHeight } } : {}),
    },
  };
};
