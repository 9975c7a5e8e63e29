import Papa from "papaparse";
import { calloutText, stateText, toleranceText } from "../../callouts/describe.ts";
import { isWaived, type CalloutRow } from "../../checks/verdict.ts";
import type { Unit } from "../../numeric/units.ts";
import { SAFE_CSV } from "./safeCsv.ts";

/** The callouts of a job as CSV (RFC 4180), one row each; numbers as the shortest text that reads back the same. */
export const calloutCsv = (rows: readonly CalloutRow[], unit: Unit): string =>
  `${Papa.unparse(
    {
      fields: ["called", "name", "kind", "tolerance", `value ${unit}`, "measured", "off by", "state", "waived"],
      data: rows
        .map((row) => [row.callout, row.state, isWaived(row)] as const)
        .map(([callout, state, waived]) => [
          calloutText(callout, unit),
          callout.name,
          callout.kind,
          toleranceText(callout),
          callout.value,
          state.state === "not placed" ? null : state.measured,
          state.state === "not placed" ? null : state.by,
          stateText(state, callout),
          waived && callout.waived ? `${callout.waived.on} ${callout.waived.reason}` : "",
        ]),
    },
    SAFE_CSV,
  )}\r\n`;
