import { toScreen } from "../board/view.ts";
import { useBench } from "../SessionContext.tsx";
import type { BenchState } from "../state/index.ts";
import { due } from "./due.ts";

/** Where the next click belongs, in pixels of the board. */
const placeOf = (state: BenchState, axis: "x" | "y"): number | undefined => {
  const { click } = due(state);
  return click && toScreen(state.view.now, click)[axis];
};

/** Where the worked example wants the next click: a ring on the board, which takes no clicks itself. */
export const ExamplePlace = () => {
  const x = useBench((state) => placeOf(state, "x"));
  const y = useBench((state) => placeOf(state, "y"));
  if (x === undefined || y === undefined) return null;
  return (
    <span
      role="img"
      aria-label="Click here"
      className="is-due pointer-events-none absolute h-7 w-7 rounded-full border-2 border-moss"
      style={{ left: x - 14, top: y - 14 }}
    />
  );
};
