import { useMemo, useState } from "react";
import { unitOf } from "@ash-edge/core/drawing";
import { showLengthUnit } from "@ash-edge/core/numeric";
import type { Chart as Deviation } from "@ash-edge/tools";
import { Chart } from "../ui/Chart.tsx";
import { readPalette } from "./board/palette.ts";
import { useBench } from "./SessionContext.tsx";

/**
 * How far a fit lies off, all along it, over the foot of the board: of the curve in hand, or of the last one while the
 * tool stays.
 */
export const DeviationCard = () => {
  const toolId = useBench((state) => state.hand.toolId);
  const now = useBench((state) => state.hand.proposal?.chart);
  const unit = useBench((state) => unitOf(state.history.drawing));
  const [last, setLast] = useState<{ tool: string | undefined; chart: Deviation }>();
  if (now && last?.chart !== now) setLast({ tool: toolId, chart: now });
  const chart = now ?? (last?.tool === toolId ? last?.chart : undefined);
  const drawn = useMemo(() => (chart ? drawnOf(chart) : undefined), [chart]);
  if (!chart || !drawn || toolId === undefined) return null;
  const most = chart.profile.reduce((largest, { off }) => Math.max(largest, Math.abs(off)), 0);
  return (
    <figure className="card pointer-events-none absolute right-2 bottom-10 left-2 z-10 px-2 py-1">
      <figcaption className="flex justify-between px-1 text-xs text-soft">
        <span>Off the curve, along it ({unit})</span>
        <span className="figures">
          at most {showLengthUnit(most, unit)} of {showLengthUnit(chart.tolerance, unit)}
        </span>
      </figcaption>
      <Chart {...drawn} label={`Deviation along the curve, at most ${showLengthUnit(most, unit)}`} className="h-28" />
    </figure>
  );
};

const drawnOf = ({ profile, tolerance }: Deviation): { traces: readonly object[]; layout: object } => {
  const palette = readPalette();
  const along = profile.map((place) => place.along);
  const ends = [along[0], along.at(-1)];
  const limit = (at: number): object => ({
    x: ends,
    y: [at, at],
    mode: "lines",
    line: { color: palette.soft, width: 1, dash: "dot" },
    hoverinfo: "skip",
  });
  const axis = { color: palette.soft, gridcolor: palette.hair, zerolinecolor: palette.soft, tickfont: { size: 10 } };
  return {
    traces: [
      limit(tolerance),
      limit(-tolerance),
      { x: along, y: profile.map(({ off }) => off), mode: "lines", line: { color: palette.ember, width: 1.6 } },
    ],
    layout: {
      margin: { l: 54, r: 8, t: 4, b: 20 },
      showlegend: false,
      paper_bgcolor: "rgba(0,0,0,0)",
      plot_bgcolor: "rgba(0,0,0,0)",
      font: { family: "IBM Plex Mono, monospace", size: 10, color: palette.soft },
      xaxis: axis,
      yaxis: { ...axis, range: [-1.25 * tolerance, 1.25 * tolerance] },
    },
  };
};
