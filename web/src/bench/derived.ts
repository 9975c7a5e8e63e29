import { measureCallout, type Callout, type CalloutState } from "@ash-edge/core/callouts";
import { profileOf, type Profile } from "@ash-edge/core/contour";
import { calloutsOf, type Drawing } from "@ash-edge/core/drawing";
import { faultsOf, type Fault } from "@ash-edge/core/prove";

/** Works something out once for each drawing, however many panels ask. */
const once = <T>(work: (drawing: Drawing) => T): ((drawing: Drawing) => T) => {
  const known = new WeakMap<Drawing, { readonly value: T }>();
  return (drawing) => {
    const found = known.get(drawing) ?? { value: work(drawing) };
    known.set(drawing, found);
    return found.value;
  };
};

export const profileFor: (drawing: Drawing) => Profile = once(profileOf);
export const faultsFor: (drawing: Drawing) => readonly Fault[] = once((drawing) => faultsOf(profileFor(drawing)));

export type LedgerRow = { readonly callout: Callout; readonly state: CalloutState };
export const ledgerFor: (drawing: Drawing) => readonly LedgerRow[] = once((drawing) =>
  calloutsOf(drawing).map((callout) => ({ callout, state: measureCallout(drawing, callout) })),
);
