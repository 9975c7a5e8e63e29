import type { Thing, Tidied } from "../tidy/things.ts";
import type { ReadDrawing, ReadShape } from "./readShapes.ts";

/** The shapes of a file that can be tidied, by their place in it, and the rest, which passes through as it is. */
export const thingsOf = ({ shapes }: ReadDrawing): { things: readonly Thing[]; rest: readonly ReadShape[] } => {
  const things: Thing[] = [];
  const rest: ReadShape[] = [];
  for (let id = 0; id < shapes.length; id++) {
    const shape = shapes[id]!;
    const own = plainShape(shape);
    if (own) things.push(looking({ id, layer: shape.layer, shape: own }, shape));
    else rest.push(shape);
  }
  return { things, rest };
};

/** Its geometry alone; undefined for what can't be tidied. */
const plainShape = (shape: ReadShape): Thing["shape"] | undefined => {
  switch (shape.kind) {
    case "piece":
      return { kind: "piece", a: shape.a, b: shape.b, bulge: shape.bulge };
    case "chain":
      return { kind: "chain", closed: shape.closed, pieces: shape.pieces };
    case "circle":
      return { kind: "circle", centre: shape.centre, radius: shape.radius };
    default:
      return undefined;
  }
};

type Look = { readonly colour?: string; readonly line?: string };

/** What was just made, given a colour and a line style where another has them. */
const looking = <T extends object>(made: T, { colour, line }: Look): T & Look => {
  const own: T & { colour?: string; line?: string } = made;
  if (colour !== undefined) own.colour = colour;
  if (line !== undefined) own.line = line;
  return own;
};

/** What stands after tidying, as shapes to be written. */
export const shapesOf = (tidied: readonly Tidied[]): readonly ReadShape[] =>
  tidied.map((one) => looking({ ...one.shape, layer: String(one.layer) }, one));
