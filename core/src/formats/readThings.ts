import type { Thing, Tidied } from "../tidy/things.ts";
import type { ReadDrawing, ReadShape } from "./readShapes.ts";

/** The shapes of a file that can be tidied, by their place in it, and the rest, which passes through as it is. */
export const thingsOf = ({ shapes }: ReadDrawing): { things: readonly Thing[]; rest: readonly ReadShape[] } => {
  const things: Thing[] = [];
  const rest: ReadShape[] = [];
  shapes.forEach((shape, id) => {
    const { layer, colour, line } = shape;
    const look = { layer, ...(colour === undefined ? {} : { colour }), ...(line === undefined ? {} : { line }) };
    if (shape.kind === "circle")
      things.push({ id, ...look, shape: { kind: "circle", centre: shape.centre, radius: shape.radius } });
    else if (shape.kind === "piece")
      things.push({ id, ...look, shape: { kind: "piece", a: shape.a, b: shape.b, bulge: shape.bulge } });
    else if (shape.kind === "chain")
      things.push({ id, ...look, shape: { kind: "chain", closed: shape.closed, pieces: shape.pieces } });
    else rest.push(shape);
  });
  return { things, rest };
};

/** What stands after tidying, as shapes to be written. */
export const shapesOf = (tidied: readonly Tidied[]): readonly ReadShape[] =>
  tidied.map(({ shape, layer, colour, line }) => ({
    ...shape,
    layer: String(layer),
    ...(colour === undefined ? {} : { colour }),
    ...(line === undefined ? {} : { line }),
  }));
