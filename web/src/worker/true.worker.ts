import { expose } from "comlink";
import type { Drawing } from "@ash-edge/core/drawing";
import { lookTrue, numbersStanding, type NumbersStanding, type TrueAsk, type TrueLook } from "@ash-edge/core/solve";

export type TrueInput = { readonly drawing: Drawing; readonly ask: TrueAsk | undefined };

/** What making numbers true would do, and how the numbers of a drawing stand to one another. */
export type TrueFound = { readonly look: TrueLook | undefined; readonly standing: NumbersStanding };

const work = ({ drawing, ask }: TrueInput): TrueFound => ({
  look: ask && lookTrue(drawing, ask),
  standing: numbersStanding(drawing),
});

export const worker = { work };
export type TrueWorker = typeof worker;
expose(worker);
