import { useState, type ReactNode } from "react";
import type { NewSketch } from "../store/index.ts";
import { isPdf } from "./openPdf.ts";
import { PdfPages } from "./PdfPages.tsx";
import { readPicture } from "./readPicture.ts";

/** What can be chosen as pictures of a sketch. */
export const PICTURE_TYPES = "image/png,image/jpeg,image/webp,image/svg+xml,application/pdf,.pdf";

/**
 * Takes files as sketches: pictures as they are, of a PDF the pages that are chosen in the dialog, which the caller
 * shows. What can't be taken is told, and stops nothing.
 */
export const useTakenPictures = (
  onSketch: (sketch: NewSketch) => Promise<void> | void,
  onRefused: (reason: Error) => void,
): { readonly take: (files: readonly File[]) => Promise<void>; readonly dialog: ReactNode } => {
  const [documents, setDocuments] = useState<readonly File[]>([]);
  const take = async (files: readonly File[]): Promise<void> => {
    for (const file of files) {
      try {
        if (await isPdf(file)) setDocuments((now) => [...now, file]);
        else await onSketch(await readPicture(file));
      } catch (reason) {
        onRefused(reason as Error);
      }
    }
  };
  const [first] = documents;
  const dialog = first && (
    <PdfPages
      key={`${first.name} ${documents.length}`}
      file={first}
      onTake={async (sketches) => {
        for (const sketch of sketches) await onSketch(sketch);
      }}
      onRefused={onRefused}
      onClose={() => setDocuments((now) => now.slice(1))}
    />
  );
  return { take, dialog };
};
