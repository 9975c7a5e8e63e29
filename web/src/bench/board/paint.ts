import { displayOf, heldBy, holdersOfCurve } from "@ash-edge/core/annotate";
import {
  annotationOf,
  entityOf,
  picturesOf,
  settingsOf,
  styleOf,
  unitOf,
  fromPicture,
  type Drawing,
  type Picture,
} from "@ash-edge/core/drawing";
import { leftFindings } from "@ash-edge/core/edits";
import { boundsMeet, pieceDirection, type Point } from "@ash-edge/core/geometry";
import { SNAP_WORDS, type SnapKind } from "@ash-edge/core/look";
import { RESOLUTION, showLength, type Id } from "@ash-edge/core/numeric";
import type { Profile } from "@ash-edge/core/profile";
import { toolById, type PreviewShape } from "@ash-edge/tools";
import type { BenchState } from "../state/index.ts";
import { perAt, shownAnnotations, withoutText } from "../annotated.ts";
import { profileFor, rolesFor } from "../derived.ts";
import { shownHandles } from "../handles/shown.ts";
import type { Painted } from "../mass.ts";
import { gridPitch } from "./grid.ts";
import { paintAnnotations, paintLit } from "./paintAnnotations.ts";
import { paintMass, stroke, type Canvas, type Still, type Style } from "./paintMass.ts";
import type { Palette } from "./palette.ts";
import { traceShape } from "./trace.ts";
import { inSight, toScreen, type Size, type View } from "./view.ts";

/** Pictures by the name under which they are stored. */
export type Images = ReadonlyMap<string, CanvasImageSource>;

/** A faint grid of dots. */
const paintDots = (canvas: Canvas, view: View, size: Size, palette: Palette): void => {
  const pitch = gridPitch(view.scale) * view.scale;
  canvas.fillStyle = palette.hair;
  for (let x = view.originX % pitch; x < size.width; x += pitch)
    for (let y = view.originY % pitch; y < size.height; y += pitch) canvas.fillRect(Math.round(x), Math.round(y), 1, 1);
};

/** What lies under the geometry: dots, and sketch pictures where they are wanted. */
export const paintGround = (
  canvas: Canvas,
  drawing: Drawing,
  view: View,
  size: Size,
  palette: Palette,
  images: Images,
): void => {
  for (const picture of picturesOf(drawing)) {
    const image = images.get(picture.blob);
    if (picture.shown && image) paintPicture(canvas, picture, image, view);
  }
  paintDots(canvas, view, size, palette);
};

const paintPicture = (canvas: Canvas, picture: Picture, image: CanvasImageSource, view: View): void => {
  const { x, y } = toScreen(view, fromPicture(picture, { x: 0, y: 0 }));
  const scale = picture.scale * view.scale;
  canvas.save();
  canvas.translate(x, y);
  canvas.rotate(-picture.angle);
  canvas.globalAlpha = picture.opacity;
  canvas.imageSmoothingQuality = "high";
  canvas.drawImage(image, 0, 0, picture.width * scale, picture.height * scale);
  canvas.restore();
};

/** Everything that lies still: ground, geometry by role, and the signs on it. */
export const paintDrawing = (
  canvas: Canvas,
  state: Still & { readonly size: Size; readonly lettering?: number },
  palette: Palette,
  images: Images,
): void => {
  const { drawing, view, size } = state;
  paintGround(canvas, drawing, view, size, palette, images);
  const { contours } = profileFor(drawing);
  const loose = contours.filter(({ joined }) => !joined).map(({ pieces }) => pieces);
  paintMass(canvas, state, inSight(view, size), palette, rolesFor(drawing), loose);
  paintShown(canvas, state, palette);
  paintSigns(canvas, state, palette);
};

/** Dimensions, notes and marks; under a lens with the lettering of the board, so that it is larger there too. */
const paintShown = (
  canvas: Canvas,
  { drawing, view, size, signsHidden, lettering = view.scale }: Still & { size: Size; lettering?: number },
  palette: Palette,
): void => {
  const shown = shownAnnotations(drawing, lettering, signsHidden);
  paintAnnotations(canvas, shown, withoutText(drawing, shown, lettering), view, size, palette);
};

/** The still part of a great drawing: the picture that was painted of it last, laid where it belongs now. */
export const paintPainted = (
  canvas: Canvas,
  state: Still & { readonly size: Size },
  painted: Painted | undefined,
  palette: Palette,
  images: Images,
): void => {
  const { drawing, view, size } = state;
  paintGround(canvas, drawing, view, size, palette, images);
  if (painted) {
    const ratio = view.scale / painted.view.scale;
    const [x, y] = [view.originX - painted.view.originX * ratio, view.originY - painted.view.originY * ratio];
    canvas.drawImage(painted.bitmap, x, y, painted.size.width * ratio, painted.size.height * ratio);
  }
  paintShown(canvas, state, palette);
  paintSigns(canvas, state, palette);
};

/** The datum, and what is open. */
export const paintSigns = (
  canvas: Canvas,
  { drawing, view, size, signsHidden }: Still & { readonly size: Size },
  palette: Palette,
): void => {
  if (signsHidden) return;
  paintDatum(canvas, toScreen(view, settingsOf(drawing).datum), palette);
  paintOpenEnds(canvas, profileFor(drawing).open, view, size, palette, (value) => showLength(value, unitOf(drawing)));
};

/** A small square corner in two strokes where coordinates are measured from. */
const paintDatum = (canvas: Canvas, { x, y }: Point, palette: Palette): void =>
  stroke(canvas, { colour: palette.soft, width: 1.5, dash: [] }, () => {
    canvas.moveTo(x, y - 10);
    canvas.lineTo(x, y);
    canvas.lineTo(x + 10, y);
  });

/** Labels nearer than this to one that stands would be written over it, px. */
const LABEL = { x: 84, y: 13 };

/** A short bar across each open end, and its gap in words where there is one and room for it. */
const paintOpenEnds = (
  canvas: Canvas,
  open: Profile["open"],
  view: View,
  size: Size,
  palette: Palette,
  show: (value: number) => string,
): void => {
  const seen = inSight(view, size);
  const labels: Point[] = [];
  for (const chain of open) {
    if (!boundsMeet(chain.bounds, seen)) continue;
    chain.ends.forEach(({ at, gap }, i) => {
      const piece = i === 0 ? chain.pieces[0]! : chain.pieces.at(-1)!;
      const direction = pieceDirection(piece, i === 0 ? 0 : 1);
      const { x, y } = toScreen(view, at);
      stroke(canvas, { colour: palette.fault, width: 2, dash: [] }, () => {
        canvas.moveTo(x - direction.y * 6, y - direction.x * 6);
        canvas.lineTo(x + direction.y * 6, y + direction.x * 6);
      });
      // ends that meet others in one place, as doubled curves do, miss nothing
      if (!gap || gap.distance <= RESOLUTION || gap.distance * view.scale > 60) return;
      if (labels.some((other) => Math.abs(other.x - x) < LABEL.x && Math.abs(other.y - y) < LABEL.y)) return;
      labels.push({ x, y });
      const words = [`open ${show(gap.distance)}`, x + 9, y - 8] as const;
      canvas.font = "11px 'IBM Plex Mono', monospace";
      // what lies under it ends a little before it
      canvas.strokeStyle = palette.board;
      canvas.lineJoin = "round";
      canvas.lineWidth = 5;
      canvas.strokeText(...words);
      canvas.fillStyle = palette.fault;
      canvas.fillText(...words);
    });
  }
};

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

/** What making numbers true would move: as it was, and as it would be. */
const movesIn = (numbers: BenchState["numbers"], drawing: Drawing): readonly PreviewShape[] | undefined => {
  const look = numbers?.of === drawing && numbers.asked.length > 0 ? numbers.found?.look : undefined;
  if (!look?.ok) return undefined;
  const { comes, goes } = look.shapes;
  return [...goes.map((shape) => ({ shape, goes: true })), ...comes.map((shape) => ({ shape }))];
};

const paintPreview = (
  canvas: Canvas,
  { hand: { proposal }, view: { now: view, size }, tidying, numbers, history: { drawing } }: BenchState,
  palette: Palette,
): void => {
  const made = proposal?.ways[proposal.which]?.annotations;
  if (made) {
    const per = perAt(drawing, view.scale);
    const displays = made.map((one) => displayOf(drawing, { ...one, id: NEW }, styleOf(drawing), per));
    paintLit(canvas, displays, view, palette.ember, 1.4);
  }
  const preview = proposal?.ways[proposal.which]?.preview ?? tidying?.preview ?? movesIn(numbers, drawing);
  if (!preview) return;
  const box = inSight(view, size);
  const goes = preview.filter((one) => one.goes);
  if (goes.length > 0)
    for (const style of [
      { colour: palette.board, width: 4, dash: [] },
      { colour: palette.ember, width: 2.2, dash: [5, 4] },
    ])
      stroke(canvas, style, () => goes.forEach(({ shape }) => traceShape(canvas, view, shape, box)));
  canvas.beginPath();
  for (const { shape, fill } of preview) if (fill) traceShape(canvas, view, shape, box);
  canvas.globalAlpha = 0.18;
  canvas.fillStyle = palette.ember;
  canvas.fill("evenodd");
  canvas.globalAlpha = 1;
  stroke(canvas, { colour: palette.ember, width: 1.8, dash: [] }, () =>
    preview.forEach(({ shape, goes: gone }) => !gone && traceShape(canvas, view, shape, box)),
  );
};

/** The snap that holds with its word, the reach of snaps, and what is being typed. */
const paintPointer = (
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

/** Findings: a small open square at each place, larger where one is lit. */
const paintFindings = (
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

/** More than this is no question any more, and is not drawn. */
const MOST_OPEN = 30;

/** A short arrow each way at what the numbers leave open: the way that it can still move. */
const paintOpen = (
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

/** The id of what is not made yet. */
const NEW: Id = 0;
/** A place that is held is ringed so far out, px. */
const HELD_PLACE = 7;
const MAGNIFIED = 6;
const LENS = 190;

/** What is under the pointer, six times as large, in the corner farthest from it. */
const paintMagnifier = (canvas: Canvas, state: BenchState, palette: Palette, images: Images): void => {
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
