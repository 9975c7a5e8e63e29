import { createContext, useContext } from "react";
import { useStore } from "zustand";
import type { BenchState } from "./state/index.ts";
import type { Session } from "./session.ts";

export const SessionContext = createContext<Session | undefined>(undefined);

export const useSession = (): Session => {
  const session = useContext(SessionContext);
  if (!session) throw new Error("No session above this component.");
  return session;
};

/** A slice of the bench's state. */
export const useBench = <T,>(select: (state: BenchState) => T): T => useStore(useSession(), select);
