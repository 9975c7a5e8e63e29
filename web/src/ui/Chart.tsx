import { useEffect, useRef } from "react";

/** A chart by Plotly, which is loaded when the first one is shown. */
export const Chart = ({
  traces,
  layout,
  label,
  className,
}: {
  traces: readonly object[];
  layout: object;
  label: string;
  className?: string;
}) => {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let shown = true;
    void import("plotly.js-basic-dist-min").then(async (plotly) => {
      if (shown && place.current)
        await plotly.react(place.current, traces, layout, {
          displayModeBar: false,
          responsive: true,
          staticPlot: true,
        });
    });
    return () => {
      shown = false;
    };
  }, [traces, layout]);
  useEffect(() => {
    const own = place.current;
    return () => {
      if (own) void import("plotly.js-basic-dist-min").then(({ purge }) => purge(own));
    };
  }, []);
  return <div ref={place} role="img" aria-label={label} className={className} />;
};
