import type { BenchState } from "../state/index.ts";
import { stroke, type Canvas } from "./paintMass.ts";
import type { Palette } from "./palette.ts";
import { toScreen, type View } from "./view.ts";
import { type Images, paintDrawing } from "./paintStill.ts";
import { paintPreview } from "./paintPreview.ts";

const MAGNIFIED = 6;

const LENS = 190;

/** What is under the pointer, six times as large, in the corner farthest from it. */
export const paintMagnifier = (canvas: Canvas, state: BenchState, palette: Palette, images: Images): void => {
  const { at: pointer } = state.pointer;
  const { now: view, size } = state.view;
  if (!pointer) return;
  const here = toScreen(view, pointer);
  const left = here.x > size.width / 2 ? 10 : size.width - LENS - 10;
  const top = here.y > size.height / 2 ? 50 : size.height - LENS - 10;
  const scale = view.scale * MAGNIFIED;
  const lens: View = { scale, originX: LENS / 2 - scale * pointer.x, originY: LENS / 2 + scale * pointer.y };
  const room = { width: LENS, height: LENS };
  canvas.save();
  canvas.translate(left, top);
  canvas.beginPath();
  canvas.roundRect(0, 0, LENS, LENS, 6);
  canvas.fillStyle = palette.board;
  canvas.fill();
  canvas.clip();
  const { signsHidden } = state.view;
  const lettering = view.scale;
  paintDrawing(canvas, { ...state.history, view: lens, size: room, signsHidden, lettering }, palette, images);
  paintPreview(canvas, { ...state, view: { ...state.view, now: lens, size: room } }, palette);
  stroke(canvas, { colour: palette.ink, width: 1, dash: [] }, () => {
    canvas.moveTo(LENS / 2 - 8, LENS / 2);
    canvas.lineTo(LENS / 2 + 8, LENS / 2);
    canvas.moveTo(LENS / 2, LENS / 2 - 8);
    canvas.lineTo(LENS / 2, LENS / 2 + 8);
  });
  stroke(canvas, { colour: palette.soft, width: 2, dash: [] }, () => canvas.roundRect(0, 0, LENS, LENS, 6));
  canvas.restore();
};
