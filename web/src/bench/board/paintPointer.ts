import type { Point } from "@ash-edge/core/geometry";
import { SNAP_WORDS, type SnapKind } from "@ash-edge/core/look";
import type { BenchState } from "../state/index.ts";
import { stroke, type Canvas } from "./paintMass.ts";
import type { Palette } from "./palette.ts";
import { toScreen, type Size } from "./view.ts";

/** The snap that holds with its word, the reach of snaps, and what is being typed. */
export const paintPointer = (
  canvas: Canvas,
  { pointer: { hover, at: pointer, byKeys }, view: { now: view, size }, hand: { tool }, kept }: BenchState,
  palette: Palette,
): void => {
  if (!hover || hover.picture) return;
  const at = toScreen(view, hover.at);
  if (byKeys)
    stroke(canvas, { colour: palette.ember, width: 1.6, dash: [] }, () => {
      for (const [dx, dy] of [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ] as const) {
        canvas.moveTo(at.x + 5 * dx, at.y + 5 * dy);
        canvas.lineTo(at.x + 14 * dx, at.y + 14 * dy);
      }
    });
  if (tool && pointer && kept.snaps.drawn && !hover.snap) {
    const here = toScreen(view, pointer);
    canvas.globalAlpha = 0.5;
    stroke(canvas, { colour: palette.soft, width: 1, dash: [2, 3] }, () =>
      canvas.arc(here.x, here.y, kept.snaps.reach, 0, 2 * Math.PI),
    );
    canvas.globalAlpha = 1;
  }
  if (hover.snap) {
    stroke(canvas, { colour: palette.ink, width: 1.6, dash: [] }, () => canvas.arc(at.x, at.y, 6, 0, 2 * Math.PI));
    const word = SNAP_WORDS[hover.snap.kind as SnapKind] ?? hover.snap.kind;
    paintTag(canvas, word, { x: at.x + 12, y: at.y - 12 }, palette.ink, palette.panel, size);
  }
  if (tool?.open)
    paintTag(canvas, tool.open.text || "…", { x: at.x + 14, y: at.y + 30 }, palette.ember, palette.panel, size);
};

/** The selection box: one plain outline whose corner says what it takes. */
export const paintBox = (canvas: Canvas, from: Point, to: Point, word: string, palette: Palette, size: Size): void => {
  stroke(canvas, { colour: palette.moss, width: 1.2, dash: [] }, () =>
    canvas.rect(Math.min(from.x, to.x), Math.min(from.y, to.y), Math.abs(to.x - from.x), Math.abs(to.y - from.y)),
  );
  paintTag(canvas, word, { x: to.x + 8, y: to.y - 4 }, palette.moss, palette.panel, size);
};

/** A place picked: two short strokes. */
export const paintPicked = (canvas: Canvas, { x, y }: Point, palette: Palette): void =>
  stroke(canvas, { colour: palette.ember, width: 2, dash: [] }, () => {
    canvas.moveTo(x - 5, y);
    canvas.lineTo(x + 5, y);
    canvas.moveTo(x, y - 5);
    canvas.lineTo(x, y + 5);
  });

/** A small tag with a word, kept within the board. */
const paintTag = (canvas: Canvas, text: string, { x, y }: Point, ground: string, ink: string, size: Size): void => {
  canvas.font = "12px 'Commissioner Variable', sans-serif";
  const width = canvas.measureText(text).width + 14;
  const left = Math.min(Math.max(4, x), size.width - width - 4);
  const top = Math.min(Math.max(4, y - 20), size.height - 26);
  canvas.beginPath();
  canvas.roundRect(left, top, width, 21, 5);
  canvas.fillStyle = ground;
  canvas.fill();
  canvas.fillStyle = ink;
  canvas.fillText(text, left + 7, top + 15);
};
