import { SNAP_WORDS, type SnapKind } from "@ash-edge/core/look";
import type { Action } from "../tool.ts";
import { view } from "./viewAction.ts";

/** The snaps that can be asked for by themselves, for one click. */
const ASKED: readonly SnapKind[] = [
  "end",
  "crossing",
  "centre",
  "middle",
  "quarter",
  "perpendicular",
  "tangent",
  "extended",
  "area",
];
export const snapOnceActions: readonly Action[] = ASKED.map((kind) => ({
  ...view(
    `snap-${kind}`,
    `Snap once: ${SNAP_WORDS[kind]}`,
    `The next click takes a ${SNAP_WORDS[kind]} and nothing else; with none in reach it makes nothing and says so.`,
    ["M12 12 m-5 0 a5 5 0 1 0 10 0 a5 5 0 1 0 -10 0", "M3 12 L7 12 M17 12 L21 12 M12 3 L12 7 M12 17 L12 21"],
  ),
  short: SNAP_WORDS[kind],
}));
