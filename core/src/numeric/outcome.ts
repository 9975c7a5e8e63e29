import type { Point } from "../geometry/point.ts";

/** Every reason for which the core declines; the sentence for each is made in `say/`. */
export const REFUSAL_CODES = [
  "value-empty",
  "value-unreadable",
  "value-two-ways",
  "value-two-kinds",
  "value-kind-not-here",
  "value-zero-division",
  "value-not-a-length",
  "value-not-a-count",
  "value-not-positive",
  "value-too-large",
  "point-inside-circle",
  "circle-inside-circle",
  "circles-same",
  "curves-same",
  "no-tangent",
  "lines-parallel",
  "radius-too-small",
  "radius-too-large",
  "radius-no-fit",
  "cut-too-large",
  "parallel-shrinks-away",
  "cannot-parallel",
  "trim-single-cut",
  "trim-endless",
  "trim-point",
  "no-length",
  "nothing-to-join",
  "already-joined",
  "nothing-to-clear",
  "same-point",
  "points-in-line",
  "no-foot",
  "arc-turns-back",
  "polygon-sides",
  "slot-too-short",
  "slot-too-wide",
  "curves-meet",
  "thread-unknown",
  "no-clearance",
  "count-too-large",
  "pick-first",
  "not-a-curve",
  "not-straight",
  "not-a-piece",
  "not-an-arc",
  "smooth-not-here",
  "no-end-here",
  "not-round",
  "not-closed",
  "layout-not-crossed",
  "cannot-divide",
  "layer-locked",
  "layer-last",
  "layer-not-empty",
  "endless-is-layout",
  "layer-name-taken",
  "corners-in-line",
  "corners-crossed",
  "picture-points-near",
  "picture-first",
  "picture-unscaled",
  "pictures-differ",
  "picture-locked",
  "snap-not-here",
  "property-impossible",
  "axes-swapped",
  "nothing-selected",
  "dxf-empty",
  "dxf-not-text",
  "dxf-binary",
  "dxf-bad-code",
  "dxf-truncated",
  "dxf-no-entities",
  "file-not-readable",
] as const;
export type RefusalCode = (typeof REFUSAL_CODES)[number];

export type Refusal = {
  readonly code: RefusalCode;
  readonly values: Readonly<Record<string, number | string>>;
  readonly at?: Point;
};

export type Outcome<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly refusal: Refusal };

export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });

export const refuse = (
  code: RefusalCode,
  values: Refusal["values"] = {},
  at?: Point,
): { ok: false; refusal: Refusal } => ({
  ok: false,
  refusal: at ? { code, values, at } : { code, values },
});
