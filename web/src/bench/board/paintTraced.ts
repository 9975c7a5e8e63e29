import { placedShape, type Group } from "@ash-edge/core/picture/trace";
import { proposedIn, tracedPicture, type BenchState } from "../state/index.ts";
import { stroke, type Canvas, type Style } from "./paintMass.ts";
import type { Palette } from "./palette.ts";
import { traceShape } from "./trace.ts";
import { inSight } from "./view.ts";

/** What is proposed of a picture: the outline plain, thin lines fine, what is doubtful broken; what is picked lit. */
export const paintTraced = (
  canvas: Canvas,
  { tracing, view: { now: view, size }, history }: BenchState,
  palette: Palette,
): void => {
  const picture = tracing?.found && tracedPicture(tracing, history.drawing);
  if (!tracing || !picture) return;
  const box = inSight(view, size);
  const looks: Readonly<Record<Group, Style>> = {
    thin: { colour: palette.soft, width: 1.2, dash: [] },
    doubtful: { colour: palette.caution, width: 1.8, dash: [3, 3] },
    outline: { colour: palette.ember, width: 2.4, dash: [] },
  };
  const all = proposedIn(tracing, history).filter(({ group }) => tracing.shown.has(group));
  const draw = (some: typeof all, style: Style): void =>
    stroke(canvas, style, () => {
      for (const { shape } of some) traceShape(canvas, view, placedShape(picture, shape), box);
    });
  for (const group of ["thin", "doubtful", "outline"] as const) {
    const own = all.filter((one) => one.group === group);
    if (own.length > 0) draw(own, looks[group]);
  }
  const lit = all.filter(({ id }) => id === tracing.lit);
  if (lit.length > 0) draw(lit, { colour: palette.moss, width: 4, dash: [] });
  const picked = all.filter(({ id }) => tracing.picked.has(id));
  if (picked.length > 0) draw(picked, { colour: palette.moss, width: 3, dash: [] });
};
