import { meetingPlaces, type MeetingRun } from "../contour/meetingPlaces.ts";
import { entityOf, type Drawing } from "../drawing/drawing.ts";
import { curvesOf, type Entity } from "../drawing/entity.ts";
import { pieceLength, sweepOf, type Piece } from "../geometry/piece.ts";
import { dot, subtract } from "../geometry/point.ts";
import { NO_LENGTH } from "../numeric/tolerance.ts";
import { profileOf, type Profile } from "../profile/profile.ts";

/** What would be wrong with a drawing in which numbers were made true, that was not wrong before. */
export type Spoil = "turned" | "vanished" | "inside-out" | "crosses" | "nesting" | "no-size";

/** An arc whose sweep changes by so much ran through nothing, or through all of its circle. */
const INSIDE_OUT = 0.95 * Math.PI;

const pieceSpoil = (was: Piece, now: Piece): Spoil | undefined => {
  if (pieceLength(was) > NO_LENGTH && pieceLength(now) <= NO_LENGTH) return "vanished";
  if (was.bulge === 0) return dot(subtract(was.b, was.a), subtract(now.b, now.a)) < 0 ? "turned" : undefined;
  return Math.abs(sweepOf(now.bulge) - sweepOf(was.bulge)) > INSIDE_OUT ? "inside-out" : undefined;
};

const entitySpoil = (was: Entity, now: Entity): Spoil | undefined => {
  if (now.kind === "circle" && !(now.radius > NO_LENGTH)) return "no-size";
  const after = curvesOf(now);
  for (const [i, { curve }] of curvesOf(was).entries()) {
    const next = after[i]?.curve;
    if (curve.kind !== "piece" || next?.kind !== "piece") continue;
    const spoil = pieceSpoil(curve, next);
    if (spoil) return spoil;
  }
  return undefined;
};

/** How often which outlines meet, and how: of what met before nothing else may come to meet instead. */
const meetingsOf = ({ contours, open }: Profile): ReadonlyMap<string, number> => {
  const all = [...contours, ...open];
  const runs = all.map((one): MeetingRun => {
    const circle = "circle" in one ? one.circle : undefined;
    return { pieces: one.pieces, closed: one.closed, ...(circle ? { circle } : {}) };
  });
  const counts = new Map<string, number>();
  for (const { kind, runs: those } of meetingPlaces(runs)) {
    const key = [kind, ...those.map((run) => all[run]!.ids.join("+")).sort()].join(" ");
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  return counts;
};

/** How each contour lies in others, by what it is made of. */
const depthsOf = ({ contours }: Profile): string =>
  contours
    .map(({ ids, depth }) => `${ids.join(" ")}:${depth}`)
    .sort()
    .join("; ");

/** What a change spoiled: a line that turned round, an arc inside out, new crossings, holes that lie elsewhere. */
export const spoiled = (drawing: Drawing, after: Drawing, changed: readonly Entity[]): Spoil | undefined => {
  for (const now of changed) {
    const was = entityOf(drawing, now.id);
    const spoil = was && entitySpoil(was, now);
    if (spoil) return spoil;
  }
  const [was, now] = [profileOf(drawing), profileOf(after)];
  if (depthsOf(was) !== depthsOf(now)) return "nesting";
  const before = meetingsOf(was);
  return [...meetingsOf(now)].some(([key, count]) => count > (before.get(key) ?? 0)) ? "crosses" : undefined;
};
