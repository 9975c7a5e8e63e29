import { showLengthUnit, type Unit } from "@ash-edge/core/numeric";
import { offsetRegion } from "@ash-edge/core/offset";
import type { Tidied } from "@ash-edge/core/tidy";
import type { Arguments } from "./arguments.ts";
import { piecesOf, plainReport, type Finding } from "./report.ts";

/**
 * The offset contours of everything closed that stands after tidying, on the layers of what they come from, and what
 * there is to say of them: what vanished, and what ran into one another.
 */
export const offsetContours = (
  standing: readonly Tidied[],
  { by, side, corners, times, limit }: NonNullable<Arguments["offset"]>,
  units: Unit,
): { readonly made: readonly Tidied[]; readonly findings: readonly Finding[] } => {
  const closed = standing.filter(({ shape }) => shape.kind === "circle" || (shape.kind === "chain" && shape.closed));
  const contours = closed.map(piecesOf);
  const made: Tidied[] = [];
  const findings: Finding[] = [];
  for (const way of side === "both" ? [1, -1] : [side === "out" ? 1 : -1])
    for (let n = 1; n <= times; n++) {
      const distance = n * by;
      const { runs, vanished, merged, failed } = offsetRegion(contours, way * distance, { corners, limit });
      const offset = `offset ${way > 0 ? "out" : "in"} by ${showLengthUnit(distance, units)}`;
      for (const { circle, pieces, sources } of runs) {
        const { layer, colour, line } = closed[sources[0]!]!;
        made.push({
          layer,
          ...(colour === undefined ? {} : { colour }),
          ...(line === undefined ? {} : { line }),
          shape: circle ? { kind: "circle", ...circle } : { kind: "chain", closed: true, pieces },
          origins: [],
        });
      }
      for (const i of vanished)
        findings.push(
          plainReport("vanished", "warning", `Nothing is left of a contour ${offset}.`, contours[i]![0]!.a),
        );
      for (const sources of merged)
        findings.push(
          plainReport(
            "merged",
            "warning",
            `${sources.length} contours ran into one another, ${offset}: they were united.`,
            contours[sources[0]!]![0]!.a,
          ),
        );
      for (const at of failed)
        findings.push(
          plainReport("open", "error", `What came of a contour ${offset} does not close, so it was left out.`, at),
        );
    }
  return { made, findings };
};
