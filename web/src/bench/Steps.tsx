import { useLiveQuery } from "dexie-react-hooks";
import { useMemo } from "react";
import type { Verdict } from "@ash-edge/core/checks";
import { entitiesOf, isLayout } from "@ash-edge/core/drawing";
import { leftFindings } from "@ash-edge/core/edits";
import type { BankKey } from "@ash-edge/tools";
import { ledgerFor, profileFor } from "./derived.ts";
import { useDatabase } from "../app/StoreProvider.tsx";
import { verdictsNow, type JobRecord } from "../store/index.ts";
import { VERDICT_SIGNS } from "../ui/verdictSigns.ts";
import { foundIn, isSaved } from "./state/index.ts";
import { useBench, useSession } from "./SessionContext.tsx";
import type { JobPlace } from "./sessionCore.ts";

/** What was said of the job when it was looked over last, as long as it stands so and is stored. */
const useVerdict = (job: JobRecord): Verdict | undefined => {
  const database = useDatabase();
  const saved = useBench((state) => isSaved(state.history));
  const verdicts = useLiveQuery(() => verdictsNow(database, [job]), [database, job]);
  return saved ? verdicts?.get(job.id) : undefined;
};

const VerdictSign = ({ state, words }: Verdict) => {
  const [Sign, tone] = VERDICT_SIGNS[state];
  return (
    <span role="img" aria-label={words} title={words} className={`ml-1 inline-block align-[-2px] ${tone}`}>
      <Sign size={13} aria-hidden="true" />
    </span>
  );
};

/**
 * The steps of the job with their live counts. A step takes its bank and puts the focus where its work is; none locks
 * anything.
 */
export const Steps = ({ job }: { job: JobRecord }) => {
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
  const verdict = useVerdict(job);
  return (
    <nav aria-label="Steps" className="card flex h-8 shrink-0 overflow-hidden">
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
              act.goToPanel("sketch");
            } else act.setBank(take);
          }}
          className={
            `px-2.5 whitespace-nowrap max-[1099px]:px-2 ${i > 0 ? "border-l border-hair" : ""} ` +
            `${pressed(take) ? "bg-ink text-panel" : "hover:bg-board"}`
          }
        >
          {name}
          {take === "release" && verdict && <VerdictSign {...verdict} />}
          {count && (
            <span className={`figures ml-1.5 text-xs max-[1099px]:hidden ${pressed(take) ? "" : "text-soft"}`}>
              {count}
            </span>
          )}
        </button>
      ))}
    </nav>
  );
};
