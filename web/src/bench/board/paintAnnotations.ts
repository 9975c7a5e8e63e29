import { FONT_FAMILY, FONT_SIZE, type Display, type Drawn } from "@ash-edge/core/annotate";
import { boundsMeet } from "@ash-edge/core/geometry";
import type { Id } from "@ash-edge/core/numeric";
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

/** Displays in one stroke: more make a stroke slower than several shorter ones. */
const IN_ONE_STROKE = 64;

const traceOutline = (canvas: Canvas, view: View, { points, closed }: Terminator): void => {
  points.forEach((p, i) => {
    const { x, y } = toScreen(view, p);
    if (i === 0) canvas.moveTo(x, y);
    else canvas.lineTo(x, y);
  });
  if (closed) canvas.closePath();
};
type Terminator = Extract<Drawn, { kind: "terminator" }>;

/** The lines and terminators of displays in one colour. */
const paintLines = (canvas: Canvas, all: readonly Display[], view: View, colour: string, width: number): void => {
  for (let i = 0; i < all.length; i += IN_ONE_STROKE) {
    const drawn = all.slice(i, i + IN_ONE_STROKE).flatMap((display) => display.drawn);
    const filled = drawn.filter((one): one is Terminator => one.kind === "terminator" && one.filled);
    const centres = drawn.filter((one) => one.kind === "stroke" && one.centre);
    stroke(canvas, { colour, width, dash: [] }, () => {
      for (const one of drawn) {
        if (one.kind === "terminator") traceOutline(canvas, view, one);
        else if (one.kind === "stroke" && !one.centre) tracePieces(canvas, view, one.pieces, false);
      }
    });
    if (centres.length > 0)
      stroke(canvas, { colour, width, dash: CENTRE_DASH }, () => {
        for (const one of centres) if (one.kind === "stroke") tracePieces(canvas, view, one.pieces, false);
      });
    if (filled.length === 0) continue;
    canvas.beginPath();
    for (const one of filled) traceOutline(canvas, view, one);
    canvas.fillStyle = colour;
    canvas.fill();
  }
};

const paintTexts = (canvas: Canvas, { drawn }: Display, view: View, ink: string, ground?: string): void => {
  for (const one of drawn) if (one.kind === "text") paintText(canvas, one, view, ink, ground);
};

const MOST_GROUNDS = 400;

/** Dimensions, notes and marks in sight, each by how it stands; some without their texts. */
export const paintAnnotations = (
  canvas: Canvas,
  displays: readonly Display[],
  textless: ReadonlySet<Id>,
  view: View,
  size: Size,
  palette: Palette,
): void => {
  const box = inSight(view, size);
  const seen = displays.filter(({ bounds }) => boundsMeet(bounds, box));
  // a ground under each text is dear, and among so many nobody reads a single one
  const ground = seen.length > MOST_GROUNDS ? undefined : palette.board;
  const byColour = new Map<string, Display[]>();
  for (const display of seen) {
    const { lines } = inksOf(display, palette);
    void (byColour.get(lines)?.push(display) ?? byColour.set(lines, [display]));
  }
  for (const [colour, some] of byColour) paintLines(canvas, some, view, colour, 1);
  for (const display of seen) {
    if (textless.has(display.id)) continue;
    const { letters } = inksOf(display, palette);
    paintTexts(canvas, display, view, letters, ground);
    paintStanding(canvas, display, view, letters);
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
  paintLines(canvas, displays, view, colour, width);
  for (const display of displays) paintTexts(canvas, display, view, colour);
};
