import { CircleHelp, Info, TriangleAlert } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";
import {
  FAULT_REPAIRS,
  FAULT_SOURCES,
  faultRows,
  type Fault,
  type FaultRow,
  type ReleasePlan,
  type Verdict,
} from "@ash-edge/core/checks";
import type { Unit } from "@ash-edge/core/numeric";
import { sayFault } from "@ash-edge/core/say";
import { toolById } from "@ash-edge/tools";
import { VERDICT_SIGNS } from "../ui/verdictSigns.ts";
import type { Looking } from "./useLooked.ts";

const small = "h-7 shrink-0 rounded-card border border-hair px-2 hover:border-ink";

/** The verdict, and what stands against cutting; never one where nothing was looked at. */
export const Checks = ({
  looking,
  job,
  onStop,
  onAgain,
  onShow,
}: {
  looking: Looking;
  job: string;
  onStop: () => void;
  onAgain: () => void;
  /** Shows where a fault is, where there is a picture to show it on. */
  onShow?: (fault: Fault) => void;
}) => {
  if (looking.state === "looking")
    return (
      <section className="card overflow-hidden" aria-label="Checks">
        <div role="status" className="flex items-center gap-3 px-4 py-2.5">
          <span className="font-semibold">Looking it over …</span>
          <progress className="h-2 min-w-0 flex-1 accent-[var(--ember)]" aria-label="At work" />
          <button type="button" className={small} onClick={onStop}>
            Stop
          </button>
        </div>
      </section>
    );
  if (looking.state === "not looked")
    return (
      <section className="card overflow-hidden" aria-label="Checks">
        <h2 className="flex items-center gap-2 px-4 py-2.5 font-semibold text-caution">
          <CircleHelp size={17} aria-hidden="true" /> Not checked
        </h2>
        <div role="alert" className="flex items-center gap-3 border-t border-hair px-4 py-2">
          <span className="flex-1">{looking.why} Nothing is known of what stands against cutting it.</span>
          <button type="button" className={small} onClick={onAgain}>
            Look now
          </button>
        </div>
      </section>
    );
  const { plan, standing, verdict, unasked } = looking.looked;
  return (
    <section className="card overflow-hidden" aria-label="Checks">
      <Headline verdict={verdict} />
      {plan.faults.length === 0 && (
        <p className="border-t border-hair px-4 py-2 text-soft">
          Every contour is closed, none crosses another, nothing is doubled.
          {standing.called === 0 && " Nothing is called, so no number is proved."}
        </p>
      )}
      <Faults {...{ plan, job, onShow }} />
      {unasked.length > 0 && (
        <p className="border-t border-hair px-4 py-2 text-soft">Not looked at: {unasked.join(", ")}.</p>
      )}
    </section>
  );
};

const Headline = ({ verdict: { state, words } }: { verdict: Verdict }) => {
  const [Sign, tone] = VERDICT_SIGNS[state];
  return (
    <h2 className="flex items-start gap-2 px-4 py-2.5 font-semibold">
      <Sign size={17} className={`mt-0.5 shrink-0 ${tone}`} aria-hidden="true" />
      {words}
    </h2>
  );
};

type Shown = { readonly job: string; readonly onShow: ((fault: Fault) => void) | undefined };

const Faults = ({ plan, job, onShow }: { plan: ReleasePlan } & Shown) => (
  <ul>
    {faultRows(plan.faults).map((row, i) => (
      <Row key={i} row={row} unit={plan.unit} {...{ job, onShow }} />
    ))}
  </ul>
);

const FAULT_SIGNS = { error: TriangleAlert, warning: TriangleAlert, info: Info } as const;
const TONES = { error: "text-fault", warning: "text-caution", info: "text-soft" } as const;

const Row = ({ row: { fault: first, count, ids, all }, unit, job, onShow }: { row: FaultRow; unit: Unit } & Shown) => {
  const navigate = useNavigate();
  // of many of a kind one at a time is shown
  const [shown, setShown] = useState(0);
  const fault = all[shown] ?? first;
  const [tone, Sign] = [TONES[fault.severity], FAULT_SIGNS[fault.severity]];
  const repair = FAULT_REPAIRS[fault.code];
  const at = fault.at ? { at: fault.at } : {};
  const where = { select: ids, ...(count === 1 ? at : {}) };
  return (
    <li className="flex items-start gap-2 border-t border-hair px-4 py-2" title={FAULT_SOURCES[fault.code]}>
      <Sign size={15} className={`mt-0.5 shrink-0 ${tone}`} aria-hidden="true" />
      <span className={`said flex-1 ${tone}`}>
        {onShow && fault.at ? (
          <button type="button" className="text-left hover:underline" onClick={() => onShow(fault)}>
            {sayFault(fault, unit)}
          </button>
        ) : (
          sayFault(fault, unit)
        )}
        {count > 1 && <b className="block">And {count - 1} more like it.</b>}
      </span>
      {ids.length > 0 && (
        <span className="flex shrink-0 flex-col gap-1">
          <button type="button" className={small} onClick={() => void navigate(`/jobs/${job}`, { state: where })}>
            {count > 1 ? "Go to all" : "Go to it"}
          </button>
          {count > 1 && onShow && fault.at && (
            <button
              type="button"
              className={small}
              aria-label={`Next of ${count}`}
              onClick={() => {
                const next = (shown + 1) % count;
                setShown(next);
                onShow(all[next]!);
              }}
            >
              Next
            </button>
          )}
          {repair && (
            <button
              type="button"
              className={small}
              onClick={() => void navigate(`/jobs/${job}`, { state: { select: fault.ids, ...at, take: repair } })}
            >
              {REPAIR_WORDS[repair] ?? toolById(repair)?.name}
            </button>
          )}
        </span>
      )}
    </li>
  );
};

/** What a repair is called that is no tool. */
const REPAIR_WORDS: Readonly<Record<string, string>> = { tidy: "Tidy" };
