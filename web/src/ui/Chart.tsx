import { useEffect, useRef } from "react";

/** A chart by Plotly, which is loaded when the first one is shown. */
export const Chart = ({
  traces,
  layout,
  label,
  className,
  onPick,
}: {
  traces: readonly object[];
  layout: object;
  label: string;
  className?: string;
  /** A point of the chart was clicked, by its number in its trace. */
  onPick?: (point: number) => void;
}) => {
  const place = useRef<HTMLDivElement>(null);
  const picked = useRef(onPick);
  useEffect(() => {
    picked.current = onPick;
  });
  const isStill = onPick === undefined;
  useEffect(() => {
    let shown = true;
    void import("plotly.js-basic-dist-min").then(async (plotly) => {
      if (!shown || !place.current) return;
      const drawn = await plotly.react(place.current, traces, layout, {
        displayModeBar: false,
        responsive: true,
        staticPlot: isStill,
      });
      if (isStill) return;
      drawn.removeAllListeners("plotly_click");
      drawn.on("plotly_click", ({ points }) => picked.current?.(points[0]!.pointNumber));
    });
    return () => {
      shown = false;
    };
  }, [traces, layout, isStill]);
  useEffect(() => {
    const own = place.current;
    return () => {
      if (own) void import("plotly.js-basic-dist-min").then(({ purge }) => purge(own));
    };
  }, []);
  return <div ref={place} role="img" aria-label={label} className={className} />;
};
