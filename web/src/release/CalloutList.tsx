import { calloutText, stateText } from "@ash-edge/core/callouts";
import { holds, isWaived, type CalloutRow } from "@ash-edge/core/checks";
import type { Unit } from "@ash-edge/core/numeric";

/** How the callouts stand, with those that don't hold. */
export const CalloutList = ({ rows, unit }: { rows: readonly CalloutRow[]; unit: Unit }) => {
  const wanting = rows.filter((row) => !holds(row));
  if (rows.length === 0) return null;
  return (
    <section className="card px-4 py-3" aria-label="Callouts">
      <h2 className="font-semibold">
        Callouts: {rows.length - wanting.length} of {rows.length} hold
      </h2>
      {wanting.length > 0 && (
        <ul className="mt-1">
          {wanting.map(({ callout, state }) => (
            <li key={callout.id} className={`said ${state.state === "off" ? "text-fault" : "text-caution"}`}>
              <span className="figures font-semibold">{calloutText(callout, unit)}</span> {callout.name}:{" "}
              {stateText(state, callout)}
              {isWaived({ callout, state }) && ` · waived: ${callout.waived!.reason}`}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
};
