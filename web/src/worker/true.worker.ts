import { expose } from "comlink";
import type { Drawing } from "@ash-edge/core/drawing";
import {
  lookTrue,
  numbersStanding,
  proposeLinks,
  type LinkProposal,
  type NumbersStanding,
  type TrueAsk,
  type TrueLook,
} from "@ash-edge/core/solve";

export type TrueInput = { readonly drawing: Drawing; readonly ask: TrueAsk | undefined };

/** What making numbers true would do, and how the numbers of a drawing stand to one another. */
export type TrueFound = {
  readonly look: TrueLook | undefined;
  readonly standing: NumbersStanding;
  /** Where callouts that are not placed may belong. */
  readonly proposed: readonly LinkProposal[];
};

const work = ({ drawing, ask }: TrueInput): TrueFound => ({
  look: ask && lookTrue(drawing, ask),
  standing: numbersStanding(drawing),
  proposed: proposeLinks(drawing),
});

export const worker = { work };
export type TrueWorker = typeof worker;
expose(worker);
