import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useState } from "react";
import { sketchesOf, type Database } from "../store/index.ts";

/** The first sketch of a job as something an image can show; undefined without one. */
export const useSketch = (database: Database, job: string | undefined): { readonly url: string; readonly id: string } | undefined => {
  const blob = useLiveQuery(async () => (job ? (await sketchesOf(database, job))[0] : undefined), [database, job]);
  const [shown, setShown] = useState<{ url: string; id: string }>();
  useEffect(() => {
    if (!blob) return setShown(undefined);
    const url = URL.createObjectURL(new Blob([blob.bytes.slice()], { type: blob.type }));
    setShown({ url, id: blob.id });
    return () => URL.revokeObjectURL(url);
  }, [blob]);
  return shown;
};
