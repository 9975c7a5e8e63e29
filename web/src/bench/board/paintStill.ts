import { picturesOf, settingsOf, unitOf, fromPicture, type Drawing, type Picture } from "@ash-edge/core/drawing";
import { boundsMeet, pieceDirection, type Point } from "@ash-edge/core/geometry";
import { RESOLUTION, showLength } from "@ash-edge/core/numeric";
import type { Profile } from "@ash-edge/core/profile";
import { shownAnnotations, withoutText } from "../annotated.ts";
import { profileFor, rolesFor } from "../derived.ts";
import type { Painted } from "../mass.ts";
import { gridPitch } from "./grid.ts";
import { paintAnnotations } from "./paintAnnotations.ts";
import { paintMass, stroke, type Canvas, type Still } from "./paintMass.ts";
import type { Palette } from "./palette.ts";
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
