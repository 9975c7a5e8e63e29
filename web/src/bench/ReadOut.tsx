import { showLength } from "@ash-edge/core/numeric";
import { countByKind, settingsOf, unitOf } from "@ash-edge/core/drawing";
import { zoomRatio } from "./board/view.ts";
import { useBench } from "./SessionContext.tsx";

const fixed = (value: number, unit: "mm" | "in"): string => (unit === "mm" ? value.toFixed(3) : value.toFixed(4));

/** Where the pointer is, which snap and which direction hold, and the zoom. */
export const ReadOut = () => {
  const hover = useBench((state) => state.hover);
  const heldWord = useBench((state) => state.heldWord);
  const view = useBench((state) => state.view);
  const selected = useBench((state) => countByKind(state.drawing, state.selection));
  const settings = useBench((state) => settingsOf(state.drawing));
  const unit = useBench((state) => unitOf(state.drawing));
  const at = hover && { x: hover.at.x - settings.datum.x, y: hover.at.y - settings.datum.y };
  const number = (value: number | undefined): string =>
    value === undefined ? "–" : hover?.snap ? showLength(value, unit) : fixed(value, unit);
  return (
    <footer
      role="status"
      aria-label="Read-out"
      aria-live="off"
      className="figures flex h-7 shrink-0 items-center gap-5 border-t border-hair px-3 text-xs text-soft"
    >
      <span className="min-w-28">x {number(at?.x)}</span>
      <span className="min-w-28">y {number(at?.y)}</span>
      <span className="min-w-28">snap {hover?.snap?.kind ?? "none"}</span>
      <span className="min-w-24">hold {heldWord ?? "none"}</span>
      {selected && <span className="truncate text-moss">{selected} selected</span>}
      <span className="flex-1" />
      <span>{zoomRatio(view, unit)}</span>
    </footer>
  );
};
