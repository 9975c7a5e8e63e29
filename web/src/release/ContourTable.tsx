import { Download } from "lucide-react";
import { releasedArea, type PlannedContour, type ReleasePlan } from "@ash-edge/core/checks";
import { layerInFile, type MachineProfile } from "@ash-edge/core/release";
import { showArea, showLength, type Unit } from "@ash-edge/core/numeric";

/** So many are listed; the table as a file has them all. */
const LISTED = 200;

const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? "" : "s"}`;

const words = (contour: PlannedContour, unit: Unit): string => {
  if (contour.kind === "circle") return `Circle Ø ${showLength(2 * contour.radius, unit)}`;
  const lines = contour.pieces.filter(({ bulge }) => bulge === 0).length;
  const made = `${counted(lines, "line")} and ${counted(contour.pieces.length - lines, "arc")}`;
  return `${contour.closed ? "Closed" : "Open"} polyline, ${made}`;
};

/** What is written, contour by contour, with its layer in the file. */
export const ContourTable = ({
  plan,
  profile,
  onTable,
}: {
  plan: ReleasePlan;
  profile: MachineProfile;
  onTable: () => void;
}) => {
  const { contours, unit } = plan;
  const more = contours.length - LISTED;
  return (
    <section className="card overflow-hidden" aria-label="Contours">
      <div className="flex items-center px-4 py-2">
        <h2 className="flex-1 font-semibold">
          What is written <span className="figures ml-1 text-sm font-normal text-soft">{contours.length}</span>
        </h2>
        {contours.length > 0 && (
          <button
            type="button"
            onClick={onTable}
            className="flex h-7 items-center gap-1.5 rounded-card border border-hair px-2 hover:border-ink"
          >
            <Download size={14} aria-hidden="true" /> Save the table (CSV)
          </button>
        )}
      </div>
      {contours.length === 0 ? (
        <p className="border-t border-hair px-4 py-3 text-soft">No contour is closed and joined yet.</p>
      ) : (
        <table className="w-full">
          <thead className="text-left text-xs text-soft">
            <tr className="border-t border-hair">
              <th scope="col" className="py-1 pl-4 font-normal">
                Layer
              </th>
              <th scope="col" className="font-normal">
                Contour
              </th>
              <th scope="col" className="pr-4 text-right font-normal">
                Area
              </th>
            </tr>
          </thead>
          <tbody>
            {contours.slice(0, LISTED).map((contour, i) => {
              const area = releasedArea(contour);
              return (
                <tr key={i} className="border-t border-hair">
                  <td className={`figures py-1.5 pl-4 font-semibold ${contour.role === "inside" ? "text-inside" : ""}`}>
                    {layerInFile(contour, profile)}
                  </td>
                  <td className="said">{words(contour, unit)}</td>
                  <td className="figures pr-4 text-right">{area === undefined ? "" : showArea(area, unit)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {more > 0 && (
        <p className="border-t border-hair px-4 py-2 text-soft">
          {more} more are written. The table as a file lists them all.
        </p>
      )}
    </section>
  );
};
