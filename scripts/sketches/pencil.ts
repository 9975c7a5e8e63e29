import rough from "roughjs";
import type { Drawable, Options } from "roughjs/bin/core";

/** What was meant with an outline's stroke, before the hand shook. Pixels, y down; radians from +x, clockwise. */
export type Meant =
  | { readonly kind: "line"; readonly a: Place; readonly b: Place }
  | { readonly kind: "circle"; readonly centre: Place; readonly radius: number }
  | {
      readonly kind: "arc";
      readonly centre: Place;
      readonly radius: number;
      readonly from: number;
      readonly to: number;
    };
type Place = { readonly x: number; readonly y: number };

/** Draws as a person with a pencil does: wobbly, gone over twice, lettered by hand. Pixels, y down. */
export type Pencil = {
  readonly line: (x1: number, y1: number, x2: number, y2: number, options?: Options) => void;
  readonly circle: (x: number, y: number, radius: number, options?: Options) => void;
  /** Angles in radians, clockwise on the page from +x. */
  readonly arc: (x: number, y: number, radius: number, from: number, to: number, options?: Options) => void;
  /** Bows from place to place, each drawn towards the place between. */
  readonly bow: (points: readonly Place[], options?: Options) => void;
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
  /** All that was drawn with the full stroke; thin lines, lettering and free paths are none of it. */
  readonly meant: () => readonly Meant[];
};

/** The arc from one end of a bow to the other through its middle. */
const bowOf = (a: Place, over: Place, b: Place): Meant => {
  const m = { x: (a.x + 2 * over.x + b.x) / 4, y: (a.y + 2 * over.y + b.y) / 4 };
  const [ux, uy, vx, vy] = [m.x - a.x, m.y - a.y, b.x - a.x, b.y - a.y];
  const twice = 2 * (ux * vy - uy * vx);
  const [u, v] = [ux * ux + uy * uy, vx * vx + vy * vy];
  const centre = { x: a.x + (vy * u - uy * v) / twice, y: a.y + (ux * v - vx * u) / twice };
  const angle = (p: Place): number => Math.atan2(p.y - centre.y, p.x - centre.x);
  const [from, to] = twice > 0 ? [angle(a), angle(b)] : [angle(b), angle(a)];
  const radius = Math.hypot(a.x - centre.x, a.y - centre.y);
  return { kind: "arc", centre, radius, from, to: to < from ? to + 2 * Math.PI : to };
};

const GRAPHITE = "#3d4148";

/**
 * How it is drawn: how much the hand shakes, how dark and how heavy the strokes are, how often each is gone over, and
 * how long the gaps are that it leaves now and then.
 */
export type Hand = {
  readonly shake?: number;
  readonly dark?: number;
  readonly weight?: number;
  readonly times?: number;
  readonly gaps?: number;
};

export const takePencil = (
  seed: number,
  { shake = 1, dark = 1, weight = 1, times = 1, gaps = 0 }: Hand = {},
): Pencil => {
  const generator = rough.generator();
  const parts: string[] = [];
  const meant: Meant[] = [];
  let strokes = seed * 1000;
  const put = (draw: (options: Options) => Drawable, options: Options = {}): void => {
    for (let n = 0; n < times; n++) putOnce(draw(style(options)));
  };
  const putOnce = (drawable: Drawable): void => {
    for (const { d, strokeWidth } of generator.toPaths(drawable))
      parts.push(
        `<path d="${d}" fill="none" stroke="${GRAPHITE}" stroke-opacity="${0.82 * dark}" ` +
          `stroke-width="${strokeWidth}" stroke-linecap="round"${lifted(strokeWidth)}/>`,
      );
  };
  // both goes over a line lift at the same places; caps take a stroke's width of each gap
  const lifted = (strokeWidth: number): string =>
    gaps === 0 ? "" : ` stroke-dasharray="${90 + ((strokes * 29) % 70)} ${gaps + strokeWidth}"`;
  const style = ({ roughness = 1.3, strokeWidth = 2.1, ...options }: Options): Options => ({
    bowing: 1.1 * shake,
    seed: ++strokes,
    ...options,
    roughness: roughness * shake,
    strokeWidth: strokeWidth * weight,
  });
  const thin: Options = { roughness: 0.9, strokeWidth: 1.3, disableMultiStroke: true };
  const isFull = ({ strokeWidth }: Options = {}): boolean => strokeWidth === undefined;
  const line: Pencil["line"] = (x1, y1, x2, y2, options) => {
    if (isFull(options)) meant.push({ kind: "line", a: { x: x1, y: y1 }, b: { x: x2, y: y2 } });
    put((own) => generator.line(x1, y1, x2, y2, own), options);
  };
  const arrow = (x: number, y: number, angle: number): void => {
    for (const side of [0.38, -0.32])
      line(x, y, x - 15 * Math.cos(angle + side), y - 15 * Math.sin(angle + side), { ...thin, strokeWidth: 1.6 });
  };
  return {
    line,
    circle: (x, y, radius, options) => {
      if (isFull(options)) meant.push({ kind: "circle", centre: { x, y }, radius });
      put((own) => generator.circle(x, y, 2 * radius, own), { curveFitting: 0.985, ...options });
    },
    arc: (x, y, radius, from, to, options) => {
      if (isFull(options)) meant.push({ kind: "arc", centre: { x, y }, radius, from, to });
      put((own) => generator.arc(x, y, 2 * radius, 2 * radius, from, to, false, own), options);
    },
    bow: (points, options) => {
      const [first, ...rest] = points;
      let d = `M${first!.x} ${first!.y}`;
      let from = first!;
      for (let i = 0; i + 1 < rest.length; i += 2) {
        const [over, to] = [rest[i]!, rest[i + 1]!];
        d += `Q${over.x} ${over.y} ${to.x} ${to.y}`;
        meant.push(bowOf(from, over, to));
        from = to;
      }
      put((own) => generator.path(d, own), options);
    },
    path: (d, options) => put((own) => generator.path(d, own), options),
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
          `fill-opacity="${0.9 * dark}">${words}</text>`,
      );
      return { x, y };
    },
    svg: () => parts.join("\n"),
    meant: () => meant,
  };
};
