import { SCALES } from "@ash-edge/core/annotate";
import { PAPER_NAMES, scaleWords, type PaperName } from "@ash-edge/core/sheet";
import { Segmented } from "../ui/Choice.tsx";
import type { Setup } from "./setup.ts";

const FIELD = "mt-1 block h-8 w-full rounded-card border border-hair bg-board px-2";

/** How it is put on paper, and the ways to have it. */
export const SheetOptions = ({
  setup,
  scale,
  questions,
  change,
  hasSketch,
  ready,
  isMoved,
  onBack,
  pages,
  working,
  onSave,
  onStop,
  said,
}: {
  setup: Setup;
  /** The scale as it came out, once it has. */
  scale: number | undefined;
  /** How many questions came of it, once they have. */
  questions: number | undefined;
  change: (to: Partial<Setup>) => void;
  hasSketch: boolean;
  ready: boolean;
  /** The drawing was put elsewhere than in the middle. */
  isMoved: boolean;
  onBack: () => void;
  pages: number;
  working: boolean;
  onSave: () => void;
  onStop: () => void;
  said: { readonly text: string; readonly failed: boolean } | undefined;
}) => {
  const { paper, template, callouts, sketch, shop } = setup;
  return (
    <section className="card p-4" aria-label="Paper">
      <h1 className="text-lg font-semibold">On paper</h1>
      <div className="mt-2 flex flex-col items-start gap-2">
        <Segmented
          label="What is made"
          options={[
            ["sheet", "sheet"],
            ["template", "template in true size"],
          ]}
          value={template ? "template" : "sheet"}
          onChange={(to) => change({ template: to === "template" })}
        />
        <label className="w-full">
          <span className="text-soft">Paper</span>
          <select
            className={FIELD}
            value={paper.name}
            onChange={(event) => change({ paper: { ...paper, name: event.target.value as PaperName } })}
          >
            {PAPER_NAMES.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
        <Segmented
          label="Direction"
          options={[
            ["landscape", "landscape"],
            ["portrait", "portrait"],
          ]}
          value={paper.landscape ? "landscape" : "portrait"}
          onChange={(to) => change({ paper: { ...paper, landscape: to === "landscape" } })}
        />
        {!template && (
          <>
            <label className="w-full">
              <span className="text-soft">Scale</span>
              <select
                className={FIELD}
                value={setup.scale ?? ""}
                onChange={(event) =>
                  change({ scale: event.target.value === "" ? undefined : Number(event.target.value) })
                }
              >
                <option value="">
                  {setup.scale === undefined && scale !== undefined ? `as it fits, ${scaleWords(scale)}` : "as it fits"}
                </option>
                {SCALES.map((one) => (
                  <option key={one} value={one}>
                    {scaleWords(one)}
                  </option>
                ))}
              </select>
            </label>
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={callouts}
                onChange={(event) => change({ callouts: event.target.checked })}
              />{" "}
              callouts as a table
            </label>
            <label className={`flex items-center gap-2 ${hasSketch ? "" : "text-soft"}`}>
              <input
                type="checkbox"
                checked={sketch && hasSketch}
                disabled={!hasSketch}
                onChange={(event) => change({ sketch: event.target.checked })}
              />{" "}
              the customer’s sketch{hasSketch ? "" : ": the job has none"}
            </label>
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={setup.questions}
                onChange={(event) => change({ questions: event.target.checked })}
              />{" "}
              questions for the customer
              {setup.questions && questions !== undefined && (
                <span className="text-soft">{questions === 0 ? "there are none" : <b>{questions}</b>}</span>
              )}
            </label>
            <label className="w-full">
              <span className="text-soft">Shop</span>
              <input
                className={FIELD}
                value={shop}
                maxLength={80}
                placeholder="as it stands in the title block"
                onChange={(event) => change({ shop: event.target.value })}
              />
            </label>
            <p className="text-soft">
              The drawing is dragged where it is wanted, or moved by the arrow keys on the page.{" "}
              {isMoved && (
                <button type="button" className="underline" onClick={onBack}>
                  Back to the middle
                </button>
              )}
            </p>
          </>
        )}
        {template && (
          <p className="text-soft">
            {pages > 1 &&
              `${pages} pages, row by row. They overlap by 10 mm: cut along the dashes, or lay them over one another. `}
            Print without scaling, and measure the bar of 100 mm{pages > 1 && " on each page"}.
          </p>
        )}
      </div>
      <button
        type="button"
        disabled={!ready || working}
        className="mt-3 h-9 w-full rounded-card bg-ember font-semibold text-panel disabled:bg-hair disabled:text-soft"
        onClick={onSave}
      >
        {working ? "Making the PDF …" : "Save the PDF"}
      </button>
      {working && (
        <button type="button" className="mt-2 h-8 w-full rounded-card border border-hair" onClick={onStop}>
          Stop
        </button>
      )}
      <button
        type="button"
        disabled={!ready}
        className="mt-2 h-8 w-full rounded-card border border-hair hover:border-ink disabled:opacity-50"
        onClick={() => window.print()}
      >
        Print …
      </button>
      {said && (
        <p role={said.failed ? "alert" : "status"} className={`mt-2 ${said.failed ? "text-fault" : "text-moss"}`}>
          {said.text}
        </p>
      )}
    </section>
  );
};
