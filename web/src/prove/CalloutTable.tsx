import { Check, Crosshair, Download } from "lucide-react";
import { useState, type KeyboardEvent } from "react";
import { calloutText, lookAtCallout, stateText, toleranceText, waiveCallout } from "@ash-edge/core/callouts";
import { holds, isOff, isWaived, measuredOf, measuredWords, wasLooked, type CalloutRow } from "@ash-edge/core/checks";
import { showDifference, type Id, type Unit } from "@ash-edge/core/numeric";
import { drillWords, findThread } from "@ash-edge/core/tables";
import { FormDialog } from "../ui/FormDialog.tsx";
import { Segmented } from "../ui/Choice.tsx";
import { fileName, saveAs } from "../ui/saveAs.ts";
import type { ProvedJob } from "./useProvedJob.ts";

const FILTERS = [
  ["all", "all"],
  ["not looked", "to look at"],
  ["off", "off"],
  ["not placed", "not placed"],
  ["waived", "waived"],
] as const;
type Filter = (typeof FILTERS)[number][0];

const isIn = (row: CalloutRow, filter: Filter): boolean => {
  const waived = isWaived(row);
  switch (filter) {
    case "all":
      return true;
    case "not looked":
      return !wasLooked(row);
    case "waived":
      return waived;
    case "off":
      return isOff(row);
    case "not placed":
      return row.state.state === "not placed" && !waived;
  }
};

const SORTS = { called: "Called", difference: "Off by", state: "State" } as const;
type Sort = keyof typeof SORTS;
const STATES = ["off", "not placed", "within", "true"];
const sortedBy = (rows: readonly CalloutRow[], sort: Sort): readonly CalloutRow[] => {
  if (sort === "called") return rows;
  const by = ({ state }: CalloutRow): number =>
    sort === "state" ? STATES.indexOf(state.state) : state.state === "not placed" ? -Infinity : -Math.abs(state.by);
  return [...rows].sort((p, q) => by(p) - by(q));
};

const saveTable = async (rows: readonly CalloutRow[], unit: Unit, name: string): Promise<void> => {
  const { calloutCsv } = await import("@ash-edge/core/formats/csv");
  saveAs(fileName(name, "-callouts.csv"), calloutCsv(rows, unit), "text/csv;charset=utf-8");
};

/** Every number of the sketch and how it stands, to be looked at one by one. */
export const CalloutTable = ({
  rows,
  unit,
  name,
  chosen,
  onChoose,
  edit,
  onPoint,
  onMakeTrue,
}: {
  rows: readonly CalloutRow[];
  unit: Unit;
  name: string;
  chosen: Id | undefined;
  onChoose: (id: Id) => void;
  edit: ProvedJob["edit"];
  /** A callout is to be pointed at other geometry. */
  onPoint: (id: Id) => void;
  /** Some are to be made true, on the bench. */
  onMakeTrue: (ids: readonly Id[]) => void;
}) => {
  const [filter, setFilter] = useState<Filter>("all");
  const [sort, setSort] = useState<Sort>("called");
  const [waiving, setWaiving] = useState<CalloutRow>();
  const shown = sortedBy(
    rows.filter((row) => isIn(row, filter)),
    sort,
  );
  const looked = rows.filter(wasLooked).length;
  const off = rows.filter(isOff).map(({ callout }) => callout.id);
  const tick = (row: CalloutRow): void => {
    const measured = measuredOf(row);
    if (measured !== undefined)
      void edit((drawing) => lookAtCallout(drawing, row.callout.id, wasLooked(row) ? undefined : measured));
  };
  const onKeyDown = (event: KeyboardEvent<HTMLTableRowElement>, row: CalloutRow): void => {
    if (event.target !== event.currentTarget) return;
    if (event.key === "Enter") {
      event.preventDefault();
      const { nextElementSibling: next, previousElementSibling: last } = event.currentTarget;
      // what is looked at goes out of sight there, and the work goes on at the next
      if (filter === "not looked" && measuredOf(row) !== undefined) ((next ?? last) as HTMLElement | null)?.focus();
      tick(row);
    }
    const by = { ArrowDown: "nextElementSibling", ArrowUp: "previousElementSibling" }[event.key] as
      "nextElementSibling" | "previousElementSibling" | undefined;
    if (!by) return;
    event.preventDefault();
    (event.currentTarget[by] as HTMLElement | null)?.focus();
  };
  const cell = "px-1.5 py-1 whitespace-nowrap first:pl-3";
  return (
    <section className="card flex min-h-0 flex-col overflow-hidden" aria-label="Callouts">
      <header className="flex items-center gap-2 px-3 py-2">
        <h1 className="font-semibold">Callouts</h1>
        <span className="figures flex-1 text-xs text-soft">
          {rows.length > 0 && `${looked} of ${rows.length} looked at`}
        </span>
        {off.length > 0 && (
          <button
            type="button"
            className="h-7 rounded-card border border-hair px-2 hover:border-ink"
            onClick={() => onMakeTrue(off)}
          >
            {off.length === 1 ? "Make it true" : `Make all ${off.length} true`}
          </button>
        )}
        {rows.length > 0 && (
          <button
            type="button"
            className="flex h-7 items-center gap-1.5 rounded-card border border-hair px-2 hover:border-ink"
            onClick={() => void saveTable(rows, unit, name)}
          >
            <Download size={14} aria-hidden="true" /> CSV
          </button>
        )}
      </header>
      {rows.length > 0 && (
        <div className="px-3 pb-2">
          <Segmented label="Shown" options={FILTERS} value={filter} onChange={(to) => setFilter(to as Filter)} />
        </div>
      )}
      {rows.length === 0 && (
        <p className="border-t border-hair px-3 py-3 text-soft">
          Nothing is called. Write the sketch’s numbers into the ledger on the bench: here each is held against what is
          drawn.
        </p>
      )}
      {rows.length > 0 && (
        <div className="min-h-0 flex-1 overflow-auto border-t border-hair">
          <table className="w-full">
            <thead className="sticky top-0 bg-panel text-left text-xs text-soft">
              <tr>
                <th scope="col" className={`${cell} w-7`}>
                  <span className="sr-only">Looked at</span>
                </th>
                {(Object.keys(SORTS) as Sort[]).map((key) => (
                  <th
                    key={key}
                    scope="col"
                    className={`${cell} font-normal`}
                    aria-sort={sort === key ? "ascending" : undefined}
                  >
                    <button
                      type="button"
                      className={sort === key ? "font-semibold text-ink" : "hover:text-ink"}
                      onClick={() => setSort(key)}
                    >
                      {SORTS[key]}
                    </button>
                  </th>
                ))}
                <th scope="col" className={`${cell} text-right font-normal`}>
                  Measured
                </th>
                <th scope="col" className={cell}>
                  <span className="sr-only">Waive</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {shown.map((row) => (
                <Row
                  key={row.callout.id}
                  {...{ row, unit, cell }}
                  isChosen={row.callout.id === chosen}
                  onChoose={() => onChoose(row.callout.id)}
                  onTick={() => tick(row)}
                  onPoint={() => onPoint(row.callout.id)}
                  onMakeTrue={() => onMakeTrue([row.callout.id])}
                  onKeyDown={(event) => onKeyDown(event, row)}
                  onWaive={() =>
                    isWaived(row)
                      ? void edit(
                          (drawing) => waiveCallout(drawing, row.callout.id, undefined),
                          `${calloutText(row.callout, unit)} is to hold again`,
                        )
                      : setWaiving(row)
                  }
                />
              ))}
            </tbody>
          </table>
          {shown.length === 0 && <p className="px-3 py-4 text-soft">None.</p>}
        </div>
      )}
      {waiving && <Waive row={waiving} unit={unit} edit={edit} onClose={() => setWaiving(undefined)} />}
    </section>
  );
};

/** What is drilled for a thread, and the table's limits. */
const ThreadLimits = ({ name, unit }: { name: string; unit: Unit }) => {
  const thread = findThread(name);
  return thread.ok ? (
    <span className="block text-xs whitespace-normal text-soft">{drillWords(thread.value, unit)}</span>
  ) : null;
};

const TONES = {
  true: "text-moss",
  within: "text-caution",
  off: "font-semibold text-fault",
  "not placed": "text-soft",
} as const;

const Row = ({
  row,
  unit,
  cell,
  isChosen,
  onChoose,
  onTick,
  onKeyDown,
  onWaive,
  onPoint,
  onMakeTrue,
}: {
  row: CalloutRow;
  unit: Unit;
  cell: string;
  isChosen: boolean;
  onChoose: () => void;
  onTick: () => void;
  onKeyDown: (event: KeyboardEvent<HTMLTableRowElement>) => void;
  onWaive: () => void;
  onPoint: () => void;
  onMakeTrue: () => void;
}) => {
  const { callout, state } = row;
  const text = calloutText(callout, unit);
  const looked = wasLooked(row);
  const [open, waived] = [!holds(row), isWaived(row)];
  return (
    <tr
      tabIndex={0}
      aria-selected={isChosen}
      className={`border-t border-hair ${isChosen ? "bg-board" : ""}`}
      onClick={onChoose}
      onFocus={onChoose}
      onKeyDown={onKeyDown}
    >
      <td className={cell}>
        <button
          type="button"
          role="checkbox"
          aria-checked={looked}
          aria-label={`Looked at ${text} ${callout.name}`}
          disabled={state.state === "not placed"}
          title={state.state === "not placed" ? "It is not placed: there is nothing to look at" : "Looked at (Enter)"}
          className={
            "grid h-5 w-5 place-items-center rounded border disabled:opacity-40 " +
            (looked ? "border-moss bg-moss text-panel" : "border-soft hover:border-ink")
          }
          onClick={(event) => {
            event.stopPropagation();
            onTick();
          }}
        >
          {looked && <Check size={14} aria-hidden="true" />}
        </button>
      </td>
      <th scope="row" className={`${cell} text-left font-normal`}>
        <span className="figures font-semibold">{text}</span>{" "}
        <span className="text-soft">
          {callout.name} {toleranceText(callout)}
        </span>
        {callout.thread !== undefined && <ThreadLimits name={callout.thread} unit={unit} />}
        {callout.waived && waived && (
          <span className="block text-xs whitespace-normal text-caution">
            waived {callout.waived.on}: {callout.waived.reason}
          </span>
        )}
      </th>
      <td className={`figures ${cell}`}>
        {state.state === "not placed" || state.state === "true"
          ? ""
          : `${state.by > 0 ? "+" : "−"}${showDifference(Math.abs(state.by))}`}
      </td>
      <td className={`${cell} ${TONES[state.state]}`}>
        {state.state === "off" || state.state === "within" ? (
          <button
            type="button"
            aria-label={`Make ${text} ${callout.name} true`}
            title="Make it true, on the bench: the geometry moves so that this number holds"
            className="h-6 rounded-card border border-dashed border-current px-1.5 text-xs hover:border-solid"
            onClick={(event) => {
              event.stopPropagation();
              onMakeTrue();
            }}
          >
            {state.state === "off" ? "off" : stateText(state, callout)}
          </button>
        ) : (
          stateText(state, callout)
        )}
      </td>
      <td className={`figures ${cell} text-right`}>{measuredWords(row, unit)}</td>
      <td className={`${cell} text-right`}>
        <button
          type="button"
          aria-label={`Point ${text} ${callout.name} at something else`}
          title="Point it at other geometry"
          className={
            "mr-1 inline-grid h-6 w-6 place-items-center rounded-card border border-hair align-bottom hover:border-ink"
          }
          onClick={(event) => {
            event.stopPropagation();
            onPoint();
          }}
        >
          <Crosshair size={13} aria-hidden="true" />
        </button>
        {open && (
          <button
            type="button"
            className="h-6 rounded-card border border-hair px-2 text-xs hover:border-ink"
            onClick={(event) => {
              event.stopPropagation();
              onWaive();
            }}
          >
            {waived ? "Hold it again" : "Waive …"}
          </button>
        )}
      </td>
    </tr>
  );
};

/** Asks why a number need not hold: a waiver without a reason is none. */
const Waive = ({
  row,
  unit,
  edit,
  onClose,
}: {
  row: CalloutRow;
  unit: Unit;
  edit: ProvedJob["edit"];
  onClose: () => void;
}) => {
  const [reason, setReason] = useState("");
  const [wrong, setWrong] = useState(false);
  return (
    <FormDialog
      title={`Waive ${calloutText(row.callout, unit)} ${row.callout.name}`}
      submit="Waive it"
      onClose={onClose}
      onSubmit={async () => {
        const why = reason.trim().slice(0, 300);
        if (!why) return setWrong(true);
        const measured = measuredOf(row);
        const on = new Date().toLocaleDateString("sv-SE");
        const waived = { reason: why, on, ...(measured === undefined ? {} : { measured }) };
        await edit(
          (drawing) => waiveCallout(drawing, row.callout.id, waived),
          `${calloutText(row.callout, unit)} waived`,
        );
        onClose();
      }}
    >
      <label>
        <span className="text-soft">Why need it not hold?</span>
        <input
          autoFocus
          value={reason}
          aria-invalid={wrong && !reason.trim() ? true : undefined}
          placeholder="Customer rang: leave it out"
          className="mt-1 block h-8 w-full rounded-card border border-hair bg-board px-2"
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      {wrong && !reason.trim() && (
        <p role="alert" className="text-fault">
          A waiver says why: a few words that the shop understands later.
        </p>
      )}
    </FormDialog>
  );
};
