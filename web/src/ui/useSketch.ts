import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useState } from "react";
import { sketchesOf, type Database } from "../store/index.ts";

export type ShownSketch = { readonly url: string; readonly id: string; readonly name: string };

/** The sketches of a job as something an image can show, in their order; undefined until they are there. */
export const useSketches = (database: Database, job: string | undefined): readonly ShownSketch[] | undefined => {
  const blobs = useLiveQuery(async () => (job ? sketchesOf(database, job) : []), [database, job]);
  const [shown, setShown] = useState<readonly ShownSketch[]>();
  useEffect(() => {
    if (!blobs) return undefined;
    const made = blobs.map(({ id, name, type, bytes }) => ({
      id,
      name,
      url: URL.createObjectURL(new Blob([bytes.slice()], { type })),
    }));
    const frame = requestAnimationFrame(() => setShown(made));
    return () => {
      cancelAnimationFrame(frame);
      made.forEach(({ url }) => URL.revokeObjectURL(url));
    };
  }, [blobs]);
  return shown;
};
