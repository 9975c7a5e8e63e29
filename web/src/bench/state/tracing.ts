import { entityOf, type Drawing, type Picture } from "@ash-edge/core/drawing";
import type { Id } from "@ash-edge/core/numeric";
import type { Group, PictureTrace, Proposal } from "@ash-edge/core/picture/trace";

/** What was accepted in one step, and something that it put into the drawing: undone, it is proposed again. */
export type Accepted = { readonly ids: readonly number[]; readonly made: Id };

/** A picture that is traced: what is proposed, and what has become of it. */
export type Tracing = {
  readonly picture: Picture;
  /** How far it is, from 0 to 1; undefined where nothing is worked out. */
  readonly part: number | undefined;
  readonly found?: PictureTrace | undefined;
  readonly failed?: string | undefined;
  /** Where a proposal was put into another group. */
  readonly moved: ReadonlyMap<number, Group>;
  readonly rejected: ReadonlySet<number>;
  readonly accepted: readonly Accepted[];
  readonly picked: ReadonlySet<number>;
  readonly shown: ReadonlySet<Group>;
  readonly lit?: number | undefined;
};

export type TracingEvent =
  | { readonly type: "opened"; readonly picture: Picture }
  | { readonly type: "closed" }
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
    return {
      picture: event.picture,
      part: 0,
      moved: new Map(),
      rejected: new Set(),
      accepted: [],
      picked: new Set(),
      shown: new Set(["outline", "doubtful"]),
    };
  if (!tracing) return undefined;
  switch (event.type) {
    case "closed":
      return undefined;
    case "going on":
      return { ...tracing, part: event.part, failed: undefined };
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

/** What is still proposed in a drawing, in the groups in which it stands. */
export const proposedIn = (tracing: Tracing, drawing: Drawing): readonly Proposal[] => {
  const gone = new Set(tracing.rejected);
  for (const { ids, made } of tracing.accepted) if (entityOf(drawing, made)) for (const id of ids) gone.add(id);
  return (tracing.found?.proposals ?? []).flatMap((one) =>
    gone.has(one.id) ? [] : [{ ...one, group: tracing.moved.get(one.id) ?? one.group }],
  );
};
