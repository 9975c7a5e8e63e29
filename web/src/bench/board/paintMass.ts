import { entityOf, isLayout, layerOf, layersOf, shownLine, type Drawing, type Entity } from "@ash-edge/core/drawing";
import type { Bounds, Piece } from "@ash-edge/core/geometry";
import { searchIndex } from "@ash-edge/core/look";
import type { Id } from "@ash-edge/core/numeric";
import { shapeBounds } from "@ash-edge/core/shape";
import type { BenchState } from "../state/index.ts";
import { fileColour } from "./fileColour.ts";
import type { Palette } from "./palette.ts";
import { tracePieces, traceShape } from "./trace.ts";
import type { View } from "./view.ts";

export type Canvas = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

export type Style = { readonly colour: string; readonly width: number; readonly dash: readonly number[] };

export const stroke = (canvas: Canvas, { colour, width, dash }: Style, trace: () => void): void => {
  canvas.beginPath();
  trace();
  canvas.strokeStyle = colour;
  canvas.lineWidth = width;
  canvas.setLineDash([...dash]);
  canvas.lineJoin = "round";
  canvas.stroke();
};

/** What of the bench the still part of the board is painted from. */
export type Still = Pick<BenchState["history"], "drawing" | "index"> & {
  readonly view: View;
  readonly signsHidden: boolean;
};

/** Outlines in one stroke: more make a stroke slower than several shorter ones. */
const IN_ONE_STROKE = 64;
/** Things smaller than this many pixels are one dot. */
const DOT_PX = 1.2;

type Group = "layout" | "mark" | "inside" | "open" | "outside";
const ORDER: readonly Group[] = ["layout", "mark", "inside", "open", "outside"];

const stylesOf = (palette: Palette): Readonly<Record<Group, Style>> => ({
  layout: { colour: palette.layout, width: 1, dash: [11, 5] },
  mark: { colour: palette.mark, width: 1.4, dash: [4, 3] },
  inside: { colour: palette.inside, width: 1.8, dash: [] },
  open: { colour: palette.ink, width: 1.8, dash: [] },
  outside: { colour: palette.ink, width: 2.4, dash: [] },
});
const DASHES = { solid: [], dashed: [8, 4], dotted: [1.5, 3] } as const;

const groupOf = (drawing: Drawing, entity: Entity, roles: ReadonlyMap<Id, "outside" | "inside">): Group => {
  if (isLayout(drawing, entity)) return "layout";
  if (layerOf(drawing, entity.layer)?.role === "mark") return "mark";
  return roles.get(entity.id) ?? "open";
};

/**
 * Paints the geometry in `box`, closed contours with a faint fill, each thing once; loose pieces that close are filled
 * by `loose`.
 */
export const paintMass = (
  canvas: Canvas,
  { drawing, index, view, signsHidden }: Still,
  box: Bounds,
  palette: Palette,
  roles: ReadonlyMap<Id, "outside" | "inside">,
  loose: readonly (readonly Piece[])[] = [],
): void => {
  const groups: Record<Group, Entity[]> = { layout: [], outside: [], inside: [], open: [], mark: [] };
  const dots: Entity[] = [];
  const seen = new Set<Id>();
  for (const { ref, kind } of searchIndex(index, box)) {
    if (kind === "centre" || kind === "area" || seen.has(ref.id)) continue;
    seen.add(ref.id);
    const entity = entityOf(drawing, ref.id);
    if (!entity) continue;
    const group = groupOf(drawing, entity, roles);
    if (signsHidden && group === "layout") continue;
    (isDot(entity, view) ? dots : groups[group]).push(entity);
  }
  paintFill(canvas, view, box, [...groups.outside, ...groups.inside], loose, palette);
  canvas.fillStyle = palette.ink;
  for (const entity of dots) {
    const bounds = shapeBounds(entity)!;
    canvas.fillRect(view.originX + view.scale * bounds.minX, view.originY - view.scale * bounds.maxY, 1, 1);
  }
  const styles = stylesOf(palette);
  const layers = new Map(layersOf(drawing).map(({ id, colour }) => [id, colour]));
  for (const group of ORDER)
    for (const { entities, colour } of byLook(groups[group], layers)) {
      const { line } = entities[0]!;
      const own = colour === undefined ? undefined : fileColour(colour, palette.board, palette.ink);
      const style = {
        ...styles[group],
        ...(line === undefined ? {} : { dash: DASHES[shownLine(line)] }),
        ...(own === undefined ? {} : { colour: own }),
      };
      for (let i = 0; i < entities.length; i += IN_ONE_STROKE) {
        const some = entities.slice(i, i + IN_ONE_STROKE);
        stroke(canvas, style, () => some.forEach((entity) => traceShape(canvas, view, entity, box)));
      }
    }
};

const isDot = (entity: Entity, view: View): boolean => {
  if (entity.kind === "point" || entity.kind === "endless") return false;
  const bounds = shapeBounds(entity)!;
  return Math.max(bounds.maxX - bounds.minX, bounds.maxY - bounds.minY) * view.scale < DOT_PX;
};

/** What is drawn alike: with the same line, in its own colour or its layer's. */
type Alike = { readonly entities: Entity[]; readonly colour: string | undefined };

const byLook = (entities: readonly Entity[], layers: ReadonlyMap<Id, string | undefined>): Iterable<Alike> => {
  const groups = new Map<string, Alike>();
  for (const entity of entities) {
    const colour = entity.colour ?? layers.get(entity.layer);
    const key = `${entity.line ?? ""} ${colour ?? ""}`;
    const known = groups.get(key);
    if (known) known.entities.push(entity);
    else groups.set(key, { entities: [entity], colour });
  }
  return groups.values();
};

/** Closed chains and circles in one faint fill: even and odd, so that holes stay open. */
const paintFill = (
  canvas: Canvas,
  view: View,
  box: Bounds,
  entities: readonly Entity[],
  loose: readonly (readonly Piece[])[],
  palette: Palette,
): void => {
  // a sheet of thousands of parts reads as well without, and fills are dear
  if (entities.length > IN_ONE_STROKE * 60) return;
  canvas.beginPath();
  for (const entity of entities)
    if (entity.kind === "circle" || (entity.kind === "chain" && entity.closed)) traceShape(canvas, view, entity, box);
  for (const pieces of loose) tracePieces(canvas, view, pieces, true);
  canvas.globalAlpha = 0.055;
  canvas.fillStyle = palette.ink;
  canvas.fill("evenodd");
  canvas.globalAlpha = 1;
};
