import type { CuttingTool, Sheet } from "../tables/tools.ts";

/** What a job is made with, as far as it says. Lengths in the job's unit. */
export type Making = {
  readonly tool?: CuttingTool;
  /** The sheet or slab that it is cut from. */
  readonly sheet?: Sheet;
  /** No wall is to be thinner; where it says none it follows from material and thickness. */
  readonly wall?: number;
};
