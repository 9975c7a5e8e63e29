import type { Id } from "../numeric/id.ts";

/** What becomes of a layer's geometry at the machine. `profile` is cut, outside or inside by its nesting. */
export const CUT_ROLES = ["profile", "outside", "inside", "mark", "layout"] as const;
export type CutRole = (typeof CUT_ROLES)[number];

export type Layer = {
  readonly id: Id;
  readonly name: string;
  readonly role: CutRole;
  readonly shown: boolean;
  readonly locked: boolean;
  /** A number of the standard palette, as a file named it, or `#rrggbb`; without one it is drawn as its role has it. */
  readonly colour?: string;
  /** Where it stands among the others; by its id without one. */
  readonly order?: number;
};

/** The layers of a new drawing; their ids are the first ones given out. */
export const PROFILE_LAYER: Id = 1;
export const LAYOUT_LAYER: Id = 2;
export const MARK_LAYER: Id = 3;

export const FIRST_LAYERS: readonly Layer[] = [
  { id: PROFILE_LAYER, name: "Profile", role: "profile", shown: true, locked: false },
  { id: LAYOUT_LAYER, name: "Layout", role: "layout", shown: true, locked: false },
  { id: MARK_LAYER, name: "Marks", role: "mark", shown: true, locked: false },
];
