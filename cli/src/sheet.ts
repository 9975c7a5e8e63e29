import { readFile, rename, writeFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { unitOf } from "@ash-edge/core/drawing";
import { questionsOf, sayRefusal } from "@ash-edge/core/say";
import { sheetPages, templatePages, type Paper, type PaperPage } from "@ash-edge/core/sheet";
import { writePdf } from "@ash-edge/core/sheet/pdf";
import type { Arguments } from "./arguments.ts";
import { openJob } from "./openFile.ts";
import { Unusable } from "./unusable.ts";

const FONT = "@expo-google-fonts/ibm-plex-mono/400Regular/IBMPlexMono_400Regular.ttf";

/** Writes a job as a PDF: a sheet with its dimensions and callouts, or a template in true size. */
export const sheetOf = async ({
  inputs,
  out,
  sheet,
}: Arguments): Promise<{ readonly code: 0; readonly text: string }> => {
  const [input, ...more] = inputs;
  if (input === undefined || more.length > 0) throw new Unusable("sheet takes one saved job; see --help");
  if (!/\.pdf$/i.test(out!)) throw new Unusable(`${out}: a sheet is a file ending in .pdf`);
  const { drawing, head } = await openJob(input);
  const unit = unitOf(drawing);
  const refuse = (refusal: Parameters<typeof sayRefusal>[0]): never => {
    throw new Unusable(`${input}: ${sayRefusal(refusal, unit)}`);
  };
  const paper: Paper = { name: sheet.paper, landscape: !sheet.portrait };
  const words = `${head.number} ${head.name}`;
  const pages = (): readonly PaperPage[] => {
    if (sheet.template) {
      const made = templatePages(drawing, paper, words);
      return made.ok ? made.value.pages : refuse(made.refusal);
    }
    const made = sheetPages(drawing, {
      paper,
      scale: sheet.scale,
      shift: { x: 0, y: 0 },
      callouts: true,
      questions: sheet.questions ? questionsOf(drawing) : [],
      title: {
        shop: "",
        job: head.number,
        part: head.name,
        customer: head.customer,
        material: head.material,
        thickness: head.thickness,
        quantity: String(head.quantity),
        date: new Date().toLocaleDateString("sv-SE"),
        revision: "",
      },
    });
    return made.ok ? made.value.pages : refuse(made.refusal);
  };
  const all = pages();
  const font = await readFile(createRequire(import.meta.url).resolve(FONT));
  const bytes = writePdf(all, { font, title: words });
  try {
    await writeFile(`${out}.part`, bytes);
    await rename(`${out}.part`, out!);
  } catch (reason) {
    throw new Unusable(`${out}: it can't be written there (${(reason as NodeJS.ErrnoException).code ?? "unknown"})`);
  }
  return { code: 0, text: `${out}, ${all.length} page${all.length === 1 ? "" : "s"}\n` };
};
