import { Helper } from "dxf";
import DxfParser from "dxf-parser";
import { joinRuns } from "@ash-edge/core/contour";
import { readDxf, writeDxf } from "@ash-edge/core/formats/dxf";
import { contours } from "./contours.ts";
import { race, say, table } from "./report.ts";
import { soupText } from "./soup.ts";

/** Reading and writing DXF, and joining what is loose. */
export const formats = (): void => {
  const text = writeDxf(contours, "mm");
  const parts = contours.flatMap((contour) => (contour.kind === "polyline" ? contour.pieces : []));

  say(`\n${text.length} bytes of DXF, ${contours.length} contours, ${parts.length} loose pieces.`);
  table(
    "Reading the DXF",
    race({
      ours: () => readDxf(text),
      "dxf-parser": () => new DxfParser().parseSync(text),
      dxf: () => new Helper(text).parsed,
    }),
  );
  const lines = soupText(100_000);
  table(
    `Reading a DXF of 100000 lines (${(lines.length / 1e6).toFixed(1)} MB)`,
    race({
      ours: () => readDxf(lines),
      "dxf-parser": () => new DxfParser().parseSync(lines),
      dxf: () => new Helper(lines).parsed,
    }),
  );
  table(
    "Writing the DXF",
    race({
      ours: () => writeDxf(contours, "mm"),
      "JSON.stringify of the same geometry": () => JSON.stringify(contours),
    }),
  );
  table(
    "Joining the loose pieces into contours",
    race({
      ours: () => joinRuns(parts, 1e-7),
      "a string-keyed Map of the ends alone": () => {
        const ends = new Map<string, number>();
        for (const { a, b } of parts)
          for (const { x, y } of [a, b]) ends.set(`${x} ${y}`, (ends.get(`${x} ${y}`) ?? 0) + 1);
        return ends;
      },
    }),
  );
};
