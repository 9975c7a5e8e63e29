import { useMemo } from "react";
import { entitiesOf, isLayout } from "@ash-edge/core/drawing";
import { leftFindings } from "@ash-edge/core/edits";
import type { BankKey } from "@ash-edge/tools";
import { ledgerFor, profileFor } from "./derived.ts";
import { foundIn } from "./state/index.ts";
import { useBench, useSession } from "./SessionContext.tsx";
import type { JobPlace } from "./sessionCore.ts";

/**
 * The steps of the job with their live counts. A step takes its bank and puts the focus where its work is; none locks
 * anything.
 */
export const Steps = () => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const derivedAt = useBench((state) => state.history.derivedAt);
  const bank = useBench((state) => state.panels.bank);
  const tidying = useBench((state) => state.tidying);
  const counts = useMemo(() => {
    void derivedAt; // a great drawing is worked out elsewhere and comes later
    const layout = [...entitiesOf(drawing)].filter((entity) => isLayout(drawing, entity)).length;
    const { contours, open } = profileFor(drawing);
    const rows = ledgerFor(drawing).filter(({ callout }) => !callout.reference);
    const held = rows.filter(({ state }) => ["true", "within"].includes(state.state)).length;
    const loose = contours.filter(({ joined }) => !joined).length;
    return { layout, open: open.length, loose, held, called: rows.length };
  }, [drawing, derivedAt]);
  const left = leftFindings(drawing);
  const found = foundIn(tidying, drawing)?.filter(({ key }) => !left.has(key)).length;
  const pressed = (take: string): boolean => (take === "tidy" ? tidying !== undefined : take === bank);
  const steps: readonly (readonly [name: string, count: string, take: BankKey | "sketch" | "tidy" | JobPlace])[] = [
    ["Sketch", counts.called > 0 ? `${counts.called} called` : "", "sketch"],
    ["Lay out", counts.layout > 0 ? `${counts.layout}` : "", "KeyQ"],
    ["Shape", counts.open > 0 ? `${counts.open} open` : "", "KeyW"],
    ["Tidy", found !== undefined ? `${found}` : counts.loose > 0 ? `${counts.loose} to join` : "", "tidy"],
    ["Prove", counts.called > 0 ? `${counts.held}/${counts.called}` : "", "prove"],
    ["Release", "", "release"],
  ];
  return (
    <nav aria-label="Steps" className="card flex h-8 overflow-hidden">
      {steps.map(([name, count, take], i) => (
        <button
          key={name}
          type="button"
          aria-pressed={pressed(take)}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => {
            if (take === "release" || take === "prove") act.openPlace(take);
            else if (take === "tidy") act.openTidy();
            else if (take === "sketch") {
              act.setBank(undefined);
              document.querySelector<HTMLElement>('[data-region="Sketch card"]')?.focus();
            } else act.setBank(take);
          }}
          className={
            `px-2.5 ${i > 0 ? "border-l border-hair" : ""} ` +
            `${pressed(take) ? "bg-ink text-panel" : "hover:bg-board"}`
          }
        >
          {name}
          {count && <span className={`figures ml-1.5 text-xs ${pressed(take) ? "" : "text-soft"}`}>{count}</span>}
        </button>
      ))}
    </nav>
  );
};
