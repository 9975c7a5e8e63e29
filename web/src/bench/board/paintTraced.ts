import { fromPicture } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { breaksOf, placedShape, type Group } from "@ash-edge/core/picture/trace";
import { proposedIn, tracedPicture, type BenchState } from "../state/index.ts";
import { stroke, type Canvas, type Style } from "./paintMass.ts";
import type { Palette } from "./palette.ts";
import { traceShape } from "./trace.ts";
import { inSight, toScreen } from "./view.ts";

/** The dot at a place where two meet, and half a cross on the ink, px. */
const [DOT, SPECK] = [3, 2];

/** What is proposed of a picture: the outline plain, thin lines fine, what is doubtful broken; what is picked lit. */
export const paintTraced = (
  canvas: Canvas,
  { tracing, panels, view: { now: view, size }, history }: BenchState,
  palette: Palette,
): void => {
  const picture = tracing?.found && tracedPicture(tracing, history.drawing);
  if (!tracing || !picture) return;
  const inView = inSight(view, size);
  const looks: Readonly<Record<Group, Style>> = {
    thin: { colour: palette.soft, width: 1.2, dash: [] },
    doubtful: { colour: palette.caution, width: 1.8, dash: [3, 3] },
    outline: { colour: palette.ember, width: 2.4, dash: [] },
  };
  const all = proposedIn(tracing, history).filter(({ group }) => tracing.shown.has(group));
  const draw = (some: typeof all, style: Style): void =>
    stroke(canvas, style, () => {
      for (const { shape } of some) traceShape(canvas, view, placedShape(picture, shape), inView);
    });
  for (const group of ["thin", "doubtful", "outline"] as const) {
    const own = all.filter((one) => one.group === group);
    if (own.length > 0) draw(own, looks[group]);
  }
  const lit = all.filter(({ id }) => id === tracing.lit);
  if (lit.length > 0) draw(lit, { colour: palette.moss, width: 4, dash: [] });
  const picked = all.filter(({ id }) => tracing.picked.includes(id));
  if (picked.length > 0) draw(picked, { colour: palette.moss, width: 3, dash: [] });
  const onScreen = (p: Point): Point => toScreen(view, fromPicture(picture, p));
  stroke(canvas, { colour: palette.ink, width: 1.2, dash: [] }, () => {
    for (const { at } of breaksOf(all)) {
      const { x, y } = onScreen(at);
      canvas.moveTo(x + DOT, y);
      canvas.arc(x, y, DOT, 0, 2 * Math.PI);
    }
  });
  // how far the ink of what is looked at lies off it
  stroke(canvas, { colour: palette.ink, width: 1.2, dash: [] }, () => {
    for (const p of [...lit, ...picked].flatMap(({ ink }) => ink)) {
      const { x, y } = onScreen(p);
      canvas.moveTo(x - SPECK, y);
      canvas.lineTo(x + SPECK, y);
      canvas.moveTo(x, y - SPECK);
      canvas.lineTo(x, y + SPECK);
    }
  });
  const { pulled } = tracing;
  if (pulled)
    stroke(canvas, { colour: palette.moss, width: 1.5, dash: [4, 3] }, () => {
      const [from, to] = [onScreen(pulled.at), onScreen(pulled.to)];
      canvas.moveTo(from.x, from.y);
      canvas.lineTo(to.x, to.y);
    });
  const word = panels.writing?.word;
  if (word)
    stroke(canvas, { colour: palette.moss, width: 1.5, dash: [4, 3] }, () => {
      const { minX, minY, maxX, maxY } = word;
      const corners = [
        { x: minX, y: minY },
        { x: maxX, y: minY },
        { x: maxX, y: maxY },
        { x: minX, y: maxY },
        { x: minX, y: minY },
      ].map(onScreen);
      corners.forEach(({ x, y }, k) => (k === 0 ? canvas.moveTo(x, y) : canvas.lineTo(x, y)));
    });
};
