import { useVirtualizer } from "@tanstack/react-virtual";
import { CircleCheck, CircleHelp } from "lucide-react";
import { useRef, useState } from "react";
import { entityOf, settingsOf, unitOf } from "@ash-edge/core/drawing";
import { leftFindings } from "@ash-edge/core/edits";
import { boundsSize, unionBounds } from "@ash-edge/core/geometry";
import { readTypedValue, showLength, type Unit } from "@ash-edge/core/numeric";
import { sayFinding, sayRefusal } from "@ash-edge/core/say";
import { shapeBounds } from "@ash-edge/core/shape";
import { shapePath } from "../../store/index.ts";
import { Segmented } from "../../ui/Choice.tsx";
import type { MetFinding } from "../../worker/tidy.worker.ts";
import { PanelHead } from "../PanelHead.tsx";
import { useBench, useSession } from "../SessionContext.tsx";
import { foundIn } from "../state/index.ts";
import { focusBoard } from "../useBenchKeys.ts";

const small =
  "h-7 rounded-card border border-hair px-2 hover:border-ink disabled:opacity-50 disabled:hover:border-hair";

/** What tidying met: what and where, to be mended one by one, by kind or all, or left as it is. */
export const Findings = () => {
  const { act } = useSession();
  const tidying = useBench((state) => state.tidying);
  const drawing = useBench((state) => state.history.drawing);
  const selected = useBench((state) => state.selection.ids.size > 0);
  if (!tidying) return null;
  const some = tidying.among === "selected" && selected;
  const left = leftFindings(drawing);
  const all = tidying.findings ?? [];
  const open = all.filter(({ key }) => !left.has(key));
  const aside = all.filter(({ key }) => left.has(key));
  const mendable = open.filter((finding) => finding.mendable).length;
  const looked = foundIn(tidying, drawing) !== undefined;
  const { notLooked } = tidying;
  // a change is looked over when it has stood for a moment
  const working = tidying.busy !== undefined || (!looked && notLooked === undefined);
  return (
    <section
      data-region="Findings"
      tabIndex={-1}
      role="region"
      aria-label="Findings"
      className="card flex h-full flex-col overflow-hidden"
    >
      <PanelHead title="Findings" onClose={act.closeTidy} />
      <p className="px-3 pb-1.5 text-xs text-soft" aria-live="polite">
        {working ? "looking …" : looked ? summaryOf(open, aside.length) : "not looked over"}
      </p>
      <Options />
      <div className="flex items-center gap-2 border-t border-hair px-3 py-1.5">
        {working ? (
          <>
            <progress value={tidying.busy} className="h-2 min-w-0 flex-1 accent-[var(--ember)]" aria-label="How far" />
            <button type="button" className={small} onClick={act.stopTidy}>
              Stop
            </button>
          </>
        ) : (
          <button
            type="button"
            disabled={!looked}
            className="h-7 rounded-card bg-ember px-3 font-semibold text-panel disabled:opacity-50"
            onClick={() => act.mend({ which: "all" })}
          >
            {mendable > 0 ? `Mend all ${mendable}` : "Join what meets"}
          </button>
        )}
      </div>
      {notLooked !== undefined && !working ? (
        <div role="alert" className="flex items-start gap-2 border-t border-hair px-3 py-3">
          <CircleHelp size={16} className="mt-0.5 shrink-0 text-caution" aria-hidden="true" />
          <div>
            <p>
              <b className="text-caution">The drawing was not looked over.</b> {notLooked}
            </p>
            <button type="button" className={`${small} mt-2`} onClick={act.lookAgain}>
              Look now
            </button>
          </div>
        </div>
      ) : all.length === 0 && !working ? (
        <p className="flex items-start gap-2 border-t border-hair px-3 py-3 text-soft">
          <CircleCheck size={16} className="mt-0.5 shrink-0 text-moss" aria-hidden="true" />
          {some
            ? "In what is selected nothing is doubled, nothing overlaps, no ends miss each other."
            : "Nothing is doubled, nothing overlaps, no ends miss each other."}
        </p>
      ) : (
        <>
          <Cards findings={[...open, ...aside]} left={left} unit={unitOf(drawing)} />
          {/* always the same room, so that nothing moves under the pointer */}
          <div className="h-16 shrink-0 border-t border-hair p-1">
            <Repair finding={all.find(({ key }) => key === tidying.lit)} />
          </div>
        </>
      )}
    </section>
  );
};

const summaryOf = (open: readonly MetFinding[], aside: number): string => {
  const counts = new Map<string, number>();
  for (const { code } of open) counts.set(code, (counts.get(code) ?? 0) + 1);
  const words = [...counts].map(([code, n]) => `${n} ${code}`);
  if (aside > 0) words.push(`${aside} left`);
  return words.join(", ") || "nothing found";
};

/** Within what is mended, and what may differ: always in sight, kept from one time to the next. */
const Options = () => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const { ignoreLayer, sharedEdges } = useBench((state) => state.kept.tidy);
  const among = useBench((state) => state.tidying?.among ?? "all");
  const unit = unitOf(drawing);
  const tolerance = settingsOf(drawing).joinTolerance;
  const [text, setText] = useState<string>();
  const keep = (): void => {
    if (text === undefined) return;
    const read = readTypedValue(text, { unit, expects: "length" });
    if (!read.ok) return act.say({ text: sayRefusal(read.refusal, unit), tone: "fault" });
    if (!(read.value.value > 0)) return act.say({ text: "The tolerance must be more than 0.", tone: "fault" });
    setText(undefined);
    if (read.value.value !== tolerance) act.setTolerance(read.value.value);
  };
  return (
    <div className="grid grid-cols-[auto_1fr] items-center gap-x-2 gap-y-1 border-t border-hair px-3 py-1.5">
      <label htmlFor="tidy-within" className="text-soft">
        within
      </label>
      <span className="flex items-center gap-1">
        <input
          id="tidy-within"
          value={text ?? showLength(tolerance, unit)}
          autoComplete="off"
          spellCheck={false}
          onFocus={(event) => event.currentTarget.select()}
          onChange={(event) => setText(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => {
            if (event.key === "Enter") {
              keep();
              focusBoard();
            }
            if (event.key === "Escape") {
              setText(undefined);
              focusBoard();
            }
          }}
          className="figures h-6 w-16 rounded-card border border-hair bg-board px-1.5"
        />
        <span className="text-soft">{unit}</span>
      </span>
      <span className="text-soft">of</span>
      <Segmented
        label="tidied"
        options={[
          ["all", "everything"],
          ["selected", "selected"],
        ]}
        value={among}
        onChange={(to) => act.tidyAmong(to as "all" | "selected")}
      />
      <label htmlFor="tidy-shared" className="text-soft">
        shared
      </label>
      <select
        id="tidy-shared"
        value={sharedEdges}
        onChange={(event) => act.setTidy({ sharedEdges: event.target.value as typeof sharedEdges })}
        className="h-6 rounded-card border border-hair bg-board px-1"
      >
        <option value="keep">edges kept twice</option>
        <option value="drop">one copy dropped</option>
        <option value="merge">outlines merged</option>
      </select>
      <label className="col-span-2 flex items-center gap-2">
        <input
          type="checkbox"
          checked={ignoreLayer}
          onChange={(event) => act.setTidy({ ignoreLayer: event.target.checked })}
        />
        copies on other layers too
      </label>
    </div>
  );
};

const Cards = ({
  findings,
  left,
  unit,
}: {
  findings: readonly MetFinding[];
  left: ReadonlySet<string>;
  unit: Unit;
}) => {
  const { act } = useSession();
  const list = useRef<HTMLDivElement>(null);

  const rows = useVirtualizer({
    count: findings.length,
    getScrollElement: () => list.current,
    estimateSize: () => 92,
    getItemKey: (i) => `${findings[i]!.key} ${i}`,
    overscan: 6,
  });
  return (
    <div ref={list} className="min-h-0 flex-1 overflow-y-auto" onMouseLeave={() => act.lightFinding(undefined)}>
      <ul style={{ height: rows.getTotalSize(), position: "relative" }}>
        {rows.getVirtualItems().map(({ key, index, start }) => (
          <li
            key={key}
            ref={rows.measureElement}
            data-index={index}
            className="absolute inset-x-0 top-0 border-t border-hair"
            style={{ transform: `translateY(${start}px)` }}
          >
            <Card finding={findings[index]!} isLeft={left.has(findings[index]!.key)} unit={unit} />
          </li>
        ))}
      </ul>
    </div>
  );
};

/** What stands here, and what mending makes of it, close up: what goes dashed, what comes in ember. */
const Repair = ({ finding }: { finding: MetFinding | undefined }) => {
  const preview = useBench((state) => state.tidying?.preview);
  const drawing = useBench((state) => state.history.drawing);
  if (!finding || !preview || preview.length === 0)
    return (
      <p className="px-2 py-1 text-xs text-soft">
        {finding && !finding.mendable
          ? "This has to be mended by hand."
          : "Point at a finding: its repair shows here and on the board."}
      </p>
    );
  const changed = unionBounds(preview.flatMap(({ shape }) => shapeBounds(shape) ?? []));
  const near = finding.code === "gap" || finding.code === "tail";
  const span = near || !changed ? 30 * settingsOf(drawing).joinTolerance : 1.2 * boundsSize(changed);
  const middle =
    near || !changed ? finding.at : { x: (changed.minX + changed.maxX) / 2, y: (changed.minY + changed.maxY) / 2 };
  const box = {
    minX: middle.x - span,
    maxX: middle.x + span,
    minY: middle.y - span / 3,
    maxY: middle.y + span / 3,
  };
  const line = { fill: "none", vectorEffect: "non-scaling-stroke" as const };
  const own = finding.ids.flatMap((id) => entityOf(drawing, id) ?? []);
  return (
    <svg
      role="img"
      aria-label="Before and after"
      viewBox={`${box.minX} ${-box.maxY} ${box.maxX - box.minX} ${box.maxY - box.minY}`}
      className="h-full w-full rounded-card border border-hair bg-board"
    >
      <g transform="scale(1 -1)">
        {own.map((entity) => (
          <path key={entity.id} d={shapePath(entity, box)} {...line} stroke="var(--ink)" strokeWidth="1" />
        ))}
        {preview.map(({ shape, goes }, i) => (
          <path
            key={i}
            d={shapePath(shape, box)}
            {...line}
            stroke="var(--ember)"
            strokeWidth="2"
            strokeDasharray={goes ? "3 3" : undefined}
          />
        ))}
      </g>
    </svg>
  );
};

const TONE = { error: "text-fault", warning: "text-caution", info: "text-soft" } as const;

const Card = ({ finding, isLeft, unit }: { finding: MetFinding; isLeft: boolean; unit: Unit }) => {
  const { act } = useSession();
  const lit = useBench((state) => state.tidying?.lit === finding.key);
  const { x, y } = finding.at;
  return (
    <article
      aria-label={`${finding.code} at ${showLength(x, unit)}, ${showLength(y, unit)}`}
      className={`px-3 py-2 ${lit ? "bg-board" : ""}`}
      onMouseEnter={() => act.lightFinding(finding)}
      onFocus={() => act.lightFinding(finding)}
    >
      <button
        type="button"
        className="block w-full text-left"
        title="Show it on the board"
        onClick={() => act.show(finding.ids, finding.at)}
      >
        <span className={`font-semibold ${isLeft ? "text-soft" : TONE[finding.severity]}`}>{finding.code}</span>{" "}
        <span className="figures text-xs text-soft">
          {showLength(x, unit)}, {showLength(y, unit)}
        </span>
        <span className="said block">{sayFinding(finding, unit)}</span>
      </button>
      <span className="mt-1 flex gap-1.5 text-xs">
        {isLeft ? (
          <button type="button" className={small} onClick={() => act.leaveFinding(finding, false)}>
            Left · look again
          </button>
        ) : (
          <>
            {finding.values.other !== undefined && (
              <button type="button" className={small} onClick={() => act.putOnOneLayer(finding.ids)}>
                Put on one layer
              </button>
            )}
            {finding.mendable && (
              <>
                <button type="button" className={small} onClick={() => act.mend({ which: "key", key: finding.key })}>
                  Mend
                </button>
                <button type="button" className={small} onClick={() => act.mend({ which: "code", code: finding.code })}>
                  All like this
                </button>
              </>
            )}
            <button type="button" className={small} onClick={() => act.leaveFinding(finding, true)}>
              Leave
            </button>
          </>
        )}
      </span>
    </article>
  );
};
