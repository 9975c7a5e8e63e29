import { meetingPlaces } from "../contour/meetingPlaces.ts";
import type { Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";
import type { Contour, OpenChain, Profile } from "../profile/profile.ts";

/** What stands against cutting a profile. Errors block a release; warnings are said. */
export type Fault = {
  readonly code:
    | "nothing-closed"
    | "open"
    | "not-joined"
    | "crossing"
    | "touching"
    | "doubled"
    | "not-arcs"
    | "cutter-corner"
    | "cutter-narrow"
    | "cutter-gone"
    | "cutter-merged";
  readonly severity: "error" | "warning";
  readonly at?: Point;
  readonly ids: readonly Id[];
  readonly values: Readonly<Record<string, number | string>>;
};

/** Everything that stands against cutting, errors first. Near n log n: pairs come from a spatial index. */
export const faultsOf = (profile: Profile): readonly Fault[] => {
  const faults: Fault[] = [];
  const cut = profile.contours.filter(({ role }) => role !== "mark");
  if (cut.length === 0) faults.push({ code: "nothing-closed", severity: "error", ids: [], values: {} });
  for (const contour of cut)
    if (!contour.joined)
      faults.push({
        code: "not-joined",
        severity: "error",
        at: contour.pieces[0]!.a,
        ids: contour.ids,
        values: { pieces: contour.ids.length },
      });
  for (const chain of profile.open) {
    const gap = chain.ends[0]!.gap;
    const values = gap ? { ends: 2, gap: gap.distance } : { ends: 2 };
    faults.push({ code: "open", severity: "error", at: chain.ends[0]!.at, ids: chain.ids, values });
  }
  if (profile.smooth.length > 0)
    faults.push({
      code: "not-arcs",
      severity: "error",
      ids: profile.smooth,
      values: { curves: profile.smooth.length },
    });
  faults.push(...meetingFaults([...cut, ...profile.open]));
  return faults.sort((p, q) => Number(p.severity === "warning") - Number(q.severity === "warning"));
};

/** Crossings, touches and doubled stretches between and within contours and chains, each place once. */
const meetingFaults = (owners: readonly (Contour | OpenChain)[]): readonly Fault[] =>
  meetingPlaces(owners).map(({ kind, at, runs }) => ({
    code: kind,
    severity: kind === "touching" ? "warning" : "error",
    at,
    ids: [...new Set(runs.flatMap((run) => owners[run]!.ids))],
    values: {},
  }));
