import type { Point } from "../../geometry/point.ts";
import { toRadians } from "../../numeric/angle.ts";
import type { ReadDimension } from "../readShapes.ts";
import { numberOf, sound, textOf, type Groups } from "./records.ts";

/** Kinds of dimension as the format's reference numbers them, in the lowest three bits. */
const [ROTATED, ALIGNED, ANGLE_OF_LINES, DIAMETER, RADIUS, ANGLE_OF_POINTS, ORDINATE] = [0, 1, 2, 3, 4, 5, 6];
const IS_X = 64;

/**
 * What a DIMENSION is defined by; undefined where its points are none, and for kinds unknown here. Whatever text it
 * bears is not read: what is measured is said by what it holds.
 */
export const readDimension = (groups: Groups): ReadDimension | undefined => {
  const type = numberOf(groups, 70, 0);
  const at = (code: number): Point | undefined => {
    const p = groups.point(code);
    return sound(p.x) && sound(p.y) ? p : undefined;
  };
  const [p10, p13, p14, p15, p16] = [10, 13, 14, 15, 16].map(at);
  const text = at(11);
  const own = textOf(groups, 1)?.trim() ?? "";
  const said = { worded: own !== "" && own !== "<>", ...(text ? { text } : {}) };
  switch (type & 7) {
    case ROTATED:
    case ALIGNED: {
      if (!p10 || !p13 || !p14) return undefined;
      const angle = (type & 7) === ROTATED ? { angle: toRadians(numberOf(groups, 50, 0)) } : {};
      return { kind: "linear", places: [p13, p14], line: p10, ...angle, ...said };
    }
    case ANGLE_OF_LINES:
      return p10 && p13 && p14 && p15 && p16
        ? { kind: "angle of lines", places: [p13, p14, p15, p10], line: p16, ...said }
        : undefined;
    case DIAMETER:
    case RADIUS:
      return p10 && p15
        ? { kind: (type & 7) === RADIUS ? "radius" : "diameter", places: [p10, p15], line: text ?? p15, ...said }
        : undefined;
    case ANGLE_OF_POINTS:
      return p10 && p13 && p14 && p15 ? { kind: "angle", places: [p15, p13, p14], line: p10, ...said } : undefined;
    case ORDINATE:
      return p10 && p13 && p14
        ? { kind: "ordinate", places: [p10, p13], line: p14, angle: (type & IS_X) !== 0 ? 0 : Math.PI / 2, ...said }
        : undefined;
    default:
      return undefined;
  }
};
