import { createContext, useContext, type ReactNode } from "react";
import type { Database } from "../store/index.ts";

const StoreContext = createContext<Database | undefined>(undefined);

export const StoreProvider = ({ database, children }: { database: Database; children: ReactNode }) => (
  <StoreContext value={database}>{children}</StoreContext>
);

/** The browser's store. */
export const useDatabase = (): Database => {
  const database = useContext(StoreContext);
  if (!database) throw new Error("No store above this component.");
  return database;
};
