import { compareRead, writeDxf, type DxfVersion } from "@ash-edge/core/formats/dxf";
import type { ReleasePlan } from "@ash-edge/core/prove";
import { checksumOf, releasesOf, type BlobRecord, type Database } from "../store/index.ts";
import { readBack } from "./readBack.ts";

/** The file did not read back as it was written: nothing is offered. */
export class ReadsDifferently extends Error {}

/** Writes the DXF, reads it back with an independent reader, compares, and keeps the file with its job and checksum. */
export const writeRelease = async (
  database: Database,
  job: string,
  plan: ReleasePlan,
  name: string,
  position: number,
  version: DxfVersion,
): Promise<BlobRecord> => {
  const text = writeDxf(plan.contours, plan.unit, version);
  const differences = compareRead(plan.contours, plan.unit, await readBack(text));
  if (differences.length > 0)
    throw new ReadsDifferently(
      `The file was written but reads back differently, so it is not offered. ${differences.join(" ")}`,
    );
  const bytes = new TextEncoder().encode(text);
  const checksum = await checksumOf(bytes);
  const number = ((await releasesOf(database, job))[0]?.number ?? 0) + 1;
  const blob: BlobRecord = {
    id: `${job}-release-${number}`,
    job,
    kind: "release",
    name,
    type: "image/vnd.dxf",
    bytes,
    checksum,
    made: Date.now(),
    number,
    position,
  };
  await database.transaction("rw", database.blobs, database.jobs, async () => {
    await database.blobs.add(blob); // never over one that another tab has released
    await database.jobs.update(job, { state: "released", updated: Date.now() });
  });
  return blob;
};
