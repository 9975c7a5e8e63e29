import { measureCallout, type CalloutState } from "@ash-edge/core/callouts";
import { faultsOf, subjectOf, type Fault } from "@ash-edge/core/checks";
import { calloutsOf, entitiesOf, type Callout, type Drawing } from "@ash-edge/core/drawing";
import type { Id } from "@ash-edge/core/numeric";
import { profileOf, type Profile } from "@ash-edge/core/profile";
import type { Derived } from "../worker/mass.worker.ts";
import { LARGE } from "./mass.ts";
import { rolesOf } from "./roles.ts";

/** Works something out once for each drawing, however many panels ask. */
const once = <D extends object, T>(work: (of: D) => T): ((of: D) => T) => {
  const known = new WeakMap<D, { readonly value: T }>();
  return (of) => {
    const found = known.get(of) ?? { value: work(of) };
    known.set(of, found);
    return found.value;
  };
};

/** Great drawings are worked out elsewhere; until that has come, what was known last stands. */
const NOTHING: Derived = { contours: [], open: [], marks: [], smooth: [], faults: [] };
let lastKnown: Derived = NOTHING;
export const noteDerived = (derived: Derived | undefined): void => void (lastKnown = derived ?? NOTHING);
export const isLarge = ({ entity }: Drawing): boolean => entity.size > LARGE;

const profileNow = once((drawing: Drawing) => profileOf(drawing));
const faultsNow = once((drawing: Drawing) => faultsOf(subjectOf(drawing, profileNow(drawing)), { quick: true }));
const rolesNow = once((drawing: Drawing) => rolesOf(profileNow(drawing)));
const rolesThen = once(rolesOf);

/** False of a great drawing as long as nothing of it was worked out yet: nothing found is then nothing known. */
export const isKnown = (drawing: Drawing): boolean => !isLarge(drawing) || lastKnown !== NOTHING;

export const profileFor = (drawing: Drawing): Profile => (isLarge(drawing) ? lastKnown : profileNow(drawing));
export const faultsFor = (drawing: Drawing): readonly Fault[] =>
  isLarge(drawing) ? lastKnown.faults : faultsNow(drawing);
export const rolesFor = (drawing: Drawing): ReturnType<typeof rolesOf> =>
  isLarge(drawing) ? rolesThen(lastKnown) : rolesNow(drawing);

/** How many things lie on each layer, by its id. */
export const countsFor: (drawing: Drawing) => ReadonlyMap<Id, number> = once((drawing: Drawing) => {
  const counts = new Map<Id, number>();
  for (const { layer } of entitiesOf(drawing)) counts.set(layer, (counts.get(layer) ?? 0) + 1);
  return counts;
});

export type LedgerRow = { readonly callout: Callout; readonly state: CalloutState };
export const ledgerFor: (drawing: Drawing) => readonly LedgerRow[] = once((drawing: Drawing) =>
  calloutsOf(drawing).map((callout) => ({ callout, state: measureCallout(drawing, callout) })),
);
