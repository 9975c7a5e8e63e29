import type { Id } from "../numeric/id.ts";
import { boundsMeet, boundsOf, type Bounds } from "../geometry/bounds.ts";
import type { Display } from "./display.ts";
import { textCorners } from "./pen.ts";

/** What is wrong is read first. */
const GRAVEST: readonly Display["standing"][] = ["lost", "off", "within", "true", "plain"];

/**
 * The annotations whose texts have to give way, so that none is written over another: of two that meet the graver, or
 * older, one stays. Cells of a grid keep it from comparing each with each.
 */
export const givingWay = (displays: readonly Display[]): ReadonlySet<Id> => {
  const cells = new Map<string, Bounds[]>();
  const gone = new Set<Id>();
  const size = cellSize(displays);
  const cellsOf = ({ minX, minY, maxX, maxY }: Bounds): readonly string[] => {
    const found: string[] = [];
    for (let x = Math.floor(minX / size); x <= Math.floor(maxX / size); x++)
      for (let y = Math.floor(minY / size); y <= Math.floor(maxY / size); y++) found.push(`${x} ${y}`);
    return found;
  };
  const gravity = ({ standing }: Display): number => GRAVEST.indexOf(standing);
  for (const { id, drawn } of [...displays].sort((p, q) => gravity(p) - gravity(q))) {
    const boxes = drawn.flatMap((one) => (one.kind === "text" ? [boundsOf(textCorners(one))] : []));
    const meets = boxes.some((box) =>
      cellsOf(box).some((cell) => cells.get(cell)?.some((other) => boundsMeet(box, other))),
    );
    if (meets) {
      gone.add(id);
      continue;
    }
    for (const box of boxes)
      for (const cell of cellsOf(box)) void (cells.get(cell)?.push(box) ?? cells.set(cell, [box]));
  }
  return gone;
};

/** A few letters wide: a text lies in a handful of cells. */
const cellSize = (displays: readonly Display[]): number => {
  for (const { drawn } of displays) for (const one of drawn) if (one.kind === "text") return 6 * one.height || 1;
  return 1;
};
