import type { Thing, Tidied } from "../tidy/things.ts";
import type { ReadDrawing, ReadShape } from "./readShapes.ts";

/** The shapes of a file that can be tidied, by their place in it, and the rest, which passes through as it is. */
export const thingsOf = ({ shapes }: ReadDrawing): { things: readonly Thing[]; rest: readonly ReadShape[] } => {
  const things: Thing[] = [];
  const rest: ReadShape[] = [];
  for (let id = 0; id < shapes.length; id++) {
    const shape = shapes[id]!;
    if (canBeTidied(shape)) things.push(looking({ id, layer: shape.layer, shape }, shape));
    else rest.push(shape);
  }
  return { things, rest };
};

const canBeTidied = (shape: ReadShape): shape is ReadShape & Thing["shape"] =>
  shape.kind === "piece" || shape.kind === "chain" || shape.kind === "circle";

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
