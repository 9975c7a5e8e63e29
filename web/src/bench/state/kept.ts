import type { SnapKind } from "@ash-edge/core/look";
import type { SizeKind } from "@ash-edge/core/numeric";
import type { BankKey } from "@ash-edge/tools";

/** What is kept from one use of a tool to the next, in this browser. */
export type Kept = {
  readonly choices: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly kinds: Readonly<Record<string, Readonly<Record<string, SizeKind>>>>;
  /** Values that made something, by unit, tool and blank, newest first, as typed: offered, never held. */
  readonly used: Readonly<Record<string, readonly UsedValue[]>>;
  readonly selecting: Selecting;
  readonly snaps: SnapSettings;
  /** Where the sketch card stands, and whether it is enlarged. */
  readonly card: { readonly side: "left" | "right"; readonly large: boolean };
  /** Banks that were put on other keys: the key that takes each. */
  readonly keys: Readonly<Partial<Record<BankKey, BankKey>>>;
  /** Handles are shown on what is selected. */
  readonly handles: boolean;
  readonly tidy: { readonly ignoreLayer: boolean; readonly sharedEdges: "keep" | "drop" | "merge" };
};
/** A value that made something, and the job in which it did. */
export type UsedValue = { readonly text: string; readonly job: string };

/** Which snaps are off, how near the pointer must be (CSS pixels), and whether that reach is drawn. */
export type SnapSettings = { readonly off: readonly SnapKind[]; readonly reach: number; readonly drawn: boolean };
/** What a click takes with no tool active, and what a box takes. */
export type Selecting = {
  readonly how: "one" | "run" | "kind" | "size" | "layer" | "inside";
  readonly box: "encloses" | "touches";
};
export const NOTHING_KEPT: Kept = {
  choices: {},
  kinds: {},
  used: {},
  selecting: { how: "one", box: "encloses" },
  snaps: { off: ["grid"], reach: 12, drawn: true },
  card: { side: "left", large: false },
  keys: {},
  handles: true,
  tidy: { ignoreLayer: false, sharedEdges: "keep" },
};

export type KeptEvent = { readonly type: "kept"; readonly change: Partial<Kept> };
export const keptAfter = (kept: Kept, { change }: KeptEvent): Kept => ({ ...kept, ...change });
