import type { Point } from "../geometry/point.ts";
import { severityOf, type Finding, type TidyCode } from "./things.ts";

/** A finding, before it is told whether it is mended. */
export const noted = (
  code: TidyCode,
  at: Point,
  ids: readonly number[],
  values: Finding["values"] = {},
  mendable = false,
): Omit<Finding, "fixed"> => ({ code, severity: severityOf(code), mendable, at, ids, values });
