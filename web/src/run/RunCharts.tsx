import { useMemo, useState } from "react";
import { feedsAlong, type CutterRun, type Process } from "@ash-edge/core/cutter";
import { readPalette } from "../bench/board/palette.ts";
import { Chart } from "../ui/Chart.tsx";
import { Segmented } from "../ui/Choice.tsx";

const KINDS = [
  ["times", "time by contour"],
  ["feeds", "feed along the way"],
] as const;
type Kind = (typeof KINDS)[number][0];

const CAPTIONS: Readonly<Record<Kind, string>> = {
  times: "seconds by contour, in the order of the run; a click goes there",
  feeds: "mm/min by mm cut: slower in tight arcs; a click goes there",
};
const LABELS: Readonly<Record<Kind, string>> = { times: "Time by contour", feeds: "Feed along the way" };

/** How long each thing takes, or how fast it is cut along the way; a click goes to that time of the run. */
export const RunCharts = ({
  run,
  process,
  onTime,
}: {
  run: CutterRun;
  process: Process;
  onTime: (time: number) => void;
}) => {
  const [kind, setKind] = useState<Kind>("times");
  const chart = useMemo(() => (kind === "times" ? timesOf(run) : feedsOf(run, process)), [kind, run, process]);
  return (
    <figure>
      <Segmented label="Chart" options={KINDS} value={kind} onChange={(to) => setKind(to as Kind)} />
      <Chart
        key={kind}
        traces={chart.traces}
        layout={chart.layout}
        label={LABELS[kind]}
        className="h-44"
        onPick={(i) => onTime(chart.starts[i]!)}
      />
      <figcaption className="text-xs text-soft">{CAPTIONS[kind]}</figcaption>
    </figure>
  );
};

type Shown = {
  readonly traces: readonly object[];
  readonly layout: object;
  /** The time of the run that a click on each point goes to. */
  readonly starts: readonly number[];
};

const layoutOf = (x: object, more: object): object => {
  const { soft, hair } = readPalette();
  const axis = { color: soft, gridcolor: hair, zerolinecolor: hair, tickfont: { size: 10 }, fixedrange: true };
  return {
    margin: { l: 40, r: 8, t: 4, b: 24 },
    paper_bgcolor: "rgba(0,0,0,0)",
    plot_bgcolor: "rgba(0,0,0,0)",
    font: { family: "IBM Plex Mono, monospace", size: 10, color: soft },
    xaxis: { ...axis, ...x },
    yaxis: { ...axis, rangemode: "tozero" },
    ...more,
  };
};

const timesOf = ({ steps }: CutterRun): Shown => {
  const { ink, ember, soft } = readPalette();
  const bar = (name: string, color: string, y: readonly number[]) => ({
    type: "bar",
    name,
    x: y.map((_, i) => i + 1),
    y,
    marker: { color },
    hovertemplate: `${name} %{y:.2f} s<extra></extra>`,
  });
  const [cutting, piercing, travel] = [
    steps.map(({ cutTime }) => cutTime),
    steps.map(({ pierceTime }) => pierceTime),
    steps.map(({ travelTime }) => travelTime),
  ];
  const starts: number[] = [];
  let time = 0;
  for (const { travelTime, pierceTime, cutTime } of steps) {
    starts.push(time);
    time += travelTime + pierceTime + cutTime;
  }
  return {
    traces: [bar("cutting", ink, cutting), bar("piercing", ember, piercing), bar("travel", soft, travel)],
    layout: layoutOf(
      { dtick: Math.max(1, Math.ceil(steps.length / 10)) },
      { barmode: "stack", showlegend: true, legend: { orientation: "h", y: 1.2, font: { size: 10 } } },
    ),
    starts,
  };
};

const feedsOf = (run: CutterRun, process: Process): Shown => {
  const spans = feedsAlong(run, process);
  return {
    traces: [
      {
        type: "scatter",
        mode: "lines",
        line: { color: readPalette().ember, width: 1.5 },
        x: spans.flatMap(({ from, to }) => [from, to]),
        y: spans.flatMap(({ feed }) => [feed, feed]),
        hovertemplate: "%{y:.0f} mm/min at %{x:.1f} mm<extra></extra>",
      },
    ],
    layout: layoutOf({}, { showlegend: false }),
    starts: spans.flatMap(({ time, from, to, feed }) => [time, time + (60 * (to - from)) / feed]),
  };
};
