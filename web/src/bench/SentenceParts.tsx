import { Pin, X } from "lucide-react";
import { useLayoutEffect, useRef, useState } from "react";
import { calloutText, measureCallout } from "@ash-edge/core/callouts";
import { calloutsOf, layersOf, unitOf } from "@ash-edge/core/drawing";
import { countByKind, describePoint, describeRef } from "@ash-edge/core/look";
import { showAngle, showLength, showLengthUnit, type Unit } from "@ash-edge/core/numeric";
import { searchThreads } from "@ash-edge/core/tables";
import {
  fitsBlank,
  givenOf,
  readBlank,
  takesPoint,
  wantedPick,
  FROM_DATUM,
  PLACE_PARTS,
  toolById,
  isShown,
  pickParts,
  type Typed,
  type Placing,
  type ReadValue,
  type Part,
  type Tool,
} from "@ash-edge/tools";
import { NinePlaces, Segmented } from "../ui/Choice.tsx";
import { useBench, useSession } from "./SessionContext.tsx";
import { usedKey } from "./sessionTools.ts";
import { blankInput, focusBoard } from "./useBenchKeys.ts";

const shown = (part: Typed, value: number, unit: Unit): string =>
  part.kind === "value" && part.expects === "angle"
    ? showAngle(value).replace("°", "") // the sign stands after the blank
    : part.kind === "value" && (part.expects === "count" || part.expects === "number")
      ? String(value)
      : showLength(value, unit);

/** A part of a tool's sentence: words, a pick, a choice, or a blank to type in. */
export const PartView = ({ tool, part }: { tool: Tool; part: Part }) => {
  const { act } = useSession();
  const choice = useBench((state) => (part.kind === "choice" ? state.hand.tool?.choices[part.name] : undefined));
  const hidden = useBench((state) => !isShown(part, state.hand.tool?.choices ?? {}));
  if (hidden) return null;
  if (part.kind === "words") return <span className="shrink-0 text-[15px] whitespace-nowrap">{part.text}</span>;
  if (part.kind === "pick") return part.silent ? null : <PickBlank tool={tool} part={part} />;
  if (part.kind === "choice")
    return part.nine ? (
      <NinePlaces
        label={part.label}
        options={part.options}
        value={choice ?? ""}
        onChange={(to) => act.toolEvent({ type: "choice", name: part.name, to })}
      />
    ) : (
      <Segmented
        label={part.label}
        options={part.options}
        value={choice ?? ""}
        onChange={(to) => act.toolEvent({ type: "choice", name: part.name, to })}
      />
    );
  if (part.kind === "layer") return <LayerChoice part={part} />;
  return <TypedBlank tool={tool} part={part} />;
};

/** The layers of the drawing, the working one first taken. */
const LayerChoice = ({ part }: { part: Extract<Part, { kind: "layer" }> }) => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const working = useBench((state) => state.selection.layer);
  const chosen = useBench((state) => state.hand.tool?.choices[part.name]);
  const layers = layersOf(drawing);
  const value = layers.some(({ id }) => String(id) === chosen) ? chosen! : String(working);
  return (
    <select
      aria-label={part.label}
      value={value}
      onChange={(event) => {
        act.toolEvent({ type: "choice", name: part.name, to: event.target.value });
        focusBoard();
      }}
      className="h-8 max-w-48 rounded-card border border-hair bg-board px-2"
    >
      {layers.map(({ id, name, locked }) => (
        <option key={id} value={String(id)} disabled={locked}>
          {locked ? `${name}, locked` : name}
        </option>
      ))}
    </select>
  );
};

/** The name of the part that takes the digits typed next. */
const useLit = (): string | undefined => {
  const { act } = useSession();
  return useBench(() => act.lit()?.name);
};

const FILLED = "border-hair font-semibold";
const LIT = "border-ember bg-ember-wash text-ember";
const WANTED = "border-ember text-ember";
const EMPTY = "border-dashed border-hair text-soft";
const chip = "figures inline-flex h-8 shrink-0 items-center rounded-card border px-2 text-[13.5px] whitespace-nowrap";

const PickBlank = ({ tool, part }: { tool: Tool; part: Extract<Part, { kind: "pick" }> }) => {
  const { act } = useSession();
  const drawing = useBench((bench) => bench.history.drawing);
  const index = useBench((bench) => bench.history.index);
  const state = useBench((bench) => bench.hand.tool);
  const selection = useBench((bench) => bench.selection.ids);
  const layer = useBench((bench) => bench.selection.layer);
  const isLit = useLit() === part.name;
  if (!state) return null;
  const picked = state.picks[part.name];
  const given = givenOf(tool, state, undefined, { drawing, index, unit: unitOf(drawing), selection, layer });
  const wanted = wantedPick(tool, state, given);
  const isNext = wanted?.name === part.name;
  if (part.takes === "things") {
    const words = given.things.length > 0 ? countByKind(drawing, given.things) : "click it, or draw a box round it";
    return (
      <span
        role="textbox"
        aria-readonly="true"
        aria-label={part.label}
        className={`${chip} ${given.things.length > 0 ? FILLED : LIT}`}
      >
        {state.gathering ? `${countByKind(drawing, selection)} · Shift adds, Enter goes on` : words}
      </span>
    );
  }
  const words =
    picked &&
    (picked.picture
      ? "on the sketch"
      : picked.ref && !picked.ref.place && picked.snap === undefined
        ? describeRef(drawing, picked.ref)
        : (picked.snap ?? describePoint(drawing, picked.at)));
  const isPoint = takesPoint(part);
  return (
    <>
      <span
        role="textbox"
        aria-readonly="true"
        aria-label={part.label}
        aria-current={isLit ? "true" : undefined}
        {...(isNext && isPoint && !state.placing
          ? { title: "Click the board, or type: a digit begins the point, 80;30 is one by itself" }
          : {})}
        onClick={() => {
          if (!isNext || !isPoint) return;
          act.toolEvent({ type: "place", placing: state.placing ?? FROM_DATUM });
          act.toolEvent({ type: "light", blank: PLACE_PARTS[(state.placing ?? FROM_DATUM).as][0].name });
        }}
        className={
          `${chip} ${picked ? FILLED : isLit ? LIT : isNext ? WANTED : EMPTY} ` +
          (isNext && isPoint ? "cursor-text" : "")
        }
      >
        {words ?? part.label}
      </span>
      {state.placing && wanted?.name === part.name && <PlaceFields tool={tool} placing={state.placing} />}
    </>
  );
};

/** A point being typed: its two blanks, from where they count, and how. */
const PlaceFields = ({ tool, placing }: { tool: Tool; placing: Placing }) => {
  const { act } = useSession();
  const place = (change: Partial<Placing>): void =>
    act.toolEvent({ type: "place", placing: { ...placing, ...change } });
  return (
    <span role="group" aria-label="Point by numbers" className="inline-flex items-center gap-2">
      {PLACE_PARTS[placing.as].map((part) => (
        <span key={part.name} className="inline-flex items-center gap-1">
          <span className="text-soft">{part.label}</span>
          <TypedBlank tool={tool} part={part} />
        </span>
      ))}
      <Segmented
        label="counted as"
        options={[
          ["xy", "x y"],
          ["polar", "polar"],
        ]}
        value={placing.as}
        onChange={(as) => place({ as: as as Placing["as"] })}
      />
      <Segmented
        label="counted from"
        options={[
          ["datum", "datum"],
          ["last", "last point"],
        ]}
        value={placing.from}
        onChange={(from) => place({ from: from as Placing["from"] })}
      />
      <button
        type="button"
        aria-label="Pick the point instead"
        title="Pick the point instead"
        className="grid h-7 w-6 place-items-center text-soft hover:text-ink"
        onClick={() => act.toolEvent({ type: "place", placing: undefined })}
      >
        <X size={13} aria-hidden="true" />
      </button>
    </span>
  );
};

const field =
  "figures h-8 rounded-card border bg-board px-2 text-[14px] font-semibold placeholder:font-normal " +
  "placeholder:text-soft";
/** Letters that a blank has room for at least. */
const LEAST_WIDTH: Readonly<Partial<Record<Typed["kind"], number>>> = { thread: 7, list: 7, text: 16 };
const otherKind = { R: "Ø", Ø: "R" } as const;

const TypedBlank = ({ tool, part }: { tool: Tool; part: Typed }) => {
  const { act, getState } = useSession();
  const state = useBench((all) => all.hand.tool);
  const live = useBench((all) => all.hand.proposal?.live?.[part.name]);
  const unit = useBench((all) => unitOf(all.history.drawing));
  const [focused, setFocused] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const isLit = useLit() === part.name;
  const isFault = useBench((all) => all.panels.message?.tone === "fault");
  const isThread = part.kind === "thread";
  // the focus follows what is lit by hand or typed in, so that the caret is there; letters typed there are no banks
  const mine = (state?.open?.blank ?? state?.lit) === part.name || ((isThread || part.kind === "text") && isLit);
  useLayoutEffect(() => {
    const field = input.current;
    if (mine) field?.focus();
    else if (field && document.activeElement === field) focusBoard();
  }, [mine, tool.id]);
  if (!state) return null;
  const entry = state.entries[part.name];
  const isOpen = state.open?.blank === part.name;
  const kind = part.kind === "size" ? state.kinds[part.name]! : undefined;
  const text = isOpen ? state.open!.text : (entry?.text ?? "");
  const pointerValue = live === undefined ? undefined : kind === "Ø" ? 2 * live : live;
  const placeholder =
    pointerValue !== undefined
      ? shown(part, pointerValue, unit)
      : part.kind === "value" && part.given !== undefined
        ? String(part.given)
        : "";
  const read = isOpen && text.trim() ? readBlank(part, text, { unit }) : undefined;
  // what was typed is read back unless it is the plain number
  const echo = read?.ok && !/^\s*\d+(?:[.,]\d+)?\s*$/.test(text) ? echoOf(part, read.value, unit) : undefined;
  const label = part.kind === "size" ? (kind === "R" ? "radius" : "diameter") : part.label;
  const size = read?.ok
    ? { value: read.value.value, kind: read.value.kind ?? kind }
    : entry
      ? { value: entry.value, kind }
      : undefined;
  // offers hang over the board: they give way to what is being typed and to what was refused
  const offers = focused && (isThread || ((!isOpen || text.trim() === "") && !isFault));
  const width = Math.max(LEAST_WIDTH[part.kind] ?? 4, Math.min((text || placeholder).length + 1, 36));
  return (
    <span className="relative inline-flex shrink-0 items-center gap-2">
      {part.kind === "size" && (
        <Segmented
          label="radius or diameter"
          options={[
            ["R", "R"],
            ["Ø", "Ø"],
          ]}
          value={size?.kind ?? kind!}
          onChange={(to) => act.toolEvent({ type: "choice", name: part.name, to })}
        />
      )}
      <span className="relative inline-flex items-center">
        <input
          ref={input}
          data-blank={part.name}
          aria-label={label}
          aria-invalid={read && !read.ok ? true : undefined}
          autoComplete="off"
          spellCheck={false}
          value={text}
          placeholder={placeholder}
          onFocus={(event) => {
            setFocused(true);
            if (!isOpen) event.currentTarget.select();
            if (mine) return;
            act.toolEvent({ type: "light", blank: part.name });
            // what is being typed elsewhere could not be read: the keys go on there
            const open = getState().hand.tool?.open?.blank;
            if (open !== undefined && open !== part.name) blankInput(open)?.focus();
          }}
          onBlur={() => setFocused(false)}
          onChange={(event) => act.toolEvent({ type: "type", blank: part.name, text: event.target.value })}
          className={`${field} ${entry && !isOpen ? "pr-6" : ""} ${
            focused || isLit ? "border-ember shadow-[0_0_0_3px_var(--ember-wash)]" : "border-hair"
          }`}
          style={{ width: `calc(${width}ch + ${entry && !isOpen ? "2.4rem" : "1.2rem"})` }}
        />
        {entry && !isOpen && (
          <span title="Held: the pointer can't change it" className="pointer-events-none absolute right-2 text-ember">
            <Pin size={12} fill="currentColor" aria-label="held" />
          </span>
        )}
      </span>
      {echo && <output className="figures shrink-0 whitespace-nowrap text-moss">= {echo}</output>}
      {part.kind === "size" && size?.kind && (
        <span className="figures shrink-0 whitespace-nowrap text-soft">
          {echo ? "" : `${unit} `}= {otherKind[size.kind]}{" "}
          {showLength(size.kind === "Ø" ? size.value / 2 : size.value * 2, unit)}
        </span>
      )}
      {part.kind === "size" && !size && <span className="text-soft">{unit}</span>}
      {part.kind === "value" && part.expects === "length" && !echo && <span className="text-soft">{unit}</span>}
      {part.kind === "value" && part.expects === "angle" && <span className="text-soft">°</span>}
      {isOpen && <OfferedCallout />}
      {offers && (isThread ? <ThreadOffers part={part} text={text} /> : <Offers tool={tool} part={part} />)}
    </span>
  );
};

/** The one callout whose number is being typed: a key or a click ties it to what is made. */
const OfferedCallout = () => {
  const { act } = useSession();
  const unit = useBench((state) => unitOf(state.history.drawing));
  const callout = useBench(() => act.offered()?.callout);
  if (!callout) return null;
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-label={`Tie it to ${calloutText(callout, unit)} ${callout.name}`}
      onMouseDown={(event) => event.preventDefault()}
      onClick={() => act.takeOffered()}
      className="card absolute top-10 left-0 z-30 flex items-center gap-2 px-3 py-1 whitespace-nowrap hover:bg-board"
    >
      the <span className="figures font-semibold">{calloutText(callout, unit)}</span>
      {callout.name}?<kbd className="rounded border border-hair px-1 text-xs text-soft">↓</kbd>
    </button>
  );
};

/** What was typed as it is read: `= 42 1/2 in`, `= Ø 26`. */
const echoOf = (part: Typed, { value, kind, then }: ReadValue, unit: Unit): string => {
  if (part.kind === "thread" || part.kind === "list" || part.kind === "text") return "";
  if (part.kind === "value" && part.expects !== "length") return shown(part, value, unit);
  const more = then && then.length > 0 ? `, then ${then.length} more` : "";
  return `${kind ? `${kind} ` : ""}${showLengthUnit(value, unit)}${more}`;
};

/** Threads that begin with what is typed, and callouts that name one. */
const ThreadOffers = ({ part, text }: { part: Typed; text: string }) => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const called = calloutsOf(drawing).filter(({ kind }) => kind === "thread");
  const found = searchThreads(text, 8, unitOf(drawing));
  if (found.length === 0 && called.length === 0) return null;
  const row = "flex w-full items-center gap-3 px-3 py-1 text-left hover:bg-board";
  return (
    <div
      onMouseDown={(event) => event.preventDefault()}
      className="card absolute top-10 left-0 z-30 min-w-56 py-1"
      aria-label="Offers"
    >
      {called.map((callout) => (
        <button key={callout.id} type="button" tabIndex={-1} className={row} onClick={() => act.useCallout(callout)}>
          <span className="figures font-semibold">{callout.thread}</span>
          <span className="text-soft">{callout.name} on the sketch</span>
        </button>
      ))}
      {found.map(({ name, series }) => (
        <button
          key={name}
          type="button"
          tabIndex={-1}
          className={row}
          onClick={() => {
            act.toolEvent({ type: "type", blank: part.name, text: name });
            act.toolEvent({ type: "hold" });
            focusBoard();
          }}
        >
          <span className="figures font-semibold">{name}</span>
          <span className="text-soft">{series}</span>
        </button>
      ))}
    </div>
  );
};

/** So many values used before are offered. */
const OFFERED = 6;

/** Recent values and callouts not placed yet, for the mouse hand. Offers, never held by themselves. */
const Offers = ({ tool, part }: { tool: Tool; part: Typed }) => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const used = useBench((state) => state.kept.used[usedKey(unitOf(state.history.drawing), tool, part.name)]);
  // what was used in this job first
  const recent = [
    ...new Set(
      [...(used ?? [])].sort((p, q) => Number(q.job === act.job) - Number(p.job === act.job)).map(({ text }) => text),
    ),
  ].slice(0, OFFERED);
  const called = calloutsOf(drawing).filter(
    (callout) => fitsBlank(part, callout.kind) && measureCallout(drawing, callout).state === "not placed",
  );
  if (called.length === 0 && recent.length === 0) return null;
  const row = "flex w-full items-center gap-3 px-3 py-1 text-left hover:bg-board";
  return (
    <div
      onMouseDown={(event) => event.preventDefault()}
      className="card absolute top-10 left-0 z-30 min-w-48 py-1"
      aria-label="Offers"
    >
      {called.map((callout) => (
        <button key={callout.id} type="button" tabIndex={-1} className={row} onClick={() => act.useCallout(callout)}>
          <span className="figures font-semibold">{calloutText(callout, unitOf(drawing))}</span>
          <span className="text-soft">{callout.name}</span>
        </button>
      ))}
      {recent.map((text) => (
        <button
          key={text}
          type="button"
          tabIndex={-1}
          className={`${row} text-soft`}
          onClick={() => act.toolEvent({ type: "type", blank: part.name, text })}
        >
          <span className="figures">{text}</span> used before
        </button>
      ))}
    </div>
  );
};

/** What the next click makes. */
export const Hint = () => {
  const proposal = useBench((bench) => bench.hand.proposal);
  const toolId = useBench((bench) => bench.hand.toolId);
  const tool = toolById(toolId);
  if (!tool || !proposal) return null;
  const ways = proposal.ways.length;
  const words = [
    proposal.note,
    ways > 1 ? `${proposal.which + 1} of ${ways} · Space for the next` : "",
    ways > 0 && pickParts(tool).length === 0 ? "click or Enter makes it" : "",
  ].filter(Boolean);
  return <span className="said min-w-0 truncate text-right text-soft">{words.join(" · ")}</span>;
};
