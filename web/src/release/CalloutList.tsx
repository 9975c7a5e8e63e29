import { calloutText, stateText, type CalloutState } from "@ash-edge/core/callouts";
import type { Standing } from "@ash-edge/core/checks";
import type { Callout } from "@ash-edge/core/drawing";
import type { Unit } from "@ash-edge/core/numeric";

export type CalloutRow = { readonly callout: Callout; readonly state: CalloutState };

/** A callout holds where it is true or within its tolerance. */
const holds = ({ state }: CalloutRow): boolean => ["true", "within"].includes(state.state);

/** How many callouts there are, are answered by nothing (or not by all that they ask for), and are off. */
export const standingOf = (rows: readonly CalloutRow[]): Standing => {
  const off = rows.filter(({ state }) => state.state === "off").length;
  const held = rows.filter(holds).length;
  return { called: rows.length, off, notPlaced: rows.length - held - off };
};

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
            </li>
          ))}
        </ul>
      )}
    </section>
  );
};
