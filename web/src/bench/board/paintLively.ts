import { heldBy, holdersOfCurve } from "@ash-edge/core/annotate";
import { annotationOf, entityOf, picturesOf, fromPicture } from "@ash-edge/core/drawing";
import type { Id } from "@ash-edge/core/numeric";
import { toolById } from "@ash-edge/tools";
import type { BenchState } from "../state/index.ts";
import { shownAnnotations } from "../annotated.ts";
import { shownHandles } from "../handles/shown.ts";
import { paintLit } from "./paintAnnotations.ts";
import { stroke, type Canvas, type Style } from "./paintMass.ts";
import type { Palette } from "./palette.ts";
import { traceShape } from "./trace.ts";
import { inSight, toScreen } from "./view.ts";
import type { Images } from "./paintStill.ts";
import { paintFindings, paintOpen } from "./paintFound.ts";
import { paintMagnifier } from "./paintMagnifier.ts";
import { paintPointer, paintBox, paintPicked } from "./paintPointer.ts";
import { paintTraced } from "./paintTraced.ts";
import { paintPreview } from "./paintPreview.ts";

/** A place that is held is ringed so far out, px. */
const HELD_PLACE = 7;

/** What moves: lit and selected geometry, the preview, the snap ring with its word, and the entry being typed. */
export const paintLively = (canvas: Canvas, state: BenchState, palette: Palette, images: Images): void => {
  const { kept } = state;
  const { drawing } = state.history;
  const { now: view, size, magnified } = state.view;
  const { ids: selection, lit, sweep, box: drawn } = state.selection;
  const { hover, grip } = state.pointer;
  const { tool, toolId, grabbed } = state.hand;
  const box = inSight(view, size);
  const outline = (ids: Iterable<Id>, style: Style): void =>
    stroke(canvas, style, () => {
      for (const id of ids) {
        const entity = entityOf(drawing, id);
        if (entity) traceShape(canvas, view, entity, box);
      }
    });
  if (lit.size > 0) {
    canvas.globalAlpha = 0.3;
    outline(lit, { colour: palette.moss, width: 8, dash: [] });
    canvas.globalAlpha = 1;
  }
  if (selection.size > 0) outline(selection, { colour: palette.moss, width: 3, dash: [] });
  paintVertex(canvas, state, palette);
  paintAnnotationsLit(canvas, state, palette);

  const under = hover?.under[0]?.ref;
  const wantsCurve = !grip && !grabbed && (!toolId || (tool && !hover?.snap));
  if (under && wantsCurve) {
    canvas.globalAlpha = 0.35;
    outline([under.id], { colour: toolId ? palette.ember : palette.moss, width: 5, dash: [] });
    canvas.globalAlpha = 1;
  }
  const speaks = under && wantsCurve ? annotationOf(drawing, under.id) : undefined;
  if (speaks) {
    const { curves, places } = heldBy(drawing, speaks);
    canvas.globalAlpha = 0.35;
    stroke(canvas, { colour: palette.moss, width: 5, dash: [] }, () => {
      for (const curve of curves) traceShape(canvas, view, curve, box);
      for (const place of places) {
        const { x, y } = toScreen(view, place);
        canvas.moveTo(x + HELD_PLACE, y);
        canvas.arc(x, y, HELD_PLACE, 0, 2 * Math.PI);
      }
    });
    canvas.globalAlpha = 1;
  }
  paintFindings(canvas, state, palette);
  paintOpen(canvas, state, palette);
  paintTraced(canvas, state, palette);
  paintHandles(canvas, state, palette);
  if (tool && !grabbed)
    for (const picked of Object.values(tool.picks)) {
      if (picked.picture) {
        const lies = picturesOf(drawing).find(({ blob, shown }) => shown && blob === picked.picture!.blob);
        if (lies) paintPicked(canvas, toScreen(view, fromPicture(lies, picked.at)), palette);
      } else if (picked.ref && !picked.ref.place && picked.snap === undefined)
        outline([picked.ref.id], { colour: palette.ember, width: 2.5, dash: [2, 4] });
      else paintPicked(canvas, toScreen(view, picked.at), palette);
    }
  paintPreview(canvas, state, palette);
  if (sweep && sweep.length > 1) {
    const [from, to] = [toScreen(view, sweep[0]!), toScreen(view, sweep.at(-1)!)];
    stroke(canvas, { colour: palette.ember, width: 1.2, dash: [] }, () => {
      if (toolById(toolId)?.drag === "box")
        canvas.rect(Math.min(from.x, to.x), Math.min(from.y, to.y), Math.abs(to.x - from.x), Math.abs(to.y - from.y));
      else
        sweep!.forEach((p, i) => {
          const { x, y } = toScreen(view, p);
          if (i === 0) canvas.moveTo(x, y);
          else canvas.lineTo(x, y);
        });
    });
  }
  if (drawn) paintBox(canvas, toScreen(view, drawn.from), toScreen(view, drawn.to), kept.selecting.box, palette, size);
  paintPointer(canvas, state, palette);
  if (magnified) paintMagnifier(canvas, state, palette, images);
};

/**
 * The annotations that are selected, lit or under the pointer, and, while geometry is under it, those that hold that.
 */
const paintAnnotationsLit = (canvas: Canvas, state: BenchState, palette: Palette): void => {
  const { drawing } = state.history;
  const { now: view, signsHidden } = state.view;
  const { ids, lit } = state.selection;
  const under = state.hand.toolId || state.pointer.grip ? undefined : state.pointer.hover?.under[0]?.ref;
  const displays = shownAnnotations(drawing, view.scale, signsHidden);
  if (displays.length === 0 || (ids.size === 0 && lit.size === 0 && under === undefined)) return;
  const some = displays.filter(({ id }) => ids.has(id) || lit.has(id));
  paintLit(canvas, some, view, palette.moss, 1.8);
  if (under === undefined) return;
  const holds = holdersOfCurve(drawing, under);
  const near = displays.filter(({ id }) => !ids.has(id) && (id === under.id || holds(annotationOf(drawing, id)!)));
  paintLit(canvas, near, view, palette.moss, 1.2);
};

/** Handles: small discs, ember under the pointer and in hand. */
const paintHandles = (canvas: Canvas, state: BenchState, palette: Palette): void => {
  const { now: view, size } = state.view;
  const { grip } = state.pointer;
  const { grabbed } = state.hand;
  for (const handle of shownHandles(state)) {
    const { x, y } = toScreen(view, handle.at);
    if (x < 0 || y < 0 || x > size.width || y > size.height) continue;
    const lit = handle === grip || handle === grabbed?.handle;
    canvas.beginPath();
    canvas.arc(x, y, lit ? 5.5 : 4, 0, 2 * Math.PI);
    canvas.fillStyle = lit ? palette.ember : palette.ink;
    canvas.fill();
    canvas.lineWidth = 1.2;
    canvas.strokeStyle = palette.board;
    canvas.stroke();
  }
};

/** The corner of a selected chain that was stepped to. */
const paintVertex = (
  canvas: Canvas,
  { history: { drawing }, selection: { ids: selection, vertex }, view: { now: view } }: BenchState,
  palette: Palette,
): void => {
  if (vertex === undefined) return;
  for (const id of selection) {
    const entity = entityOf(drawing, id);
    const at = entity?.kind === "chain" ? entity.vertices.find((one) => one.id === vertex)?.at : undefined;
    if (!at) continue;
    const { x, y } = toScreen(view, at);
    canvas.beginPath();
    canvas.arc(x, y, 5.5, 0, 2 * Math.PI);
    canvas.fillStyle = palette.ember;
    canvas.fill();
  }
};
