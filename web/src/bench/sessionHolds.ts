import { curveAt } from "@ash-edge/core/drawing";
import { directionAt } from "@ash-edge/core/geometry";
import { SNAP_WORDS, type SnapKind } from "@ash-edge/core/look";
import { refuse } from "@ash-edge/core/numeric";
import type { Hover } from "@ash-edge/tools";
import type { SessionCore } from "./sessionCore.ts";
import { HOLD_LEVEL, HOLD_UPRIGHT, holdEdge, type Hold } from "./hold.ts";

/** What the next click is bound to: one kind of snap, or a direction, also that of an edge. */
export const makeHolds = ({ get, send, say, sayNo, refresh }: SessionCore) => {
  const setHold = (hold: Hold | undefined): void => {
    send("pointer", { type: "hold", hold });
    refresh();
  };
  return {
    setHold,
    askSnap: (kind: SnapKind): void => {
      send("pointer", { type: "snap asked", kind });
      say({ text: `The next click takes a ${SNAP_WORDS[kind]}, and nothing else. Esc lets that go.`, tone: "said" });
      refresh();
    },
    takeHold: (which: string): void => {
      if (which === "along" || which === "square") {
        send("pointer", { type: "edge asked", by: which });
        return say({ text: "Click the edge by which the direction is held. Esc lets that go.", tone: "said" });
      }
      setHold({ level: HOLD_LEVEL, upright: HOLD_UPRIGHT }[which]);
    },
    /** The edge that a direction is held by. */
    holdByEdge: (hover: Hover): void => {
      const ref = hover.under[0]?.ref;
      const curve = ref && curveAt(get().history.drawing, ref);
      if (!curve) return sayNo(refuse("not-a-curve").refusal);
      setHold(holdEdge(directionAt(curve, hover.under[0]!.at), get().pointer.askingEdge!));
      say(undefined);
    },
  };
};
