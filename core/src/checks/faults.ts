import Flatbush from "flatbush";
import type { Contour, OpenChain, Profile } from "../profile/profile.ts";
import type { Id } from "../numeric/id.ts";
import { growBounds } from "../geometry/bounds.ts";
import { curveBounds, type Curve } from "../geometry/curve.ts";
import { distance, type Point } from "../geometry/point.ts";
import { meetings } from "../intersect/meetings.ts";
import { RESOLUTION } from "../numeric/tolerance.ts";

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

type Side = { readonly curve: Curve; readonly owner: Contour | OpenChain; readonly place: number };

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
const meetingFaults = (owners: readonly (Contour | OpenChain)[]): readonly Fault[] => {
  const sides = owners.flatMap((owner): Side[] =>
    owner.closed && owner.circle
      ? [{ curve: { kind: "circle", ...owner.circle }, owner, place: 0 }]
      : owner.pieces.map(({ a, b, bulge }, place) => ({ curve: { kind: "piece", a, b, bulge }, owner, place })),
  );
  if (sides.length === 0) return [];
  const boxes = sides.map(({ curve }) => growBounds(curveBounds(curve)!, RESOLUTION));
  const tree = new Flatbush(sides.length);
  for (const box of boxes) tree.add(box.minX, box.minY, box.maxX, box.maxY);
  tree.finish();
  const faults: Fault[] = [];
  sides.forEach((side, i) => {
    const box = boxes[i]!;
    for (const j of tree.search(box.minX, box.minY, box.maxX, box.maxY)) {
      if (j <= i) continue;
      const other = sides[j]!;
      for (const meeting of meetings(side.curve, other.curve, RESOLUTION)) {
        if (meeting.kind === "overlap") faults.push(fault("doubled", meeting.from, side, other));
        else if (isJoint(side, other, meeting.at)) continue;
        else if (meeting.kind !== "crossing" && !(side.owner.closed && other.owner.closed))
          continue; // an end that meets is no wall
        else faults.push(fault(meeting.kind === "crossing" ? "crossing" : "touching", meeting.at, side, other));
      }
    }
  });
  // a contour through another's corner meets two of its pieces there
  const places = new Map(
    faults.map((one) => [`${one.code} ${Math.round(one.at!.x / PLACE)} ${Math.round(one.at!.y / PLACE)}`, one]),
  );
  return [...places.values()];
};

/** Faults of one kind nearer than about this are one fault. */
const PLACE = 10 * RESOLUTION;

const fault = (code: "crossing" | "touching" | "doubled", at: Point, p: Side, q: Side): Fault => ({
  code,
  severity: code === "touching" ? "warning" : "error",
  at,
  ids: [...new Set([...p.owner.ids, ...q.owner.ids])],
  values: {},
});

/** Neighbours in one contour share their joint, which is no fault. */
const isJoint = (p: Side, q: Side, at: Point): boolean => {
  if (p.owner !== q.owner) return false;
  const n = p.owner.pieces.length;
  const apart = Math.abs(p.place - q.place);
  const neighbours = apart === 1 || (p.owner.closed && apart === n - 1);
  const joints = [p, q].flatMap(({ curve }) => (curve.kind === "piece" ? [curve.a, curve.b] : []));
  return neighbours && joints.filter((end) => distance(end, at) <= RESOLUTION).length >= 2;
};
