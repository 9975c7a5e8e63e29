import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef } from "react";
import { faultRows, type FaultRow } from "@ash-edge/core/checks";
import { centroidOf, chainPieces } from "@ash-edge/core/contour";
import { entityOf, unitOf, type Drawing } from "@ash-edge/core/drawing";
import { circleHalves, type Piece } from "@ash-edge/core/geometry";
import { least, RESOLUTION, showArea, showLength, type Unit } from "@ash-edge/core/numeric";
import type { Contour, OpenChain } from "@ash-edge/core/profile";
import { sayFault } from "@ash-edge/core/say";
import { weightOf } from "@ash-edge/core/tables";
import { piecesPath, type JobRecord } from "../store/index.ts";
import { faultsFor, profileFor } from "./derived.ts";
import { dragToLayer } from "./dragToLayer.ts";
import { RoleChoice } from "./RoleChoice.tsx";
import { useBench, useSession } from "./SessionContext.tsx";
import type { BenchState } from "./state/index.ts";
import { openAt } from "./whatNow.ts";

const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? "" : "s"}`;

/** What the drawing holds to cut: contours, holes and what is still open. */
export const Pieces = ({ job }: { job: JobRecord }) => {
  const drawing = useBench((state) => state.history.drawing);
  useBench((state) => state.history.derivedAt);
  const profile = profileFor(drawing);
  const faults = faultsFor(drawing).filter(({ code }) =>
    ["crossing", "touching", "doubled", "not-arcs", "too-many"].includes(code),
  );
  const unit = unitOf(drawing);
  const { contours, open } = profile;
  const [outside, inside] = (["outside", "inside"] as const).map(
    (role) => contours.filter((contour) => contour.role === role).length,
  );
  // what lies at an odd depth is cut out of what lies round it
  const net = contours.reduce(
    (sum, { role, depth, area }) => (role === "mark" ? sum : depth % 2 === 0 ? sum + area : sum - area),
    0,
  );
  const weight = weightOf(net, unit, job.material, job.thickness);
  const summary = [
    outside ? counted(outside, "contour") : "",
    inside ? counted(inside, "hole") : "",
    open.length ? counted(open.length, "open chain") : "",
    weight ? showWeight(weight) : "",
  ].filter(Boolean);
  return (
    <section
      data-region="Pieces"
      tabIndex={-1}
      role="region"
      aria-label="Pieces"
      className="card flex h-full flex-col overflow-hidden"
    >
      <header className="px-3 py-1.5">
        <b>Pieces</b>
        <div className="text-xs text-soft">{summary.join(", ") || "nothing to cut yet"}</div>
      </header>
      <Rows items={[...contours, ...open]} unit={unit} />
      {contours.length + open.length === 0 && (
        <p className="border-t border-hair px-3 py-4 text-soft">
          What is drawn to be cut is listed here: each contour with its role, its area and its length.
        </p>
      )}
      {faults.length > 0 && (
        <ul aria-label="Faults" className="max-h-1/3 overflow-y-auto border-t border-hair">
          {faultRows(faults).map((row, i) => (
            <Fault key={i} row={row} unit={unit} />
          ))}
        </ul>
      )}
    </section>
  );
};

/** Only the rows in sight are in the page: a sheet may hold thousands of contours. */
const Rows = ({ items, unit }: { items: readonly (Contour | OpenChain)[]; unit: Unit }) => {
  const { act } = useSession();
  const list = useRef<HTMLDivElement>(null);

  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => list.current,
    estimateSize: () => 84,
    getItemKey: (i) => items[i]!.ids.join(),
    overscan: 6,
  });
  if (items.length === 0) return null;
  return (
    <div ref={list} className="min-h-0 flex-1 overflow-y-auto" onMouseLeave={() => act.light([])}>
      <ul style={{ height: rows.getTotalSize(), position: "relative" }}>
        {rows.getVirtualItems().map(({ key, index, start }) => (
          <li
            key={key}
            ref={rows.measureElement}
            data-index={index}
            className="absolute inset-x-0 top-0 border-t border-hair"
            style={{ transform: `translateY(${start}px)` }}
          >
            <Row item={items[index]!} unit={unit} />
            <Role item={items[index]!} />
            <ToDo item={items[index]!} />
          </li>
        ))}
      </ul>
    </div>
  );
};

const isSelected = ({ selection }: BenchState, { ids }: Contour | OpenChain): boolean =>
  ids.length > 0 && ids.every((id) => selection.ids.has(id));

const Row = ({ item, unit }: { item: Contour | OpenChain; unit: Unit }) => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const selected = useBench((state) => isSelected(state, item));
  return (
    <button
      type="button"
      aria-pressed={selected}
      title="Drag it onto a layer to put it there"
      onMouseDown={(event) => event.preventDefault()}
      onPointerDown={(event) => dragToLayer(event, (layer) => act.putOnLayer(item.ids, layer))}
      onMouseEnter={() => act.light(item.ids)}
      onFocus={() => act.light(item.ids)}
      onClick={() => act.select(item.ids)}
      className={
        "grid w-full grid-cols-[2.6rem_1fr] items-center gap-2 px-3 py-2 text-left " +
        `${selected ? "bg-board" : "hover:bg-board"}`
      }
    >
      <Outline item={item} />
      <span className="min-w-0">
        <span className="said block truncate">{titleOf(item, unit)}</span>
        <span className={`figures block text-xs ${item.closed && item.joined ? "text-soft" : "text-fault"}`}>
          {stateOf(item, unit)}
        </span>
        {[...measuresOf(item, unit), ...(selected ? moreOf(drawing, item, unit) : [])].map((text) => (
          <span key={text} className="figures block truncate text-xs text-soft">
            {text}
          </span>
        ))}
      </span>
    </button>
  );
};

/** Of a contour that is selected, its role as a choice. */
const Role = ({ item }: { item: Contour | OpenChain }) => {
  const selected = useBench((state) => isSelected(state, item));
  if (!item.closed || !selected) return null;
  return (
    <label className="flex items-center gap-2 bg-board pb-2 pl-[3.9rem] text-xs text-soft">
      role
      <RoleChoice ids={item.ids} className="h-6 rounded-card border border-hair bg-panel px-1 text-ink" />
    </label>
  );
};

/** What a contour that is not joined, or a chain that is open, asks for. */
const ToDo = ({ item }: { item: Contour | OpenChain }) => {
  const { act } = useSession();
  if (item.closed && item.joined) return null;
  return (
    <button
      type="button"
      onMouseDown={(event) => event.preventDefault()}
      onClick={() => (item.closed ? act.joinThese(item.ids) : act.show(item.ids, openAt(item)))}
      className="mb-2 ml-[3.9rem] rounded-card border border-hair px-2 py-0.5 text-xs hover:border-ink"
    >
      {item.closed ? `Join its ${item.ids.length} pieces` : "Show where it is open"}
    </button>
  );
};

const titleOf = (item: Contour | OpenChain, unit: Unit): string => {
  if (!item.closed)
    return item.ids.length > 1
      ? `Open run of ${item.ids.length} pieces`
      : item.pieces.length > 1
        ? "Open chain"
        : item.arcs > 0
          ? "Loose arc"
          : "Loose line";
  if (item.circle) return `${item.role === "inside" ? "Hole" : "Disc"} Ø ${showLength(2 * item.circle.radius, unit)}`;
  return item.role === "inside" ? "Inner contour" : item.role === "mark" ? "Mark" : "Outer contour";
};

const stateOf = (item: Contour | OpenChain, unit: Unit): string => {
  if (item.closed) return item.joined ? `closed · ${item.role}` : `closes · ${item.ids.length} pieces to join`;
  const met = item.ends.find(({ gap }) => gap?.apart && gap.distance <= RESOLUTION)?.gap?.apart;
  if (met) return `open · goes on on layer ${met.layer}`;
  const gaps = item.ends.map(({ gap }) => gap?.distance).filter((gap) => gap !== undefined);
  return gaps.length > 0 ? `open · gap ${showLength(least(gaps), unit)}` : "open · 2 ends";
};

const measuresOf = (item: Contour | OpenChain, unit: Unit): readonly string[] => {
  const parts = item.lines + item.arcs > 1 ? `${counted(item.lines, "line")}, ${counted(item.arcs, "arc")}` : "";
  const length = `${item.closed ? "perimeter" : "length"} ${rough(item.length)} ${unit}`;
  return [item.closed ? `area ${showArea(item.area, unit)}` : "", length, parts].filter(Boolean);
};

/** Of what is selected also where its centre of area lies, its size and how deep it is nested. */
const moreOf = (drawing: Drawing, item: Contour | OpenChain, unit: Unit): readonly string[] => {
  const { minX, minY, maxX, maxY } = item.bounds;
  const size = `${showLength(maxX - minX, unit)} × ${showLength(maxY - minY, unit)} ${unit}`;
  if (!item.closed) return [size];
  const pieces = item.pieces.length > 0 ? item.pieces : ownPieces(drawing, item);
  const centre = item.circle?.centre ?? centroidOf(pieces);
  const nested = item.role === "mark" ? "" : item.depth === 0 ? "outermost" : `in ${counted(item.depth, "contour")}`;
  return [size, centre ? `centroid ${showLength(centre.x, unit)}, ${showLength(centre.y, unit)}` : "", nested].filter(
    Boolean,
  );
};

const showWeight = (kg: number): string =>
  kg < 1 ? `${Number((1000 * kg).toPrecision(3))} g` : `${Number(kg.toPrecision(3))} kg`;

const rough = (value: number): string => value.toFixed(value < 100 ? 3 : 1).replace(/\.?0+$/, "");

/** Of a great drawing the pieces were left where they are. */
const ownPieces = (drawing: Drawing, { ids }: Contour | OpenChain): readonly Piece[] =>
  ids.flatMap((id) => {
    const entity = entityOf(drawing, id);
    return entity?.kind === "chain" ? chainPieces(entity) : entity?.kind === "circle" ? circleHalves(entity) : [];
  });

const Outline = ({ item }: { item: Contour | OpenChain }) => {
  const drawing = useBench((state) => state.history.drawing);
  const pieces = item.pieces.length > 0 ? item.pieces : ownPieces(drawing, item);
  const { minX, minY, maxX, maxY } = item.bounds;
  const size = Math.max(maxX - minX, maxY - minY, 1e-9);
  const margin = size * 0.08;
  return (
    <svg
      viewBox={`${minX - margin} ${-maxY - margin} ${maxX - minX + 2 * margin} ${maxY - minY + 2 * margin}`}
      className="h-9 w-10"
      aria-hidden="true"
    >
      <path
        d={piecesPath(pieces, item.closed)}
        transform="scale(1 -1)"
        fill={item.closed ? "currentColor" : "none"}
        fillOpacity={0.06}
        stroke={item.closed && item.role === "inside" ? "var(--inside)" : "var(--ink)"}
        strokeWidth="1.4"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
};

const Fault = ({ row: { fault, count, ids }, unit }: { row: FaultRow; unit: Unit }) => {
  const { act } = useSession();
  return (
    <li>
      {fault.code === "layers-apart" && (
        <button
          type="button"
          className="mx-3 mt-1.5 rounded-card border border-hair px-2 py-0.5 text-xs hover:border-ink"
          onClick={() => act.putOnOneLayer(ids)}
        >
          Put on one layer
        </button>
      )}
      <button
        type="button"
        onMouseDown={(event) => event.preventDefault()}
        onClick={() => act.select(ids)}
        className={
          "said w-full px-3 py-1.5 text-left text-xs hover:bg-board " +
          `${fault.severity === "error" ? "text-fault" : "text-caution"}`
        }
      >
        {sayFault(fault, unit)}
        {count > 1 && <b className="block">And {count - 1} more like it.</b>}
      </button>
    </li>
  );
};
