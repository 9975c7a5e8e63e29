import { type Drawing, type Edit, type Picture } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { greatest } from "@ash-edge/core/numeric";
import { pictureOf } from "@ash-edge/core/picture";
import type { EndOf, Group, PictureTrace, Proposal, Proposals } from "@ash-edge/core/picture/trace";
import { stepAt } from "../../store/index.ts";
import type { HistoryPart } from "./history.ts";

/** What was accepted in one step, and which that is: undone, it is proposed again. */
export type Accepted = { readonly ids: readonly number[]; readonly step: number; readonly edit: Edit };

/** What was proposed before a change, and after which step of the drawing that was made. */
export type Before = { readonly proposals: Proposals; readonly step: number };

/** What a picture was found to show, and what has become of that; of another look all begins anew. */
type Looked = {
  readonly found?: PictureTrace | undefined;
  readonly failed?: string | undefined;
  /** What is proposed, as it was changed by hand; and what it was before each change, the last at the end. */
  readonly proposals: Proposals;
  readonly before: readonly Before[];
  readonly accepted: readonly Accepted[];
  readonly picked: readonly number[];
  readonly lit?: number | undefined;
  /** A place where two meet that is being pulled elsewhere. */
  readonly pulled?: (EndOf & { readonly to: Point }) | undefined;
  /** The next click parts the one that is picked. */
  readonly splitting: boolean;
};
const NOT_LOOKED: Looked = { proposals: [], before: [], accepted: [], picked: [], splitting: false };

/** Changes that can be taken back. */
const MOST_BEFORE = 100;

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
  | { readonly type: "opened again"; readonly tracing: Tracing }
  | { readonly type: "closed" }
  | { readonly type: "looking" }
  | { readonly type: "going on"; readonly part: number }
  | { readonly type: "found"; readonly found: PictureTrace }
  | { readonly type: "failed"; readonly why: string }
  | {
      readonly type: "changed";
      readonly proposals: Proposals;
      readonly picked: readonly number[];
      readonly step: number;
    }
  | { readonly type: "taken back" }
  | { readonly type: "accepted"; readonly accepted: Accepted }
  | { readonly type: "picked"; readonly ids: readonly number[] }
  | { readonly type: "shown"; readonly group: Group; readonly on: boolean }
  | { readonly type: "pulled"; readonly pulled: Looked["pulled"] }
  | { readonly type: "splitting"; readonly on: boolean }
  | { readonly type: "lit"; readonly id: number | undefined };

/** Undefined while no picture is traced: opening one alone ends that. */
export const tracingAfter = (tracing: Tracing | undefined, event: TracingEvent): Tracing | undefined => {
  if (event.type === "opened")
    return { ...NOT_LOOKED, blob: event.blob, part: 0, shown: new Set(["outline", "doubtful"]) };
  if (event.type === "opened again") return event.tracing;
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
      return { ...tracing, part: undefined, found: event.found, proposals: event.found.proposals };
    case "failed":
      return { ...tracing, part: undefined, failed: event.why };
    case "changed": {
      const { proposals, picked, step } = event;
      const before = [...tracing.before, { proposals: tracing.proposals, step }].slice(-MOST_BEFORE);
      return { ...tracing, proposals, before, picked, splitting: false };
    }
    case "taken back": {
      const last = tracing.before.at(-1);
      if (!last) return tracing;
      return {
        ...tracing,
        proposals: last.proposals,
        before: tracing.before.slice(0, -1),
        picked: [],
        splitting: false,
      };
    }
    case "accepted":
      // what was accepted is taken back by undoing it; changes before it are made
      return { ...tracing, accepted: [...tracing.accepted, event.accepted], picked: [], before: [] };
    case "picked":
      return { ...tracing, picked: event.ids, splitting: false };
    case "shown": {
      const shown = new Set(tracing.shown);
      if (event.on) shown.add(event.group);
      else shown.delete(event.group);
      return { ...tracing, shown };
    }
    case "pulled":
      return { ...tracing, pulled: event.pulled };
    case "splitting":
      return { ...tracing, splitting: event.on };
    case "lit":
      return tracing.lit === event.id ? tracing : { ...tracing, lit: event.id };
  }
};

/** The picture as it lies now; undefined where it lies under the drawing no more, or has no scale. */
export const tracedPicture = ({ blob }: Tracing, drawing: Drawing): Picture | undefined => {
  const picture = pictureOf(drawing, blob);
  return picture?.scaled ? picture : undefined;
};

/** Which of the proposals were accepted, and are in the drawing still. */
const takenIn = (tracing: Tracing, { steps }: Pick<HistoryPart, "steps">): ReadonlySet<number> =>
  new Set(
    tracing.accepted.flatMap(({ ids, step, edit }) =>
      steps.position > step && stepAt(steps, step) === edit ? ids : [],
    ),
  );

/** What is still proposed. */
export const proposedIn = (tracing: Tracing, history: Pick<HistoryPart, "steps">): readonly Proposal[] => {
  const taken = takenIn(tracing, history);
  return taken.size === 0 ? tracing.proposals : tracing.proposals.filter(({ id }) => !taken.has(id));
};

/** All proposals, those that are still proposed being others now. */
export const withProposed = (tracing: Tracing, history: Pick<HistoryPart, "steps">, proposed: Proposals): Proposals => {
  const taken = takenIn(tracing, history);
  return [...tracing.proposals.filter(({ id }) => taken.has(id)), ...proposed];
};

/** An id that no proposal has, nor one that was accepted, whatever was taken back since. */
export const freshProposal = ({ proposals, accepted }: Tracing): number =>
  greatest([-1, ...proposals.map(({ id }) => id), ...accepted.flatMap(({ ids }) => ids)]) + 1;
