import { writeShapes } from "@ash-edge/core/formats/dxf";
import type { Piece, Point } from "@ash-edge/core/geometry";
import type { Thing, TidyOptions } from "@ash-edge/core/tidy";

export const SOUP_OPTIONS: TidyOptions = { tolerance: 0.05, ignore: new Set(["colour"]), sharedEdges: "keep" };
type Line = Thing & { readonly shape: { readonly kind: "piece" } & Piece };

/**
 * The soup lies turned and off the origin, so that its numbers have all their digits, as those of customers' files
 * mostly do.
 */
const TURNED = { angle: 0.3, by: { x: 217.3, y: 1041.7 } };

/**
 * A soup of loose lines: squares of which 40 % of the sides lie double or reversed, 10 % overlap, 10 % miss their
 * corner.
 */
export const soupOf = (curves: number): Line[] => {
  let seed = 7;
  const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
  const things: Line[] = [];
  const put = (a: Point, b: Point): void =>
    void things.push({ id: things.length, layer: "0", shape: { kind: "piece", a, b, bulge: 0 } });
  const part = (a: Point, b: Point, t: number): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });
  const [cos, sin] = [Math.cos(TURNED.angle), Math.sin(TURNED.angle)];
  const turned = ({ x, y }: Point): Point => ({
    x: TURNED.by.x + x * cos - y * sin,
    y: TURNED.by.y + x * sin + y * cos,
  });
  const across = Math.ceil(Math.sqrt(curves / 6));
  for (let i = 0; things.length < curves; i++) {
    const [x, y] = [(i % across) * 10, Math.floor(i / across) * 10];
    const corners = [
      [0, 0],
      [6, 0],
      [6, 6],
      [0, 6],
    ].map(([u, v]) => turned({ x: x + u!, y: y + v! }));
    corners.forEach((a, k) => {
      const b = corners[(k + 1) % 4]!;
      const chance = random();
      if (chance < 0.5) put(a, chance < 0.4 ? b : part(a, b, 0.7));
      if (chance < 0.4) put(chance < 0.2 ? b : a, chance < 0.2 ? a : b);
      else if (chance < 0.5) put(part(a, b, 0.4), b);
      else put(a, chance < 0.6 ? part(a, b, 0.996) : b);
    });
  }
  return things;
};

/** The same as a DXF. */
export const soupText = (curves: number): string =>
  writeShapes(
    soupOf(curves).map(({ shape }) => ({ ...shape, layer: "0" })),
    "mm",
  );
