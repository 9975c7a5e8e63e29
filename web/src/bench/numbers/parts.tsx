import type { ReactNode } from "react";
import type { Ref } from "@ash-edge/core/drawing";
import { useSession } from "../SessionContext.tsx";

/** The look of a button in a row of a list. */
export const small = "h-6 shrink-0 rounded-card border border-hair px-1.5 text-xs whitespace-nowrap hover:border-ink";

/** A press takes no focus away from the board. */
export const keepFocus = (event: { preventDefault: () => void }): void => event.preventDefault();

/** What a row speaks of is lit on the board while the row is pointed at. */
export const useLight = () => {
  const { act } = useSession();
  return (refs: readonly Ref[]) => ({
    onMouseEnter: () => act.light(refs.map(({ id }) => id)),
    onFocus: () => act.light(refs.map(({ id }) => id)),
  });
};

export const Heading = ({ children }: { children: ReactNode }) => (
  <h3 className="border-t border-hair bg-board px-3 py-0.5 text-xs font-normal text-soft">{children}</h3>
);
