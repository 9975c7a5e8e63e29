import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useState } from "react";
import { sketchesOf, type Database } from "../store/index.ts";

type Shown = { readonly url: string; readonly id: string };

/** The first sketch of a job as something an image can show; undefined without one. */
export const useSketch = (database: Database, job: string | undefined): Shown | undefined => {
  const blob = useLiveQuery(async () => (job ? (await sketchesOf(database, job))[0] : undefined), [database, job]);
  const [shown, setShown] = useState<Shown>();
  useEffect(() => {
    if (!blob) return undefined;
    const url = URL.createObjectURL(new Blob([blob.bytes.slice()], { type: blob.type }));
    const frame = requestAnimationFrame(() => setShown({ url, id: blob.id }));
    return () => {
      cancelAnimationFrame(frame);
      URL.revokeObjectURL(url);
    };
  }, [blob]);
  return blob?.id === shown?.id ? shown : undefined;
};
