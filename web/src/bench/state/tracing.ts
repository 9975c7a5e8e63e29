import { type Drawing, type Edit, type Picture } from "@ash-edge/core/drawing";
import { pictureOf } from "@ash-edge/core/picture";
import type { Group, PictureTrace, Proposal } from "@ash-edge/core/picture/trace";
import { stepAt } from "../../store/index.ts";
import type { HistoryPart } from "./history.ts";

/** What was accepted in one step, and which that is: undone, it is proposed again. */
export type Accepted = { readonly ids: readonly number[]; readonly step: number; readonly edit: Edit };

/** What a picture was found to show, and what has become of that; of another look all begins anew. */
type Looked = {
  readonly found?: PictureTrace | undefined;
  readonly failed?: string | undefined;
  /** Where a proposal was put into another group. */
  readonly moved: ReadonlyMap<number, Group>;
  readonly rejected: ReadonlySet<number>;
  readonly accepted: readonly Accepted[];
  readonly picked: ReadonlySet<number>;
  readonly lit?: number | undefined;
};
const NOT_LOOKED: Looked = { moved: new Map(), rejected: new Set(), accepted: [], picked: new Set() };

/** A picture that is traced. */
export type Tracing = Looked & {
  /** Which stored picture. */
  readonly blob: string;
  /** How far it is, from 0 to 1; undefined where nothing is worked out. */
  readonly part: number | undefined;
  readonly shown: ReadonlySet<Group>;
};

export type TracingEvent =
  | { readonly type: "opened"; readonly blob: string }
  | { readonly type: "closed" }
  | { readonly type: "looking" }
  | { readonly type: "going on"; readonly part: number }
  | { readonly type: "found"; readonly found: PictureTrace }
  | { readonly type: "failed"; readonly why: string }
  | { readonly type: "moved"; readonly ids: readonly number[]; readonly to: Group }
  | { readonly type: "rejected"; readonly ids: readonly number[] }
  | { readonly type: "accepted"; readonly accepted: Accepted }
  | { readonly type: "picked"; readonly ids: readonly number[] }
  | { readonly type: "shown"; readonly group: Group; readonly on: boolean }
  | { readonly type: "lit"; readonly id: number | undefined };

/** Undefined while no picture is traced: only opening one ends that. */
export const tracingAfter = (tracing: Tracing | undefined, event: TracingEvent): Tracing | undefined => {
  if (event.type === "opened")
    return { ...NOT_LOOKED, blob: event.blob, part: 0, shown: new Set(["outline", "doubtful"]) };
  if (!tracing) return undefined;
  switch (event.type) {
    case "closed":
      return undefined;
    case "looking": {
      const { blob, shown } = tracing;
      return { ...NOT_LOOKED, blob, shown, part: 0 };
    }
    case "going on":
      return { ...tracing, part: event.part };
    case "found":
      return { ...tracing, part: undefined, found: event.found };
    case "failed":
      return { ...tracing, part: undefined, failed: event.why };
    case "moved":
      return { ...tracing, moved: new Map([...tracing.moved, ...event.ids.map((id) => [id, event.to] as const)]) };
    case "rejected":
      return { ...tracing, rejected: new Set([...tracing.rejected, ...event.ids]), picked: new Set() };
    case "accepted":
      return { ...tracing, accepted: [...tracing.accepted, event.accepted], picked: new Set(), lit: undefined };
    case "picked":
      return { ...tracing, picked: new Set(event.ids) };
    case "shown": {
      const shown = new Set(tracing.shown);
      if (event.on) shown.add(event.group);
      else shown.delete(event.group);
      return { ...tracing, shown };
    }
    case "lit":
      return { ...tracing, lit: event.id };
  }
};

/** The picture as it lies now; undefined where it lies under the drawing no more, or has no scale. */
export const tracedPicture = ({ blob }: Tracing, drawing: Drawing): Picture | undefined => {
  const picture = pictureOf(drawing, blob);
  return picture?.scaled ? picture : undefined;
};

/** What is still proposed, in the groups in which it stands. */
export const proposedIn = (tracing: Tracing, { steps }: Pick<HistoryPart, "steps">): readonly Proposal[] => {
  const gone = new Set(tracing.rejected);
  for (const { ids, step, edit } of tracing.accepted)
    if (steps.position > step && stepAt(steps, step) === edit) for (const id of ids) gone.add(id);
  return (tracing.found?.proposals ?? []).flatMap((one) =>
    gone.has(one.id) ? [] : [{ ...one, group: tracing.moved.get(one.id) ?? one.group }],
  );
};
