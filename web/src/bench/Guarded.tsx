import type { ReactNode } from "react";
import { Guard } from "../app/Fault.tsx";
import { useBench } from "./SessionContext.tsx";

/** A panel whose fault stays its own; the next change of the drawing tries it again. */
export const Guarded = ({ name, children }: { name: string; children: ReactNode }) => (
  <Guard name={name} when={useBench((state) => state.history.drawing)}>
    {children}
  </Guard>
);
