import type { ReleasePlan } from "@ash-edge/core/checks";
import type { LayerTable } from "@ash-edge/core/cutter";
import type { Point } from "@ash-edge/core/geometry";
import { layerInFile, type Comparison, type MachineProfile } from "@ash-edge/core/release";
import {
  chooseProfile,
  releaseId,
  checksumOf,
  placeInHistory,
  releasesOf,
  type BlobRecord,
  type Database,
} from "../store/index.ts";
import { readBackSvg } from "./readBackSvg.ts";
import { releaseWork } from "./releaseWork.ts";

export const extensionOf = ({ format }: MachineProfile): string => (format === "SVG" ? ".svg" : ".dxf");

/** The place in the job's history from which a release is made. */
export type ReleasedFrom = { readonly position: number; readonly at: string };

/** The file did not read back as it was written: nothing is offered. */
export class ReadsDifferently extends Error {}

/** A release of the job bears the name already. */
export class NameTaken extends Error {
  constructor({ name, number }: BlobRecord) {
    super(`${name} is the name of release no. ${number}. Choose another one.`);
  }
}

/** What is released: a plan for a machine, with the job's datum, and what was said of it. */
export type ToRelease = {
  readonly plan: ReleasePlan;
  readonly profile: MachineProfile;
  readonly datum: Point;
  readonly verdict: string;
  readonly waived: readonly string[];
};

/** What lies on each layer of the file: a profile where what is cut lies there outside and inside alike. */
const usesOf = ({ plan: { contours }, profile }: ToRelease): LayerTable => {
  const uses: Record<string, LayerTable[string]> = {};
  for (const contour of contours) {
    const layer = layerInFile(contour, profile);
    const use = contour.tapped && profile.tapped !== "cut" ? "tapped" : contour.role;
    uses[layer] = uses[layer] === undefined || uses[layer] === use ? use : "profile";
  }
  return uses;
};

/** The text of a release, and how it compares with what an independent reader finds in it. */
const written = async (
  { plan: { contours, unit, layers }, profile, datum }: ToRelease,
  signal: AbortSignal,
): Promise<{ readonly text: string; readonly comparison: Comparison }> => {
  const plan = { contours, unit, layers };
  const { text, comparison } = await releaseWork((remote) => remote.write(plan, profile, datum), signal);
  if (comparison) return { text, comparison };
  const found = await readBackSvg(text, signal);
  const compared = await releaseWork((remote) => remote.compareSvg(plan, profile, datum, text, found), signal);
  return { text, comparison: compared };
};

/**
 * Writes the file, reads it back with an independent reader, compares, and keeps the file with its job and checksum.
 */
export const writeRelease = async (
  database: Database,
  job: string,
  release: ToRelease,
  name: string,
  { position, at }: ReleasedFrom,
  signal: AbortSignal,
): Promise<{ readonly file: BlobRecord; readonly comparison: Comparison }> => {
  const { text, comparison } = await written(release, signal);
  const { differences } = comparison;
  if (differences.length > 0)
    throw new ReadsDifferently(
      `The file was written but reads back differently, so it is not offered. ${differences.slice(0, 5).join(" ")}`,
    );
  const bytes = new TextEncoder().encode(text);
  const checksum = await checksumOf(bytes);
  if (signal.aborted) throw new Error("Stopped.");
  // another tab may release as well: number and name are looked at where they are taken
  const file = await database.transaction(
    "rw",
    [database.blobs, database.jobs, database.heads, database.journal],
    async () => {
      const before = await releasesOf(database, job);
      const taken = before.find((one) => sameName(one.name, name));
      if (taken) throw new NameTaken(taken);
      const number = (before[0]?.number ?? 0) + 1;
      const blob: BlobRecord = {
        id: releaseId(job, number),
        job,
        kind: "release",
        name,
        type: release.profile.format === "SVG" ? "image/svg+xml" : "image/vnd.dxf",
        bytes,
        checksum,
        made: Date.now(),
        number,
        position,
        at,
        profile: release.profile.name,
        verdict: release.verdict,
        waived: release.waived,
        uses: usesOf(release),
      };
      await database.blobs.add(blob);
      const record = await database.jobs.get(job);
      const changed = (await placeInHistory(database, job)) !== at;
      if (record)
        await database.jobs.put({
          ...record,
          state: "released",
          released: { number, at },
          changed,
          updated: Date.now(),
        });
      return blob;
    },
  );
  // the job keeps to the machine that it was released for, whatever others choose; worth no alarm where it can't be
  await chooseProfile(database, job, release.profile.name).catch(() => undefined);
  return { file, comparison };
};

/** File systems of shops take large and small letters for the same. */
export const sameName = (p: string, q: string): boolean => p.toLowerCase() === q.toLowerCase();
