import { compareDrawings, isSame, sayComparison } from "@ash-edge/core/compare";
import { unitOf } from "@ash-edge/core/drawing";
import type { Arguments } from "./arguments.ts";
import { openFile } from "./openFile.ts";
import { Unusable } from "./unusable.ts";

/** Compares two files by what is cut or marked in them: what is said, and 0 for the same, 1 for different. */
export const compareFiles = async ({
  inputs,
  units,
  json,
}: Arguments): Promise<{ readonly code: 0 | 1; readonly text: string }> => {
  const [a, b, ...more] = inputs;
  if (a === undefined || b === undefined || more.length > 0) throw new Unusable("compare takes two files; see --help");
  const asked = units === undefined ? {} : { units };
  const [one, other] = [await openFile(a, asked), await openFile(b, asked)];
  const [before, after] = [one.drawing, other.drawing];
  const found = compareDrawings(before, after, { called: one.isJob && other.isJob });
  const code = isSame(found) ? 0 : 1;
  if (!json) return { code, text: `${sayComparison(found, unitOf(after)).join("\n")}\n` };
  const report = {
    units: [unitOf(before), unitOf(after)],
    same: found.same,
    came: found.came.map(({ at }) => [at.x, at.y]),
    went: found.went.map(({ at }) => [at.x, at.y]),
    moved: found.moved.map(({ by }) => [by.x, by.y]),
    area: found.area,
    callouts: found.callouts ?? null,
  };
  return { code, text: `${JSON.stringify(report)}\n` };
};
