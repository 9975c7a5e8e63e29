import { surveyOf, type Severity, type Standing } from "@ash-edge/core/checks";
import { applyEdit, settingsOf, type Drawing, type Making } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import type { Unit } from "@ash-edge/core/numeric";
import { sayFault } from "@ash-edge/core/say";
import type { Arguments } from "./arguments.ts";
import { openFile } from "./openFile.ts";
import { plainReport, type Finding } from "./report.ts";

/** What `check` prints as JSON; described in docs/formats.md. */
export type CheckReport = {
  readonly units: Unit;
  readonly verdict: string;
  readonly callouts: Standing;
  /** What was not looked at, since neither the file nor the arguments say what that needs. */
  readonly unasked: readonly string[];
  readonly findings: readonly Finding[];
  /** Nothing stands against cutting it, and no callout that is not waived is off or not placed. */
  readonly ready: boolean;
};

/** The drawing made with what the arguments say, over what the job says. */
const madeWith = (drawing: Drawing, { tool, wall }: Arguments): Drawing => {
  if (tool === undefined && wall === undefined) return drawing;
  const making: Making = {
    ...settingsOf(drawing).making,
    ...(tool === undefined ? {} : { tool: { name: `a tool of Ø ${tool}`, kind: "cutter", diameter: tool } }),
    ...(wall === undefined ? {} : { wall }),
  };
  const draft = draftEdit(drawing, "Making", "making");
  draft.set("settings", 0, { ...settingsOf(drawing), making });
  return applyEdit(drawing, draft.finish());
};

const GRAVEST: readonly Severity[] = ["error", "warning", "info"];

/** Looks a file over as Prove and Release do, by the same list in the same words. */
export const checkFile = async (file: string, options: Arguments): Promise<CheckReport> => {
  const { drawing, material, thickness, met } = await openFile(file, options);
  const stock = { material: options.material ?? material, thickness: options.thickness ?? thickness };
  const { plan, standing, verdict, unasked } = surveyOf(madeWith(drawing, options), { stock });
  const findings = [
    ...plan.faults.map((fault) => plainReport(fault.code, fault.severity, sayFault(fault, plan.unit), fault.at)),
    ...met,
  ].sort((p, q) => GRAVEST.indexOf(p.severity) - GRAVEST.indexOf(q.severity));
  const missing = met.some(({ severity }) => severity === "error");
  return {
    units: plan.unit,
    verdict: missing ? "Not ready to cut" : verdict.words,
    callouts: standing,
    unasked,
    findings,
    ready: !missing && plan.ready && standing.off === 0 && standing.notPlaced === 0,
  };
};

/** The report for people. */
export const checkText = ({ units, verdict, callouts, unasked, findings }: CheckReport): string =>
  [
    `unit ${units}`,
    ...(callouts.called > 0
      ? [`${callouts.called} called: ${callouts.notPlaced} not placed, ${callouts.off} off, ${callouts.waived} waived`]
      : []),
    ...findings.map(({ severity, code, message }) => `${severity} ${code}: ${message}`),
    ...(unasked.length > 0 ? [`not looked at: ${unasked.join(", ")}`] : []),
    verdict,
    "",
  ].join("\n");
