import { useLiveQuery } from "dexie-react-hooks";
import { useMemo } from "react";
import { PLAIN_PROFILE, type MachineProfile } from "@ash-edge/core/release";
import { useDatabase } from "../app/StoreProvider.tsx";
import { keptProfiles, profileFor, type KeptProfiles } from "../store/index.ts";

/** The machine that a job is for, among those that are kept; until these are there the plain one. */
export const useJobProfile = (
  job: string,
): { readonly kept: KeptProfiles | undefined; readonly profile: MachineProfile; readonly gone?: string } => {
  const database = useDatabase();
  const kept = useLiveQuery(() => keptProfiles(database), [database]);
  return useMemo(() => ({ kept, ...(kept ? profileFor(kept, job) : { profile: PLAIN_PROFILE }) }), [kept, job]);
};
