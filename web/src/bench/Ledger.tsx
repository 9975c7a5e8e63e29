import { Ellipsis } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { Fragment, useEffect, useRef, useState } from "react";
import { calloutText, stateText, toleranceText, writtenCallout, type CalloutState } from "@ash-edge/core/callouts";
import { calloutsOff } from "@ash-edge/core/checks";
import { settingsOf, unitOf, type Callout } from "@ash-edge/core/drawing";
import { readTypedValue, showLength } from "@ash-edge/core/numeric";
import { MENU, MENU_ITEM } from "../ui/menu.ts";
import { toolsFor } from "./blanks.ts";
import { ledgerFor } from "./derived.ts";
import { dragToBoard } from "./dragToBoard.ts";
import { due } from "./example/due.ts";
import { LedgerWriting } from "./LedgerWriting.tsx";
import { useBench, useSession } from "./SessionContext.tsx";
import { NO_MODIFIERS } from "./state/index.ts";
import { focusBoard } from "./useBenchKeys.ts";

const LOOK: Record<CalloutState["state"], readonly [mark: string, colour: string]> = {
  "not placed": ["", "text-soft"],
  true: ["✓ ", "text-moss"],
  within: ["≈ ", "text-caution"],
  off: ["✕ ", "text-fault font-semibold"],
};

/** The numbers of the sketch and how each stands in the drawing. */
export const Ledger = ({ onThickness }: { onThickness: (thickness: string) => void }) => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const [text, setText] = useState("");
  const rows = ledgerFor(drawing);
  const placed = rows.filter(({ state }) => state.state !== "not placed");
  const off = calloutsOff(drawing);
  const groups = (
    [
      ["Not placed", rows.filter(({ state }) => state.state === "not placed")],
      ["Placed", placed],
    ] as const
  ).filter(([, those]) => those.length > 0);
  // what was written down last comes into sight
  const list = useRef<HTMLDivElement>(null);
  const count = rows.length;
  const before = useRef(count);
  useEffect(() => {
    // a callout just written is the last of those not placed
    if (count > before.current) list.current?.querySelector("ul > li:last-child")?.scrollIntoView({ block: "nearest" });
    before.current = count;
  }, [count]);
  const change = (callout: Callout): void => {
    setText(writtenCallout(callout, unitOf(drawing)));
    act.setWriting({ id: callout.id });
  };
  return (
    <section
      data-region="Ledger"
      tabIndex={-1}
      role="region"
      aria-label="Ledger"
      className="card flex h-full flex-col overflow-hidden"
    >
      <header className="flex items-center justify-between gap-2 px-3 py-1.5 whitespace-nowrap">
        <b>Callouts</b>
        {rows.length > 0 && (
          <span className="figures text-xs text-soft">
            {placed.length} of {rows.length} placed
          </span>
        )}
        <General />
      </header>
      {rows.length > 0 && (
        <div className="flex items-center gap-2 border-t border-hair px-3 py-1">
          <span
            className={`min-w-0 flex-1 truncate text-xs ${off.length > 0 ? "font-semibold text-fault" : "text-soft"}`}
          >
            {off.length === 0 ? "none is off" : off.length === 1 ? "1 number is off" : `${off.length} numbers are off`}
          </span>
          <button
            type="button"
            title="What would make them true, what they leave open, where they belong"
            className="h-6 rounded-card border border-hair px-2 text-xs hover:border-ink"
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => act.openNumbers()}
          >
            {off.length === 0 ? "Look at them" : off.length === 1 ? "Make it true" : "Make all true"}
          </button>
        </div>
      )}
      {rows.length === 0 && (
        <p className="border-t border-hair px-3 py-2 text-soft">
          Write the sketch’s numbers down once, one after another. A click on one then puts it where it is needed.
        </p>
      )}
      <div ref={list} className="min-h-0 flex-1 overflow-y-auto" onMouseLeave={() => act.light([])}>
        {groups.map(([name, those]) => (
          <Fragment key={name}>
            {groups.length > 1 && (
              <h3 className="border-t border-hair bg-board px-3 py-0.5 text-xs font-normal text-soft">
                {name} <span className="figures">{those.length}</span>
              </h3>
            )}
            <ul aria-label={name}>
              {those.map(({ callout, state }) => (
                <Row key={callout.id} callout={callout} state={state} onChange={() => change(callout)} />
              ))}
            </ul>
          </Fragment>
        ))}
      </div>
      <LedgerWriting text={text} setText={setText} onThickness={onThickness} />
    </section>
  );
};

/** How far the job's numbers may be off where they say nothing of their own. */
const General = () => {
  const { act } = useSession();
  const unit = useBench((state) => unitOf(state.history.drawing));
  const general = useBench((state) => settingsOf(state.history.drawing).generalTolerance);
  const [text, setText] = useState<string>();
  const shown = general === undefined ? "" : showLength(general, unit);
  const keep = (): void => {
    if (text === undefined) return;
    const read = text.trim() === "" ? undefined : readTypedValue(text, { unit, expects: "length" });
    if (read && (!read.ok || read.value.value < 0))
      return act.say({
        text: `“${text}” is no tolerance. A length such as ${unit === "mm" ? "0.1" : "1/64"} works.`,
        tone: "fault",
      });
    const value = read?.ok && read.value.value > 0 ? read.value.value : undefined;
    if (value !== general) act.setGeneralTolerance(value);
    setText(undefined);
  };
  return (
    <label
      className="figures flex items-center text-xs text-soft"
      title="The job’s general tolerance: for numbers that carry none"
    >
      ±
      <input
        aria-label="General tolerance"
        value={text ?? shown}
        placeholder="none"
        onChange={(event) => setText(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === "Enter" || event.key === "Escape") {
            if (event.key === "Escape") setText(undefined);
            else keep();
            focusBoard();
          }
        }}
        className="ml-1 h-5 w-12 rounded-card border border-hair bg-board px-1 placeholder:text-soft"
      />
    </label>
  );
};

/** So many tools are offered for a callout before the rest is asked for. */
const LIKELY = 5;

const Row = ({ callout, state, onChange }: { callout: Callout; state: CalloutState; onChange: () => void }) => {
  const { act } = useSession();
  const hasTool = useBench((state) => state.hand.toolId !== undefined);
  const unit = useBench((all) => unitOf(all.history.drawing));
  const offered = useBench((all) => all.panels.offered === callout.id);
  const lit = useBench((all) => all.selection.litCallout === callout.id);
  const isDue = useBench((all) => due(all).callout === callout.id);
  const selection = useBench((all) => all.selection.ids);
  const row = useRef<HTMLLIElement>(null);
  const [all, setAll] = useState(false);
  useEffect(() => {
    if (offered || isDue) row.current?.scrollIntoView({ block: "nearest" });
  }, [offered, isDue]);
  const tools = offered ? toolsFor(callout) : [];
  const [mark, colour] = LOOK[state.state];
  const canBeMade = state.state === "off" || state.state === "within";
  const text = calloutText(callout, unit);
  const light = (): void =>
    act.light(
      callout.links.map(({ id }) => id),
      callout.id,
    );
  return (
    <li ref={row} className={`group relative border-t border-hair ${lit ? "bg-board" : ""} ${isDue ? "is-due" : ""}`}>
      <button
        type="button"
        onMouseDown={(event) => event.preventDefault()}
        onPointerDown={(event) =>
          dragToBoard(event, {
            begin: () => act.dimensionCallout(callout),
            drop: (at) => act.click(at, NO_MODIFIERS),
          })
        }
        title="Click: into what is being made. Drag onto the board: its dimension"
        onMouseEnter={light}
        onFocus={light}
        onClick={() => {
          act.useCallout(callout);
          if (hasTool) focusBoard(); // the value is held: the hand goes on where the work is
        }}
        className={
          "grid h-7 w-full grid-cols-[5.6rem_1fr_auto] items-center gap-1 pl-3 text-left " +
          (canBeMade ? "pr-36" : "pr-3")
        }
      >
        <span className="figures truncate font-semibold">{text}</span>
        <span className="truncate text-soft" title={`${callout.name} ${toleranceText(callout)}`}>
          {callout.name} {toleranceText(callout)}
        </span>
        <span className={canBeMade ? "sr-only" : `text-xs ${colour}`}>{mark + stateText(state, callout)}</span>
      </button>
      {canBeMade && (
        <button
          type="button"
          aria-label={`Make ${text} ${callout.name} true: ${stateText(state, callout)}`}
          title="Make it true: the geometry moves so that this number holds"
          className={
            `absolute top-0.5 right-8 h-6 max-w-[6.75rem] truncate rounded-card border border-dashed px-1.5 text-xs ` +
            `${colour} ${state.state === "off" ? "border-fault" : "border-caution"} hover:border-solid hover:bg-board`
          }
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => act.openNumbers([callout.id])}
        >
          {mark + stateText(state, callout)}
        </button>
      )}
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger
          aria-label={`More for ${text} ${callout.name}`}
          className={
            "absolute top-0.5 right-1 hidden h-6 w-6 place-items-center rounded-card bg-panel text-soft " +
            "group-focus-within:grid group-hover:grid hover:text-ink data-[state=open]:grid"
          }
        >
          <Ellipsis size={14} aria-hidden="true" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className={MENU} align="end">
            <DropdownMenu.Item
              className={MENU_ITEM}
              disabled={selection.size === 0}
              onSelect={() => act.answerWith(callout, [...selection])}
            >
              Answer with what is selected
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={MENU_ITEM}
              disabled={callout.links.length === 0}
              onSelect={() => act.answerWith(callout, [])}
            >
              Let go
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={MENU_ITEM}
              disabled={state.state === "not placed"}
              onSelect={() => setTimeout(() => act.dimensionCallout(callout))}
            >
              Dimension it
            </DropdownMenu.Item>
            {/* the menu gives the focus back when it closes; the line takes it after that */}
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setTimeout(onChange)}>
              Change
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => act.dropCallout(callout)}>
              Remove
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {offered && (
        <div className="flex flex-wrap items-center gap-1.5 px-3 pb-2" role="group" aria-label={`Tools for ${text}`}>
          {(all ? tools : tools.slice(0, LIKELY)).map((tool) => (
            <button
              key={tool.id}
              type="button"
              className="h-7 rounded-card border border-hair px-2 text-xs hover:border-ink"
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => {
                act.take(tool.id);
                act.useCallout(callout);
              }}
            >
              {tool.name}
            </button>
          ))}
          {state.state !== "not placed" && (
            <button
              type="button"
              className="h-7 rounded-card border border-hair px-2 text-xs hover:border-ink"
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => act.dimensionCallout(callout)}
            >
              Dimension it
            </button>
          )}
          {tools.length > LIKELY && !all && (
            <button
              type="button"
              className="h-7 rounded-card px-2 text-xs text-soft hover:text-ink"
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => setAll(true)}
            >
              {tools.length - LIKELY} more
            </button>
          )}
          {tools.length === 0 && <span className="text-xs text-soft">No tool makes this from its number alone.</span>}
        </div>
      )}
    </li>
  );
};
