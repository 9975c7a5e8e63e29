import { leftFindings } from "@ash-edge/core/edits";
import type { BenchState } from "../state/index.ts";
import { stroke, type Canvas } from "./paintMass.ts";
import type { Palette } from "./palette.ts";
import { toScreen } from "./view.ts";

/** More than this is no question any more, and is not drawn. */
const MOST_OPEN = 30;

/** Findings: a small open square at each place, larger where one is lit. */
export const paintFindings = (
  canvas: Canvas,
  { tidying, view: { now: view, size, signsHidden }, history: { drawing } }: BenchState,
  palette: Palette,
): void => {
  if (!tidying?.findings || signsHidden) return;
  const left = leftFindings(drawing);
  for (const { at, key, severity } of tidying.findings) {
    if (left.has(key)) continue;
    const { x, y } = toScreen(view, at);
    if (x < 0 || y < 0 || x > size.width || y > size.height) continue;
    const half = key === tidying.lit ? 8 : 4.5;
    const colour = severity === "error" ? palette.fault : severity === "warning" ? palette.caution : palette.soft;
    stroke(canvas, { colour, width: key === tidying.lit ? 2.4 : 1.6, dash: [] }, () =>
      canvas.rect(x - half, y - half, 2 * half, 2 * half),
    );
  }
};

/** How far an arrow at what is left open reaches, from and to, in pixels. */
const [OPEN_FROM, OPEN_TO, OPEN_BARB] = [7, 17, 4];

/** A short arrow each way at what the numbers leave open: the way that it can still move. */
export const paintOpen = (
  canvas: Canvas,
  { numbers, view: { now: view, size, signsHidden }, history: { drawing } }: BenchState,
  palette: Palette,
): void => {
  const open = numbers?.of === drawing ? numbers.found?.standing.open : undefined;
  if (!open || signsHidden || open.length > MOST_OPEN) return;
  stroke(canvas, { colour: palette.caution, width: 1.6, dash: [] }, () => {
    for (const { what, at, way } of open) {
      const { x, y } = toScreen(view, at);
      if (x < 0 || y < 0 || x > size.width || y > size.height) continue;
      const ways = what === "radius" ? [0, 90, 180, 270] : [way, way + 180];
      for (const degrees of ways) {
        const [c, s] = [Math.cos((degrees * Math.PI) / 180), -Math.sin((degrees * Math.PI) / 180)];
        const [tipX, tipY] = [x + OPEN_TO * c, y + OPEN_TO * s];
        canvas.moveTo(x + OPEN_FROM * c, y + OPEN_FROM * s);
        canvas.lineTo(tipX, tipY);
        for (const side of [1, -1]) {
          canvas.moveTo(tipX, tipY);
          canvas.lineTo(tipX - OPEN_BARB * (c + side * s), tipY - OPEN_BARB * (s - side * c));
        }
      }
    }
  });
};
