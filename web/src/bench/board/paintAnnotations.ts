import { FONT_FAMILY, FONT_SIZE, type Display, type Drawn } from "@ash-edge/core/annotate";
import { boundsMeet } from "@ash-edge/core/geometry";
import { stroke, type Canvas } from "./paintMass.ts";
import type { Palette } from "./palette.ts";
import { tracePieces } from "./trace.ts";
import { inSight, toScreen, type Size, type View } from "./view.ts";

/** Long dashes and dots of centre lines, px. */
const CENTRE_DASH = [13, 3, 2, 3] as const;

/** The colours of lines and of lettering. */
type Inks = { readonly lines: string; readonly letters: string };

/** How an annotation stands, in colour; what is called and off, or lost, is told as every fault. */
const inksOf = ({ standing }: Display, palette: Palette): Inks => {
  switch (standing) {
    case "plain":
      return { lines: palette.soft, letters: palette.ink };
    case "true":
      return { lines: palette.soft, letters: palette.moss };
    case "within":
      return { lines: palette.soft, letters: palette.caution };
    case "off":
    case "lost":
      return { lines: palette.fault, letters: palette.fault };
  }
};

const paintText = (
  canvas: Canvas,
  { text, middle, angle, height }: Extract<Drawn, { kind: "text" }>,
  view: View,
  ink: string,
  ground: string | undefined,
): void => {
  const { x, y } = toScreen(view, middle);
  const size = height * view.scale;
  canvas.save();
  canvas.translate(x, y);
  canvas.rotate(-angle);
  canvas.font = `${size * FONT_SIZE}px "${FONT_FAMILY}", monospace`;
  canvas.textAlign = "center";
  canvas.textBaseline = "alphabetic";
  if (ground) {
    // what lies under it ends a little before it
    canvas.strokeStyle = ground;
    canvas.lineJoin = "round";
    canvas.lineWidth = size / 2;
    canvas.setLineDash([]);
    canvas.strokeText(text, 0, size / 2);
  }
  canvas.fillStyle = ink;
  canvas.fillText(text, 0, size / 2);
  canvas.restore();
};

/** A small sign before the figure: a disc for true, a ring for within, a square for off. */
const paintStanding = (canvas: Canvas, { standing, drawn }: Display, view: View, ink: string): void => {
  if (standing === "plain" || standing === "lost") return;
  const text = drawn.find((one) => one.kind === "text");
  if (!text) return;
  const size = text.height * view.scale;
  const out = ([...text.text].length * 0.6 * FONT_SIZE * size) / 2 + size * 0.7;
  const { x, y } = toScreen(view, text.middle);
  const [cx, cy] = [x - out * Math.cos(text.angle), y + out * Math.sin(text.angle)];
  canvas.beginPath();
  if (standing === "off") canvas.rect(cx - size * 0.25, cy - size * 0.25, size * 0.5, size * 0.5);
  else canvas.arc(cx, cy, size * 0.26, 0, 2 * Math.PI);
  canvas.fillStyle = canvas.strokeStyle = ink;
  canvas.lineWidth = 1.2;
  canvas.setLineDash([]);
  if (standing === "within") canvas.stroke();
  else canvas.fill();
};

const paintOne = (canvas: Canvas, display: Display, view: View, inks: Inks, width: number, ground?: string): void => {
  for (const one of display.drawn) {
    if (one.kind === "text") continue;
    const dash = one.kind === "stroke" && one.centre ? CENTRE_DASH : [];
    stroke(canvas, { colour: inks.lines, width, dash }, () => {
      if (one.kind === "stroke") return tracePieces(canvas, view, one.pieces, false);
      one.points.forEach((p, i) => {
        const { x, y } = toScreen(view, p);
        if (i === 0) canvas.moveTo(x, y);
        else canvas.lineTo(x, y);
      });
      if (one.closed) canvas.closePath();
    });
    if (one.kind === "terminator" && one.filled) {
      canvas.fillStyle = inks.lines;
      canvas.fill();
    }
  }
  for (const one of display.drawn) if (one.kind === "text") paintText(canvas, one, view, inks.letters, ground);
};

const MOST_GROUNDS = 400;

/** Dimensions, notes and marks in sight, each by how it stands. */
export const paintAnnotations = (
  canvas: Canvas,
  displays: readonly Display[],
  view: View,
  size: Size,
  palette: Palette,
): void => {
  const box = inSight(view, size);
  const seen = displays.filter(({ bounds }) => boundsMeet(bounds, box));
  // a ground under each text is dear, and among so many nobody reads a single one
  const ground = seen.length > MOST_GROUNDS ? undefined : palette.board;
  for (const display of seen) {
    const inks = inksOf(display, palette);
    paintOne(canvas, display, view, inks, 1, ground);
    paintStanding(canvas, display, view, inks.letters);
  }
};

/** Some of them over the others in one colour: what is selected, under the pointer, or about to be made. */
export const paintLit = (
  canvas: Canvas,
  displays: readonly Display[],
  view: View,
  colour: string,
  width: number,
): void => {
  for (const display of displays) paintOne(canvas, display, view, { lines: colour, letters: colour }, width);
};
