import { measureCallout } from "../callouts/measure.ts";
import { calloutsOf, picturesOf } from "../drawing/drawing.ts";
import type { Check, Fault } from "./check.ts";

const MM_IN_INCH = 25.4;
/** Measured and called are told apart by the unit when they are this near to it. */
const NEARLY = 1e-3;

/** What the sketch and the numbers on it leave open. */
export const sketchPins: Check = {
  id: "sketch",
  name: "The sketch is read whole",
  source: "Common practice: each number is found on the sketch.",
  find: ({ drawing }) => {
    const callouts = calloutsOf(drawing).filter(({ reference }) => !reference);
    const pictures = picturesOf(drawing);
    const bare = callouts.filter(({ pin }) => !pin);
    const pinned = callouts.length - bare.length;
    const unscaled = pictures.filter(({ scaled, shown }) => shown && !scaled);
    const inches = callouts.flatMap((callout) => {
      const state = measureCallout(drawing, callout);
      if (state.state !== "off" || callout.kind === "angle" || callout.kind === "count" || callout.value === 0)
        return [];
      const ratio = Math.abs(state.measured / callout.value);
      const isUnit = [MM_IN_INCH, 1 / MM_IN_INCH].some((one) => Math.abs(ratio / one - 1) <= NEARLY);
      return isUnit ? [callout] : [];
    });
    const of = (code: string, severity: Fault["severity"], things: number, ids: Fault["ids"] = []): Fault[] =>
      things === 0 ? [] : [{ code, severity, ids, values: { things } }];
    return [
      ...of(
        "unit-by-callout",
        "warning",
        inches.length,
        inches.flatMap(({ links }) => links.map(({ id }) => id)),
      ),
      ...of("no-pin", "info", pinned > 0 ? bare.length : 0),
      ...of("not-scaled", "info", unscaled.length),
    ];
  },
  says: {
    "unit-by-callout": ({ things }) =>
      `${things === 1 ? "A called number is" : `${things} called numbers are`} off by just 25.4, ` +
      "the millimetres of an inch. Look whether the unit is right.",
    "no-pin": ({ things }) => `${things} callout${things === 1 ? " has" : "s have"} no pin on the sketch.`,
    "not-scaled": ({ things }) =>
      `${things} picture${things === 1 ? " is" : "s are"} shown without a scale: nothing can be measured there.`,
  },
};
