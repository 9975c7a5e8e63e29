import rough from "roughjs";
import type { Drawable, Options } from "roughjs/bin/core";

/** Draws as a person with a pencil does: wobbly, gone over twice, lettered by hand. Pixels, y down. */
export type Pencil = {
  readonly line: (x1: number, y1: number, x2: number, y2: number, options?: Options) => void;
  readonly circle: (x: number, y: number, radius: number, options?: Options) => void;
  /** Angles in radians, clockwise on the page from +x. */
  readonly arc: (x: number, y: number, radius: number, from: number, to: number, options?: Options) => void;
  readonly path: (d: string, options?: Options) => void;
  /** A centre line: long and short dashes. */
  readonly centreLine: (x1: number, y1: number, x2: number, y2: number) => void;
  /** A dimension line with an open arrow at each end. */
  readonly dimension: (x1: number, y1: number, x2: number, y2: number) => void;
  /** A leader with one arrow at its second end. */
  readonly leader: (x1: number, y1: number, x2: number, y2: number) => void;
  /** Lettering about a middle point; returns that point for a pin. */
  readonly text: (x: number, y: number, words: string, size?: number, turn?: number) => { x: number; y: number };
  readonly svg: () => string;
};

const GRAPHITE = "#3d4148";

export const takePencil = (seed: number): Pencil => {
  const generator = rough.generator();
  const parts: string[] = [];
  let strokes = seed * 1000;
  const put = (drawable: Drawable, opacity = 0.82): void => {
    for (const { d, strokeWidth } of generator.toPaths(drawable))
      parts.push(
        `<path d="${d}" fill="none" stroke="${GRAPHITE}" stroke-opacity="${opacity}" ` +
          `stroke-width="${strokeWidth}" stroke-linecap="round"/>`,
      );
  };
  const style = (options: Options = {}): Options => ({
    roughness: 1.3,
    bowing: 1.1,
    strokeWidth: 2.1,
    seed: ++strokes,
    ...options,
  });
  const thin: Options = { roughness: 0.9, strokeWidth: 1.3, disableMultiStroke: true };
  const line: Pencil["line"] = (x1, y1, x2, y2, options) => put(generator.line(x1, y1, x2, y2, style(options)));
  const arrow = (x: number, y: number, angle: number): void => {
    for (const side of [0.38, -0.32])
      line(x, y, x - 15 * Math.cos(angle + side), y - 15 * Math.sin(angle + side), { ...thin, strokeWidth: 1.6 });
  };
  return {
    line,
    circle: (x, y, radius, options) =>
      put(generator.circle(x, y, 2 * radius, style({ curveFitting: 0.985, ...options }))),
    arc: (x, y, radius, from, to, options) =>
      put(generator.arc(x, y, 2 * radius, 2 * radius, from, to, false, style(options))),
    path: (d, options) => put(generator.path(d, style(options))),
    centreLine: (x1, y1, x2, y2) => {
      const length = Math.hypot(x2 - x1, y2 - y1);
      const [ux, uy] = [(x2 - x1) / length, (y2 - y1) / length];
      for (let at = 0; at < length; at += 46) {
        line(
          x1 + ux * at,
          y1 + uy * at,
          x1 + ux * Math.min(length, at + 28),
          y1 + uy * Math.min(length, at + 28),
          thin,
        );
        if (at + 40 < length)
          line(x1 + ux * (at + 35), y1 + uy * (at + 35), x1 + ux * (at + 39), y1 + uy * (at + 39), thin);
      }
    },
    dimension: (x1, y1, x2, y2) => {
      line(x1, y1, x2, y2, thin);
      const angle = Math.atan2(y2 - y1, x2 - x1);
      arrow(x2, y2, angle);
      arrow(x1, y1, angle + Math.PI);
    },
    leader: (x1, y1, x2, y2) => {
      line(x1, y1, x2, y2, thin);
      arrow(x2, y2, Math.atan2(y2 - y1, x2 - x1));
    },
    text: (x, y, words, size = 34, turn = 0) => {
      const lean = turn + (((++strokes * 37) % 5) - 2) * 0.6;
      parts.push(
        `<text x="${x}" y="${y}" transform="rotate(${lean} ${x} ${y})" text-anchor="middle" ` +
          `dominant-baseline="central" font-family="Kalam" font-size="${size}" fill="${GRAPHITE}" ` +
          `fill-opacity="0.9">${words}</text>`,
      );
      return { x, y };
    },
    svg: () => parts.join("\n"),
  };
};
