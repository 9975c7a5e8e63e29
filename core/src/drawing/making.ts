/** How a job is cut: by a cutter that turns, or by a jet or a beam with its kerf. */
export const TOOL_KINDS = ["cutter", "waterjet", "plasma", "laser"] as const;
export type ToolKind = (typeof TOOL_KINDS)[number];

/** What a job is made with, as far as it says. Lengths in the job's unit. */
export type Making = {
  /** A cutter by its diameter, a jet or a beam by its kerf. */
  readonly tool?: { readonly name: string; readonly kind: ToolKind; readonly diameter: number };
  /** The sheet or slab that it is cut from. */
  readonly sheet?: { readonly name: string; readonly width: number; readonly height: number };
  /** No wall is to be thinner; where it says none it follows from material and thickness. */
  readonly wall?: number;
};
