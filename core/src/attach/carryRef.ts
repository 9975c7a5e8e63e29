import type { Ref } from "../drawing/ref.ts";
import { carryCarrier, carrySpan } from "./carryCurve.ts";
import { carryPlace } from "./carryPlace.ts";
import type { Need } from "./holders.ts";
import type { Passage } from "./passage.ts";
import { placeOf } from "./places.ts";

/** Where one reference went: one place, two where a whole line became its two ends, none. */
export const carryRef = (
  passage: Passage,
  ref: Ref,
  need: Need,
  used: readonly Ref[] = [],
): readonly Ref[] | undefined => {
  if (ref.place !== undefined || placeOf(passage.before, ref)) {
    const place = carryPlace(passage, ref);
    return place && [place];
  }
  if (need === "span") return carrySpan(passage, ref);
  const whole = carryCarrier(passage, ref, need === "direction", used);
  return whole && [whole];
};
