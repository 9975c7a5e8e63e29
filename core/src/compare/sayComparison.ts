import { showLengthUnit } from "../numeric/showValue.ts";
import type { Unit } from "../numeric/units.ts";
import { norm } from "../geometry/point.ts";
import { isSame, sameArea, type Comparison, type Moved } from "./compareDrawings.ts";

const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** What moved the same way, together. */
const byWay = (moved: readonly Moved[], unit: Unit): readonly string[] => {
  const ways = new Map<string, number>();
  for (const { by } of moved) {
    const way = `moved by ${showLengthUnit(norm(by), unit)}`;
    ways.set(way, (ways.get(way) ?? 0) + 1);
  }
  return [...ways].map(([way, n]) => `${n} ${way}`);
};

/** A comparison in one sentence, and what it says of area, units and callouts in others. */
export const sayComparison = (found: Comparison, unit: Unit): readonly string[] => {
  const { same, came, went, moved, area, callouts, units } = found;
  if (isSame(found)) return [`The same: ${counted(same, "piece")}${callouts ? ", and every callout" : ""}.`];
  const parts = [
    `${counted(same, "piece")} the same`,
    ...(came.length > 0 ? [`${came.length} came`] : []),
    ...(went.length > 0 ? [`${went.length} went`] : []),
    ...byWay(moved, unit),
  ];
  const [before, after] = area;
  const round = (value: number): string => String(Number(value.toPrecision(8)));
  return [
    `${parts.join(", ")}.`,
    ...(sameArea(found) ? [] : [`The area was ${round(before)} ${unit}², and is ${round(after)} ${unit}².`]),
    ...(units ? ["One is in millimetres, the other in inches: only the numbers were compared."] : []),
    ...(callouts ?? []).map(({ before: was, after: is }) =>
      was === undefined
        ? `${is} was called anew.`
        : is === undefined
          ? `${was} is called no more.`
          : `${was} became ${is}.`,
    ),
  ];
};
