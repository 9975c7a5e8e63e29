import { calloutText, stateText, type Callout, type CalloutState } from "@ash-edge/core/callouts";
import { unitOf } from "@ash-edge/core/drawing";
import { ledgerFor } from "./derived.ts";
import { useBench, useSession } from "./SessionContext.tsx";
import { toolsFor } from "./session.ts";

const LOOK: Record<CalloutState["state"], readonly [mark: string, colour: string]> = {
  "not placed": ["", "text-soft"],
  true: ["✓ ", "text-moss"],
  within: ["≈ ", "text-caution"],
  off: ["✕ ", "text-fault font-semibold"],
};

/** The numbers of the sketch and how each stands in the drawing. */
export const Ledger = () => {
  const { act } = useSession();
  const drawing = useBench((state) => state.drawing);
  const rows = ledgerFor(drawing);
  const placed = rows.filter(({ state }) => state.state !== "not placed").length;
  return (
    <section
      data-region="Ledger"
      tabIndex={-1}
      role="region"
      aria-label="Ledger"
      className="card flex h-full flex-col overflow-hidden"
    >
      <header className="flex items-center justify-between px-3 py-1.5">
        <b>Callouts</b>
        {rows.length > 0 && (
          <span className="figures text-xs text-soft">
            {placed} of {rows.length} placed
          </span>
        )}
      </header>
      {rows.length === 0 && (
        <p className="border-t border-hair px-3 py-4 text-soft">
          This job has no callouts: no numbers of a sketch were written down with it.
        </p>
      )}
      <ul className="min-h-0 flex-1 overflow-y-auto" onMouseLeave={() => act.light([])}>
        {rows.map(({ callout, state }) => (
          <Row key={callout.id} callout={callout} state={state} />
        ))}
      </ul>
    </section>
  );
};

const Row = ({ callout, state }: { callout: Callout; state: CalloutState }) => {
  const { act } = useSession();
  const unit = useBench((all) => unitOf(all.drawing));
  const offered = useBench((all) => all.offered === callout.id);
  const lit = useBench((all) => all.litCallout === callout.id);
  const [mark, colour] = LOOK[state.state];
  return (
    <li className={`border-t border-hair ${lit ? "bg-board" : ""}`}>
      <button
        type="button"
        onMouseDown={(event) => event.preventDefault()}
        onMouseEnter={() =>
          act.light(
            callout.links.map(({ id }) => id),
            callout.id,
          )
        }
        onFocus={() =>
          act.light(
            callout.links.map(({ id }) => id),
            callout.id,
          )
        }
        onClick={() => act.useCallout(callout)}
        className="grid h-7 w-full grid-cols-[5.6rem_1fr_auto] items-center gap-1 px-3 text-left"
      >
        <span className="figures truncate font-semibold">{calloutText(callout, unit)}</span>
        <span className="truncate text-soft">{callout.name}</span>
        <span className={`text-xs ${colour}`}>{mark + stateText(state, callout)}</span>
      </button>
      {offered && (
        <div
          className="flex flex-wrap items-center gap-1.5 px-3 pb-2"
          role="group"
          aria-label={`Tools for ${calloutText(callout, unit)}`}
        >
          {toolsFor(callout).map((tool) => (
            <button
              key={tool.id}
              type="button"
              className="h-7 rounded-card border border-hair px-2 text-xs hover:border-ink"
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => {
                act.take(tool.id);
                act.useCallout(callout);
              }}
            >
              {tool.name}
            </button>
          ))}
          {toolsFor(callout).length === 0 && (
            <span className="text-xs text-soft">No tool makes this from its number alone.</span>
          )}
        </div>
      )}
    </li>
  );
};
