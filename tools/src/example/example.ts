import type { NewAnnotation } from "@ash-edge/core/annotate";
import type { Callout } from "@ash-edge/core/drawing";
import type { Shape } from "@ash-edge/core/shape";

export type At = readonly [x: number, y: number];

/** A small piece of work by which a tool is explained: what stands there, what is typed, chosen and clicked. */
export type Example = {
  readonly cut?: readonly Shape[];
  readonly layout?: readonly Shape[];
  /** Dimensions and notes on it; the first thing cut has the id 6. */
  readonly annotations?: readonly NewAnnotation[];
  readonly typed?: Readonly<Record<string, string>>;
  readonly chosen?: Readonly<Record<string, string>>;
  /** Callouts, placed on what is cut; the tool is taken up from the first. */
  readonly callouts?: readonly Omit<Callout, "id">[];
  readonly called?: true;
  /** All that is cut is selected when the tool is taken up. */
  readonly selected?: boolean;
  readonly clicks?: readonly At[];
  /** The clicks are on a sketch picture, 400 by 300 pixels, that shows 200 by 150 of the unit. */
  readonly onPicture?: readonly At[];
  /** The handle of what stands there that the tool is taken up at. */
  readonly grab?: At;
  /** The handle is that of the first text. */
  readonly grabText?: true;
  /** Enter instead of a last click. */
  readonly finish?: boolean;
  /** Clicks after Enter. */
  readonly then?: readonly At[];
};
