import { mkdir, readdir, readFile, rename, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { surveyOf } from "@ash-edge/core/checks";
import { settingsOf } from "@ash-edge/core/drawing";
import {
  compareDxf,
  lettersOf,
  machineFile,
  machineText,
  PLAIN_PROFILE,
  readProfileFile,
  releaseName,
  type MachineProfile,
} from "@ash-edge/core/release";
import { sayFault, sayRefusal } from "@ash-edge/core/say";
import type { Arguments } from "./arguments.ts";
import { openJob } from "./openFile.ts";
import { Unusable } from "./unusable.ts";

/** A name is no longer than this with its extension. */
const MOST_LETTERS = 116;

const profileOf = async (file: string | undefined): Promise<MachineProfile> => {
  if (file === undefined) return PLAIN_PROFILE;
  const text = await readFile(file, "utf8").catch(() => {
    throw new Unusable(`${file}: there is no such file, or it can't be read`);
  });
  const read = readProfileFile(text);
  if (!read.ok) throw new Unusable(`${file}: ${sayRefusal(read.refusal, "mm")}`);
  return read.value;
};

/**
 * Releases a saved job as the page does: looked over by the same list, written by a machine's profile, read back by a
 * reader that is not ours (an SVG by ours), and only then put into the folder, under a name that nothing has there.
 */
export const releaseJob = async (options: Arguments): Promise<{ readonly code: 0 | 1; readonly text: string }> => {
  const [input, ...more] = options.inputs;
  if (input === undefined || more.length > 0) throw new Unusable("release takes one saved job; see --help");
  const profile = await profileOf(options.profile);
  const { drawing, head, material, thickness } = await openJob(input);
  const asked = {
    stock: { material, thickness },
    layers: profile.layersBy,
    letters: lettersOf(profile.format),
    tappedApart: profile.tapped !== "cut",
  };
  const { plan, verdict } = surveyOf(drawing, asked);
  const findings = plan.faults.map((fault) => ({
    code: fault.code,
    severity: fault.severity,
    message: sayFault(fault, plan.unit),
  }));
  const say = (file: string | null, layers: readonly object[] = []): { code: 0 | 1; text: string } => ({
    code: file === null ? 1 : 0,
    text: options.json
      ? `${JSON.stringify({ file, profile: profile.name, verdict: verdict.words, layers, findings })}\n`
      : [
          ...findings.map(({ severity, code, message }) => `${severity} ${code}: ${message}`),
          verdict.words,
          file === null ? "nothing was written" : `${file}, read back and the same`,
          "",
        ].join("\n"),
  });
  if (!plan.ready) return say(null);
  const made = machineFile(plan, profile, settingsOf(drawing).datum);
  if (!made.ok) throw new Unusable(`${input}: ${sayRefusal(made.refusal, plan.unit)}`);
  const text = machineText(made.value);
  if (!text.ok) throw new Unusable(`${input}: ${sayRefusal(text.refusal, plan.unit)}`);
  const compared = profile.format === "SVG" ? undefined : compareDxf(made.value, text.value);
  if (compared && compared.differences.length > 0)
    throw new Unusable(
      `${input}: what was written reads back differently: ${compared.differences.slice(0, 3).join(" ")}`,
    );
  const file = await put(options.out!, head, profile.format === "SVG" ? ".svg" : ".dxf", text.value);
  return say(file, compared?.layers);
};

/** Puts a release into a folder under the first number that is free there; whole at any time. */
const put = async (
  folder: string,
  { number, name }: { readonly number: string; readonly name: string },
  extension: string,
  text: string,
): Promise<string> => {
  try {
    await mkdir(folder, { recursive: true });
    const taken = new Set((await readdir(folder)).map((one) => one.toLowerCase()));
    let own = "";
    for (let n = 1; own === "" || taken.has(own.toLowerCase()); n++)
      own = `${releaseName(number, name, n, MOST_LETTERS)}${extension}`;
    const path = join(folder, own);
    await writeFile(`${path}.part`, text);
    await rename(`${path}.part`, path);
    return path;
  } catch (reason) {
    throw new Unusable(`${folder}: it can't be written there (${(reason as NodeJS.ErrnoException).code ?? "unknown"})`);
  }
};
