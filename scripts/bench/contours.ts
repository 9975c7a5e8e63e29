import type { ReleasedContour } from "@ash-edge/core/checks";

// a sheet of rounded outlines and holes: 100 000 pieces in 20 000 contours
let seed = 7;
const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
export const contours: ReleasedContour[] = Array.from({ length: 20_000 }, (_, i) => {
  const [x, y] = [(i % 200) * 30 + random(), Math.floor(i / 200) * 30 + random()];
  if (i % 5 === 0) return { kind: "circle", layer: "INSIDE", centre: { x, y }, radius: 2 + random() };
  const corners = [0, 1, 2, 3, 4, 5].map((k) => ({
    x: x + 9 * Math.cos((k * Math.PI) / 3),
    y: y + 9 * Math.sin((k * Math.PI) / 3),
  }));
  return {
    kind: "polyline",
    closed: true,
    layer: "OUTSIDE",
    pieces: corners.map((a, k) => ({ a, b: corners[(k + 1) % 6]!, bulge: k % 2 ? 0.2 : 0 })),
  };
});
