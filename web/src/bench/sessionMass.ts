import type { Drawing, Edit } from "@ash-edge/core/drawing";
import { isLarge, noteDerived } from "./derived.ts";
import { makeMass, type Mass } from "./mass.ts";
import type { SessionCore } from "./sessionCore.ts";

/** A great drawing gets its worker when it has grown great; the worker is kept up edit by edit. */
export const makeMassKeeping = ({ get, send }: SessionCore) => {
  let mass: Mass | undefined;
  const listeners = new Set<() => void>();
  const hasWorkers = typeof Worker !== "undefined";

  const keepUp = (edit: Edit | undefined, drawing: Drawing): void => {
    if (mass && edit) return mass.step(edit, drawing);
    if (mass || !hasWorkers || !isLarge(drawing)) return;
    mass = makeMass(
      drawing,
      (_, derived) => {
        noteDerived(derived);
        send("history", { type: "derived" });
      },
      () => listeners.forEach((listener) => listener()),
    );
  };
  return {
    start: (): void => {
      noteDerived(undefined);
      keepUp(undefined, get().history.drawing);
    },
    keepUp,
    mass: (): Mass | undefined => mass,
    onPainted: (listener: () => void): (() => void) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    end: (): void => {
      mass?.end();
      mass = undefined;
    },
  };
};
