import { readFile } from "node:fs/promises";
import { surveyOf, type Severity, type Standing } from "@ash-edge/core/checks";
import { applyEdit, drawingFromRows, settingsOf, unitOf, type Drawing, type Making } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { openDrawing } from "@ash-edge/core/formats";
import type { Unit } from "@ash-edge/core/numeric";
import { sayFault, sayRefusal } from "@ash-edge/core/say";
import { thicknessOf } from "@ash-edge/core/tables";
import type { Arguments } from "./arguments.ts";
import { fileFindings, plainReport, unitFindings, type Finding } from "./report.ts";
import { Unusable } from "./unusable.ts";
import { readDrawing } from "./work.ts";

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

type Opened = { readonly drawing: Drawing; readonly material: string; readonly thickness?: number | undefined };

/** A saved job with its head, or a drawing of an open format with what was met while reading it. */
const open = async (file: string, options: Arguments): Promise<Opened & { readonly met: readonly Finding[] }> => {
  if (!/\.ashedge\.json$/i.test(file)) {
    const read = await readDrawing(file);
    // what is no arc, or is no cut geometry, the checks say themselves; dimensions are put on what they measure
    const { dimensions: _, leaders: __, ...rest } = read;
    const met = [...unitFindings(read, options.units), ...fileFindings(rest, [])];
    return { drawing: openDrawing(read, read.unit ?? options.units ?? "mm"), material: "", met };
  }
  const { readJobFile } = await import("@ash-edge/core/formats/job");
  const text = await readFile(file, "utf8").catch(() => {
    throw new Unusable(`${file}: there is no such file, or it can't be read`);
  });
  const job = readJobFile(text);
  if (!job.ok) throw new Unusable(`${file}: ${sayRefusal(job.refusal, "mm")}`);
  const { head, drawing: rows, nextId, mended } = job.value;
  const drawing = drawingFromRows(rows as never, nextId);
  return {
    drawing,
    material: head.material,
    thickness: thicknessOf(head.thickness, unitOf(drawing)),
    met: mended.map((sentence) => plainReport("mended", "warning", sentence)),
  };
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
  const { drawing, material, thickness, met } = await open(file, options);
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
