import { useEffect, useMemo, useState } from "react";
import type { Fault } from "@ash-edge/core/checks";
import { unitOf, type Drawing } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { headingsOf, profileOf, type AlongPlace, type Contour } from "@ash-edge/core/profile";
import { readPalette } from "../bench/board/palette.ts";
import { releaseWork } from "../release/releaseWork.ts";
import { Chart } from "../ui/Chart.tsx";
import { Segmented } from "../ui/Choice.tsx";

const KINDS = [
  ["none", "no chart"],
  ["heading", "direction"],
  ["thickness", "wall"],
] as const;
type Kind = (typeof KINDS)[number][0];

/** What a contour is called in a list. */
const nameOf = ({ role, circle, pieces }: Contour, i: number): string =>
  `${role === "outside" ? "outside" : role === "inside" ? "hole" : "mark"} ${i + 1}, ` +
  (circle ? "circle" : `${pieces.length} pieces`);

/** A list of more contours is read by nobody. */
const LISTED = 200;

/** The direction along a contour with its kinks, or how thick the material is; a click shows the place. */
export const AlongChart = ({
  drawing,
  faults,
  onPlace,
}: {
  drawing: Drawing;
  faults: readonly Fault[];
  onPlace: (at: Point) => void;
}) => {
  const [kind, setKind] = useState<Kind>("none");
  const [chosen, setChosen] = useState(0);
  const contours = useMemo(() => (kind === "none" ? [] : profileOf(drawing).contours), [drawing, kind]);
  const which = Math.min(chosen, Math.max(0, contours.length - 1));
  const contour = contours[which];
  const thickness = useThickness(drawing, kind === "thickness" && contour ? which : undefined);
  const places = useMemo(
    (): readonly AlongPlace[] | undefined =>
      kind === "heading" && contour ? headingsOf(contour.pieces) : kind === "thickness" ? thickness.places : undefined,
    [kind, contour, thickness.places],
  );
  const drawn = useMemo(
    () => (places && contour ? drawnOf(kind, places, kinksOn(contour, faults), unitOf(drawing)) : undefined),
    [kind, places, contour, faults, drawing],
  );
  const [looked, setLooked] = useState(-1);
  const show = (i: number): void => {
    if (!places?.[i]) return;
    setLooked(i);
    onPlace(places[i].at);
  };
  const unit = unitOf(drawing);
  const least = kind === "thickness" && places?.reduce((min, { value }) => Math.min(min, value), Infinity);
  return (
    <section className="card shrink-0 px-3 py-2" aria-label="Along the contour">
      <header className="flex flex-wrap items-center gap-2">
        <Segmented label="Chart" options={KINDS} value={kind} onChange={(to) => setKind(to as Kind)} />
        {contours.length > 1 && (
          <select
            aria-label="Contour"
            className="h-8 min-w-0 flex-1 rounded-card border border-hair bg-board px-2"
            value={which}
            onChange={(event) => setChosen(Number(event.target.value))}
          >
            {contours.slice(0, LISTED).map((one, i) => (
              <option key={i} value={i}>
                {nameOf(one, i)}
              </option>
            ))}
          </select>
        )}
      </header>
      {kind !== "none" && !contour && <p className="mt-2 text-soft">No contour is closed yet.</p>}
      {thickness.why && <p className="mt-2 text-fault">Not measured: {thickness.why}</p>}
      {drawn && (
        <figure
          className="mt-1"
          tabIndex={0}
          aria-label="Places along the contour"
          onKeyDown={(event) => {
            const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
            if (by === undefined || !places?.length) return;
            event.preventDefault();
            show((looked + by + places.length) % places.length);
          }}
        >
          <Chart
            {...drawn}
            label={kind === "heading" ? "Direction along the contour" : "Thickness along the contour"}
            className="h-36"
            onPick={show}
          />
          <figcaption className="figures text-xs text-soft">
            {kind === "heading"
              ? "degrees, along the contour; a click or ← and → show the place"
              : `least of the places drawn ${Number((least || 0).toFixed(3))} ${unit}; a click or ← and → show one`}
          </figcaption>
        </figure>
      )}
    </section>
  );
};

/** The thickness along a contour, measured away from the page. */
const useThickness = (
  drawing: Drawing,
  which: number | undefined,
): { readonly places?: readonly AlongPlace[]; readonly why?: string } => {
  const [done, setDone] = useState<{ of: Drawing; which: number; places?: readonly AlongPlace[]; why?: string }>();
  useEffect(() => {
    if (which === undefined) return;
    const own = new AbortController();
    releaseWork((remote) => remote.thickness(drawing, which), own.signal).then(
      (places) => !own.signal.aborted && setDone({ of: drawing, which, places }),
      (reason: Error) => !own.signal.aborted && setDone({ of: drawing, which, why: reason.message }),
    );
    return () => own.abort();
  }, [drawing, which]);
  return done?.of === drawing && done.which === which ? done : {};
};

/** Where along a contour its kinks are. */
const kinksOn = ({ pieces }: Contour, faults: readonly Fault[]): ReadonlySet<number> => {
  const at = new Set(faults.flatMap((one) => (one.code === "kink" && one.at ? [`${one.at.x} ${one.at.y}`] : [])));
  return new Set(pieces.flatMap(({ a }, i) => (at.has(`${a.x} ${a.y}`) ? [2 * i] : [])));
};

const drawnOf = (
  kind: Kind,
  places: readonly AlongPlace[],
  kinks: ReadonlySet<number>,
  unit: string,
): { traces: readonly object[]; layout: object } => {
  const palette = readPalette();
  const axis = { color: palette.soft, gridcolor: palette.hair, zerolinecolor: palette.hair, tickfont: { size: 10 } };
  const marked = (i: number): boolean => kind === "heading" && kinks.has(i);
  return {
    traces: [
      {
        x: places.map(({ along }) => along),
        y: places.map(({ value }) => value),
        mode: "lines+markers",
        line: { color: palette.ink, width: 1.4 },
        marker: {
          color: places.map((_, i) => (marked(i) ? palette.ember : palette.ink)),
          size: places.map((_, i) => (marked(i) ? 9 : 3)),
        },
        hovertemplate: kind === "heading" ? "%{y:.3f}°<extra></extra>" : `%{y:.3f} ${unit}<extra></extra>`,
      },
    ],
    layout: {
      margin: { l: 44, r: 8, t: 4, b: 20 },
      showlegend: false,
      paper_bgcolor: "rgba(0,0,0,0)",
      plot_bgcolor: "rgba(0,0,0,0)",
      font: { family: "IBM Plex Mono, monospace", size: 10, color: palette.soft },
      xaxis: { ...axis, fixedrange: true },
      yaxis: { ...axis, fixedrange: true, ...(kind === "thickness" ? { rangemode: "tozero" } : {}) },
    },
  };
};
