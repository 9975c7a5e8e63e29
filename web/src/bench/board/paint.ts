import type { Profile } from "@ash-edge/core/contour";
import {
  entityOf,
  searchIndex,
  settingsOf,
  unitOf,
  isLayout,
  layerOf,
  type Entity,
  type Id,
} from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { pieceDirection } from "@ash-edge/core/geometry";
import { showLength } from "@ash-edge/core/numeric";
import { profileFor } from "../derived.ts";
import type { BenchState } from "../benchState.ts";
import type { Palette } from "./palette.ts";
import { tracePieces, traceShape } from "./trace.ts";
import { inSight, toScreen, type Size, type View } from "./view.ts";

type Canvas = CanvasRenderingContext2D;

/** A faint grid of dots, 1, 2 or 5 times a power of ten apart and never closer than 22 pixels. */
const paintDots = (canvas: Canvas, view: View, size: Size, palette: Palette): void => {
  const least = 22 / view.scale;
  const power = 10 ** Math.floor(Math.log10(least));
  const pitch = [1, 2, 5, 10].map((n) => n * power).find((step) => step >= least)! * view.scale;
  canvas.fillStyle = palette.hair;
  for (let x = view.originX % pitch; x < size.width; x += pitch)
    for (let y = view.originY % pitch; y < size.height; y += pitch) canvas.fillRect(Math.round(x), Math.round(y), 1, 1);
};

type Style = { readonly colour: string; readonly width: number; readonly dash: readonly number[] };

const stroke = (canvas: Canvas, { colour, width, dash }: Style, trace: () => void): void => {
  canvas.beginPath();
  trace();
  canvas.strokeStyle = colour;
  canvas.lineWidth = width;
  canvas.setLineDash([...dash]);
  canvas.lineJoin = "round";
  canvas.stroke();
};

/** Everything that lies still: dots, layout, fills, and the geometry by role, only what is in sight. */
export const paintDrawing = (
  canvas: Canvas,
  state: Pick<BenchState, "drawing" | "index" | "view" | "size">,
  palette: Palette,
): void => {
  const { drawing, index, view, size } = state;
  const box = inSight(view, size);
  paintDots(canvas, view, size, palette);
  const { contours, open } = profileFor(drawing);
  const inside = new Set(contours.filter(({ role }) => role === "inside").flatMap(({ ids }) => ids));
  const closed = new Set(contours.flatMap(({ ids }) => ids));

  const groups: Record<"layout" | "outside" | "inside" | "open" | "mark", Entity[]> = {
    layout: [],
    outside: [],
    inside: [],
    open: [],
    mark: [],
  };
  const seen = new Set<Id>();
  for (const { ref } of searchIndex(index, box)) {
    const entity = entityOf(drawing, ref.id);
    if (!entity || seen.has(ref.id)) continue;
    seen.add(ref.id);
    const group = isLayout(drawing, entity)
      ? "layout"
      : layerOf(drawing, entity.layer)?.role === "mark"
        ? "mark"
        : inside.has(ref.id)
          ? "inside"
          : closed.has(ref.id)
            ? "outside"
            : "open";
    groups[group].push(entity);
  }

  canvas.beginPath();
  for (const contour of contours)
    if (contour.role !== "mark" && contour.ids.some((id) => seen.has(id)))
      tracePieces(canvas, view, contour.pieces, true);
  canvas.globalAlpha = 0.055;
  canvas.fillStyle = palette.ink;
  canvas.fill("evenodd");
  canvas.globalAlpha = 1;

  const styles: Record<keyof typeof groups, Style> = {
    layout: { colour: palette.layout, width: 1, dash: [11, 5] },
    mark: { colour: palette.mark, width: 1.4, dash: [4, 3] },
    inside: { colour: palette.inside, width: 1.8, dash: [] },
    open: { colour: palette.ink, width: 1.8, dash: [] },
    outside: { colour: palette.ink, width: 2.4, dash: [] },
  };
  for (const [name, entities] of Object.entries(groups) as [keyof typeof groups, Entity[]][])
    if (entities.length > 0)
      stroke(canvas, styles[name], () => entities.forEach((entity) => traceShape(canvas, view, entity, box)));

  paintDatum(canvas, toScreen(view, settingsOf(drawing).datum), palette);
  paintOpenEnds(canvas, open, view, palette, (value) => showLength(value, unitOf(drawing)));
};

/** A small square corner in two strokes where coordinates are measured from. */
const paintDatum = (canvas: Canvas, { x, y }: Point, palette: Palette): void =>
  stroke(canvas, { colour: palette.soft, width: 1.5, dash: [] }, () => {
    canvas.moveTo(x, y - 10);
    canvas.lineTo(x, y);
    canvas.lineTo(x + 10, y);
  });

/** A short bar across each open end, and its gap in words. */
const paintOpenEnds = (
  canvas: Canvas,
  open: Profile["open"],
  view: View,
  palette: Palette,
  show: (value: number) => string,
): void => {
  for (const chain of open) {
    chain.ends.forEach(({ at, gap }, i) => {
      const piece = i === 0 ? chain.pieces[0]! : chain.pieces.at(-1)!;
      const direction = pieceDirection(piece, i === 0 ? 0 : 1);
      const { x, y } = toScreen(view, at);
      stroke(canvas, { colour: palette.fault, width: 2, dash: [] }, () => {
        canvas.moveTo(x - direction.y * 6, y - direction.x * 6);
        canvas.lineTo(x + direction.y * 6, y + direction.x * 6);
      });
      if (!gap || gap.distance * view.scale > 60) return;
      canvas.font = "11px 'IBM Plex Mono', monospace";
      canvas.fillStyle = palette.fault;
      canvas.fillText(`open ${show(gap.distance)}`, x + 9, y - 8);
    });
  }
};

/** What moves: lit and selected geometry, the preview, the snap ring with its word, and the entry being typed. */
export const paintLively = (canvas: Canvas, state: BenchState, palette: Palette): void => {
  const { drawing, view, size, selection, lit, hover, tool, proposal, toolId } = state;
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

  const under = hover?.under[0]?.ref;
  const wantsCurve = !toolId || (tool && !hover?.snap);
  if (under && wantsCurve) {
    canvas.globalAlpha = 0.35;
    outline([under.id], { colour: toolId ? palette.ember : palette.moss, width: 5, dash: [] });
    canvas.globalAlpha = 1;
  }
  if (tool)
    for (const picked of Object.values(tool.picks)) {
      if (picked.ref && !picked.ref.place && picked.snap === undefined)
        outline([picked.ref.id], { colour: palette.ember, width: 2.5, dash: [2, 4] });
      else paintPicked(canvas, toScreen(view, picked.at), palette);
    }
  const way = proposal?.ways[proposal.which];
  if (way) {
    const goes = way.preview.filter((one) => one.goes);
    if (goes.length > 0)
      stroke(canvas, { colour: palette.board, width: 4, dash: [] }, () =>
        goes.forEach(({ shape }) => traceShape(canvas, view, shape, box)),
      );
    if (goes.length > 0)
      stroke(canvas, { colour: palette.ember, width: 2.2, dash: [5, 4] }, () =>
        goes.forEach(({ shape }) => traceShape(canvas, view, shape, box)),
      );
    stroke(canvas, { colour: palette.ember, width: 1.8, dash: [] }, () =>
      way.preview.forEach(({ shape, goes }) => !goes && traceShape(canvas, view, shape, box)),
    );
  }
  if (state.box)
    paintBox(
      canvas,
      toScreen(view, state.box.from),
      toScreen(view, state.box.to),
      state.kept.selecting.box,
      palette,
      size,
    );
  if (!hover) return;
  const at = toScreen(view, hover.at);
  if (hover.snap) {
    stroke(canvas, { colour: palette.ink, width: 1.6, dash: [] }, () => canvas.arc(at.x, at.y, 6, 0, 2 * Math.PI));
    paintTag(canvas, hover.snap.kind, { x: at.x + 12, y: at.y - 12 }, palette.ink, palette.panel, size);
  }
  if (tool?.open)
    paintTag(canvas, tool.open.text || "…", { x: at.x + 14, y: at.y + 30 }, palette.ember, palette.panel, size);
};

/** The selection box: one plain outline whose corner says what it takes. */
const paintBox = (canvas: Canvas, from: Point, to: Point, word: string, palette: Palette, size: Size): void => {
  stroke(canvas, { colour: palette.moss, width: 1.2, dash: [] }, () =>
    canvas.rect(Math.min(from.x, to.x), Math.min(from.y, to.y), Math.abs(to.x - from.x), Math.abs(to.y - from.y)),
  );
  paintTag(canvas, word, { x: to.x + 8, y: to.y - 4 }, palette.moss, palette.panel, size);
};

/** A place picked: two short strokes. */
const paintPicked = (canvas: Canvas, { x, y }: Point, palette: Palette): void =>
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
