import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useDatabase } from "../app/StoreProvider.tsx";
import { isInMemory } from "../store/index.ts";
import { keepStored, storageNow } from "../app/storage.ts";

const size = (bytes: number | undefined): string => {
  if (bytes === undefined) return "not told by this browser";
  if (bytes < 1e6) return `${Math.ceil(bytes / 1e3)} kB`;
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(1)} GB`;
};

const KEEPS = {
  true: "The browser keeps them until they are deleted here.",
  false: "The browser may clear them when this computer runs out of room. Save what matters to files.",
  undefined: "This browser does not say whether it keeps them. Save what matters to files.",
} as const;

/** Where the jobs are, how much room they take, and whether the browser may clear them. */
export const StorageCard = () => {
  const queries = useQueryClient();
  const { data } = useQuery({ queryKey: ["storage"], queryFn: storageNow, staleTime: 0 });
  const inMemory = isInMemory(useDatabase());
  const [refused, setRefused] = useState(false);
  const ask = async (): Promise<void> => {
    setRefused(!(await keepStored()));
    await queries.invalidateQueries({ queryKey: ["storage"] });
  };
  return (
    <section className="card mt-3 p-4" aria-label="Storage">
      <h2 className="font-semibold">Storage</h2>
      <p className={`mt-1 ${inMemory ? "text-caution" : "text-soft"}`}>
        {inMemory
          ? "This browser gives the application no storage: all jobs are in memory alone and gone with this tab. " +
            "Save what matters to files."
          : "All jobs are in this browser, on this computer, and nowhere else."}
      </p>
      {data && !inMemory && (
        <>
          <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
            <dt className="text-soft">Used</dt>
            <dd className="figures">{size(data.used)}</dd>
            <dt className="text-soft">Free</dt>
            <dd className="figures">{size(data.free)}</dd>
          </dl>
          <p className={`mt-2 ${data.persisted ? "text-moss" : "text-caution"}`}>
            {KEEPS[String(data.persisted) as keyof typeof KEEPS]}
          </p>
          {!data.persisted && (
            <button
              type="button"
              className="mt-2 h-8 rounded-card border border-hair px-3 hover:border-ink"
              onClick={() => void ask()}
            >
              Ask the browser to keep them
            </button>
          )}
          {refused && !data.persisted && (
            <p role="status" className="mt-2 text-soft">
              It does not promise that now. Browsers say yes more readily to what is used often or installed.
            </p>
          )}
        </>
      )}
    </section>
  );
};
