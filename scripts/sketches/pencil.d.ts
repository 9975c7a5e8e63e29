import type { Options } from "roughjs/bin/core";
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
  readonly text: (
    x: number,
    y: number,
    words: string,
    size?: number,
    turn?: number,
  ) => {
    x: number;
    y: number;
  };
  readonly svg: () => string;
};
export declare const takePencil: (seed: number) => Pencil;
