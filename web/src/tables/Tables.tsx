import { useState } from "react";
import { FITS, MATERIALS, searchThreads, THREAD_SOURCES, THREADS, type Thread } from "@ash-edge/core/tables";
import { Page } from "../app/Page.tsx";
import { Segmented } from "../ui/Choice.tsx";
import { ToolsAndSheets } from "./ToolsAndSheets.tsx";

const SERIES = Object.keys(THREAD_SOURCES);
const MATERIALS_TABLE = "Materials";
const TOOLS_TABLE = "Tools and sheets";
const number = (value: number, unit: Thread["unit"]): string =>
  unit === "mm" ? String(Number(value.toFixed(3))) : value.toFixed(4).replace(/0$/, "");
const pitch = ({ unit, pitch: own }: Thread): string =>
  unit === "mm" ? String(own) : `${Math.round(1 / own)} to the inch`;

/** The built-in tables of threads, with their sources. */
export const Tables = () => {
  const [series, setSeries] = useState(SERIES[0]!);
  const [text, setText] = useState("");
  const rows = text.trim() ? searchThreads(text, 200) : THREADS.filter((thread) => thread.series === series);
  const cell = "figures px-3 py-1 text-right";
  return (
    <Page title="Tables">
      <div className="mx-auto flex h-full max-w-5xl flex-col">
        <h1 className="text-lg font-semibold">Tables</h1>
        <div className="mt-3 flex items-center gap-3">
          <Segmented
            label="Threads"
            options={[...SERIES, MATERIALS_TABLE, TOOLS_TABLE].map((name) => [name, name] as const)}
            value={text.trim() ? "" : series}
            onChange={(to) => {
              setText("");
              setSeries(to);
            }}
          />
          <input
            aria-label="Search the threads"
            placeholder="M12, 3/8-16"
            value={text}
            onChange={(event) => setText(event.target.value)}
            className="figures h-8 w-44 rounded-card border border-hair bg-panel px-3 placeholder:text-soft"
          />
        </div>
        {series === MATERIALS_TABLE && !text.trim() ? (
          <Materials />
        ) : series === TOOLS_TABLE && !text.trim() ? (
          <ToolsAndSheets />
        ) : (
          <>
            <div className="card mt-3 min-h-0 flex-1 overflow-auto" tabIndex={0} role="region" aria-label="Threads">
              <table className="w-full">
                <thead className="sticky top-0 bg-panel text-soft">
                  <tr className="border-b border-hair">
                    <th scope="col" className="px-3 py-2 text-left">
                      thread
                    </th>
                    <th scope="col" className={cell}>
                      Ø
                    </th>
                    <th scope="col" className={cell}>
                      pitch
                    </th>
                    <th scope="col" className={cell}>
                      drill
                    </th>
                    <th scope="col" className={cell}>
                      minor Ø, 6H
                    </th>
                    {FITS.map((fit) => (
                      <th key={fit} scope="col" className={cell}>
                        clearance {fit}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {rows.map((thread) => (
                    <tr key={`${thread.series} ${thread.name}`} className="border-b border-hair last:border-0">
                      <th scope="row" className="figures px-3 py-1 text-left">
                        {thread.name}
                      </th>
                      <td className={cell}>{number(thread.diameter, thread.unit)}</td>
                      <td className={cell}>{pitch(thread)}</td>
                      <td className={cell}>{number(thread.drill, thread.unit)}</td>
                      <td className={cell}>
                        {thread.minor ? thread.minor.map((one) => one.toFixed(3)).join(" – ") : "–"}
                      </td>
                      {FITS.map((fit) => (
                        <td key={fit} className={cell}>
                          {thread.clearance ? number(thread.clearance[fit], thread.unit) : "–"}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
              {rows.length === 0 && <p className="px-3 py-6 text-soft">No thread begins with “{text.trim()}”.</p>}
            </div>
            <p className="mt-2 text-soft">
              {rows[0] ? THREAD_SOURCES[rows[0].series] : ""}. Metric sizes in mm, unified in inches.
            </p>
          </>
        )}
      </div>
    </Page>
  );
};

/** What weights are worked out from. */
const Materials = () => (
  <>
    <div className="card mt-3 min-h-0 flex-1 overflow-auto" tabIndex={0} role="region" aria-label="Materials">
      <table className="w-full">
        <thead className="sticky top-0 bg-panel text-soft">
          <tr className="border-b border-hair">
            <th scope="col" className="px-3 py-2 text-left">
              material
            </th>
            <th scope="col" className="px-3 py-2 text-left">
              also found by
            </th>
            <th scope="col" className="px-3 py-2 text-right">
              kg/m³
            </th>
          </tr>
        </thead>
        <tbody>
          {MATERIALS.map(({ name, also, density }) => (
            <tr key={name} className="border-b border-hair last:border-0">
              <th scope="row" className="px-3 py-1 text-left font-normal">
                {name}
              </th>
              <td className="px-3 py-1 text-soft">{also.join(", ")}</td>
              <td className="figures px-3 py-1 text-right">{density}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
    <p className="mt-2 text-soft">
      From memory of handbooks, common practice. A job’s weight is its material’s area by its thickness, as they stand
      in its head.
    </p>
  </>
);
