import { useEffect, useState } from "react";
import type { NewSketch } from "../store/index.ts";
import { FormDialog } from "./FormDialog.tsx";
import { openPdf, pageAsSketch, type OpenPdf } from "./openPdf.ts";

/** So many pages are shown to choose from; of more nobody draws one part. */
const SHOWN = 60;
const THUMBNAIL_PX = 260;

/** Asks which pages of a PDF are sketches, from small pictures of them. */
export const PdfPages = ({
  file,
  onTake,
  onRefused,
  onClose,
}: {
  file: File;
  onTake: (sketches: readonly NewSketch[]) => Promise<void>;
  onRefused: (reason: Error) => void;
  onClose: () => void;
}) => {
  const [pdf, setPdf] = useState<OpenPdf>();
  const [shown, setShown] = useState<readonly string[]>([]);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set([1]));
  const [working, setWorking] = useState(false);
  useEffect(() => {
    let [current, opened] = [true, undefined as OpenPdf | undefined];
    const urls: string[] = [];
    const show = async (): Promise<void> => {
      opened = await openPdf(file);
      if (!current) return opened.close();
      setPdf(opened);
      for (let page = 1; page <= Math.min(opened.pages, SHOWN) && current; page++) {
        urls.push(URL.createObjectURL(await opened.draw(page, THUMBNAIL_PX)));
        if (current) setShown([...urls]);
      }
    };
    show().catch((reason: Error) => {
      if (!current) return;
      onRefused(reason);
      onClose();
    });
    return () => {
      current = false;
      opened?.close();
      for (const url of urls) URL.revokeObjectURL(url);
    };
  }, [file]); // eslint-disable-line react-hooks/exhaustive-deps
  const toggle = (page: number): void => {
    const next = new Set(chosen);
    if (!next.delete(page)) next.add(page);
    setChosen(next);
  };
  const take = async (): Promise<void> => {
    if (!pdf) return;
    setWorking(true);
    try {
      const sketches: NewSketch[] = [];
      for (const page of [...chosen].sort((p, q) => p - q)) sketches.push(await pageAsSketch(pdf, file, page));
      await onTake(sketches);
    } catch (reason) {
      onRefused(reason as Error);
    }
    onClose();
  };
  const count = chosen.size;
  return (
    <FormDialog
      title={`Pages of ${file.name}`}
      submit={working ? "Taking …" : count === 1 ? "Take the page" : `Take ${count} pages`}
      ready={pdf !== undefined && count > 0 && !working}
      wide
      onSubmit={take}
      onClose={onClose}
    >
      <p className="text-soft">
        {!pdf
          ? "Opening …"
          : pdf.pages > SHOWN
            ? `The first ${SHOWN} of ${pdf.pages} pages. Click those that are sketches.`
            : "Click those that are sketches."}
      </p>
      <ul className="grid max-h-[56vh] grid-cols-3 gap-2 overflow-y-auto p-1">
        {shown.map((url, i) => (
          <li key={url}>
            <button
              type="button"
              aria-pressed={chosen.has(i + 1)}
              className={
                "w-full rounded-card border-2 p-1 " +
                (chosen.has(i + 1) ? "border-ember bg-ember-wash" : "border-hair hover:border-ink")
              }
              onClick={() => toggle(i + 1)}
            >
              <img src={url} alt="" className="mx-auto max-h-40" />
              <span className="figures block text-xs">
                page {i + 1}
                {chosen.has(i + 1) && <span aria-hidden="true"> ✓</span>}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </FormDialog>
  );
};
