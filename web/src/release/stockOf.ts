import type { Stock } from "@ash-edge/core/checks";
import type { Unit } from "@ash-edge/core/numeric";
import { thicknessOf } from "@ash-edge/core/tables";
import type { JobRecord } from "../store/index.ts";

/** What a job is cut from, as its head says it. */
export const stockOf = ({ material, thickness }: JobRecord, unit: Unit): Stock => ({
  material,
  thickness: thicknessOf(thickness, unit),
});
