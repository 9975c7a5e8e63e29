import { useEffect, useRef, useState, type ClipboardEvent } from "react";
import { readLedgerLine, type LedgerLine } from "@ash-edge/core/callouts";
import { unitOf } from "@ash-edge/core/drawing";
import { showLengthUnit, type Outcome, type Refusal, type Unit } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import { CalloutLines, readingWords } from "../ui/CalloutLines.tsx";
import { useBench, useSession } from "./SessionContext.tsx";
import { focusBoard } from "./useBenchKeys.ts";

type Props = {
  readonly text: string;
  readonly setText: (text: string) => void;
  readonly onThickness: (thickness: string) => void;
};

/** Where callouts are written: a number and what it speaks of, Enter, the next; or many lines pasted at once. */
export const LedgerWriting = ({ text, setText, onThickness }: Props) => {
  const { act } = useSession();
  const writing = useBench((state) => state.panels.writing);
  const unit = useBench((state) => unitOf(state.history.drawing));
  const [pasted, setPasted] = useState<readonly string[]>([]);
  const [thickness, setThickness] = useState<number>();
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (writing) input.current?.focus();
  }, [writing]);
  const reading = text.trim() === "" ? undefined : readLedgerLine(text, unit);
  const write = (line: string): void => {
    const read = readLedgerLine(line, unit);
    if (!act.writeCallout(line)) return;
    setText("");
    if (read.ok && read.value.thickness !== undefined) setThickness(read.value.thickness);
  };
  const onPaste = (event: ClipboardEvent): void => {
    const lines = event.clipboardData
      .getData("text")
      .split(/\r?\n/)
      .map((line) => line.trim())
      .filter(Boolean);
    if (lines.length < 2) return;
    event.preventDefault();
    setPasted(lines);
  };
  return (
    <div className="flex min-h-0 shrink flex-col border-t border-hair">
      {pasted.length > 0 && (
        <Pasted
          lines={pasted}
          unit={unit}
          onChange={setPasted}
          onWrite={() => {
            const thick = pasted.map((line) => readLedgerLine(line, unit));
            const found = thick.flatMap((one) => (one.ok ? (one.value.thickness ?? []) : []));
            setPasted(act.writeLines(pasted));
            if (found[0] !== undefined) setThickness(found[0]);
          }}
        />
      )}
      {thickness !== undefined && (
        <div role="group" aria-label="Thickness" className="flex flex-wrap items-center gap-2 px-3 py-1.5 text-xs">
          <span>{showLengthUnit(thickness, unit)} is the job’s thickness.</span>
          <button
            type="button"
            className="rounded-card border border-hair px-2 py-0.5 hover:border-ink"
            onClick={() => {
              onThickness(showLengthUnit(thickness, unit));
              setThickness(undefined);
            }}
          >
            Put it into the job’s details
          </button>
          <button type="button" className="text-soft hover:text-ink" onClick={() => setThickness(undefined)}>
            Leave it
          </button>
        </div>
      )}
      {reading && <Reading reading={reading} unit={unit} onTake={write} />}
      <div className="flex items-center gap-2 px-3 py-1.5">
        <input
          ref={input}
          aria-label={writing?.id === undefined ? "Write a callout" : "Change the callout"}
          placeholder="26 d bore, Enter"
          autoComplete="off"
          spellCheck={false}
          value={text}
          onFocus={() => writing ?? act.setWriting({})}
          onBlur={() => {
            if (text === "") act.setWriting(undefined);
          }}
          onPaste={onPaste}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            const asked =
              reading && !reading.ok && reading.refusal.code === "value-asked" ? reading.refusal : undefined;
            if (event.key === "Enter") {
              event.preventDefault();
              write(text);
            } else if (asked && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
              event.preventDefault();
              write(String(event.key === "ArrowUp" ? asked.values.one : asked.values.other));
            } else if (text === "" && (event.ctrlKey || event.metaKey) && event.code === "KeyZ") {
              event.preventDefault(); // nothing typed to take back: the callout written last is meant
              act.undo();
            } else if (event.key === "Escape") {
              event.preventDefault();
              setText("");
              act.setWriting(undefined);
              act.say(undefined);
              focusBoard();
            }
          }}
          className={
            "figures h-7 min-w-0 flex-1 rounded-card border bg-board px-2 text-[13px] " +
            `placeholder:text-soft ${writing ? "border-ember" : "border-hair"}`
          }
        />
        {writing?.word && (
          <button
            type="button"
            title="The next word of the picture"
            onMouseDown={(event) => event.preventDefault()}
            onClick={act.nextWord}
            className="h-6 shrink-0 rounded-card border border-hair px-1.5 text-xs hover:border-ink"
          >
            Skip
          </button>
        )}
        {writing && (
          <span className="shrink-0 text-xs text-soft">{writing.pin ? "pinned" : "click the sketch to pin it"}</span>
        )}
      </div>
    </div>
  );
};

/** How the line reads so far; where it may mean two things, both, each on a key. */
const Reading = ({
  reading,
  unit,
  onTake,
}: {
  reading: Outcome<LedgerLine>;
  unit: Unit;
  onTake: (line: string) => void;
}) => (
  <p role="status" aria-label="Reading" className="px-3 pt-1.5 text-xs">
    {reading.ok ? (
      <span className={reading.value.doubt ? "text-caution" : "text-moss"}>
        = {readingWords(reading.value, unit)}
        {reading.value.doubt && ". The other number stays in its name: a second line of its own?"}
      </span>
    ) : reading.refusal.code === "value-asked" ? (
      <Ways refusal={reading.refusal} onTake={onTake} />
    ) : (
      <span className="text-soft">{sayRefusal(reading.refusal, unit)}</span>
    )}
  </p>
);

/** The two readings of a text, by a click or by the arrow keys. */
export const Ways = ({ refusal, onTake }: { refusal: Refusal; onTake: (text: string) => void }) => (
  <>
    {[
      ["↑", refusal.values.one],
      ["↓", refusal.values.other],
    ].map(([key, way]) => (
      <button
        key={key}
        type="button"
        onMouseDown={(event) => event.preventDefault()}
        onClick={() => onTake(String(way))}
        className={
          "figures pointer-events-auto mr-2 rounded-card border border-caution px-2 py-0.5 text-ink " +
          "hover:bg-ground"
        }
      >
        <span className="text-soft">{key}</span> {way}
      </button>
    ))}
  </>
);

/** Lines pasted at once, each with its reading; what can't be read stays and can be changed. */
const Pasted = ({
  lines,
  unit,
  onChange,
  onWrite,
}: {
  lines: readonly string[];
  unit: Unit;
  onChange: (lines: readonly string[]) => void;
  onWrite: () => void;
}) => {
  const good = lines.filter((line) => readLedgerLine(line, unit).ok).length;
  return (
    <div role="group" aria-label="Pasted lines" className="flex min-h-0 flex-col px-3 py-1.5">
      <CalloutLines lines={lines} unit={unit} onChange={onChange} />
      <div className="flex shrink-0 gap-2 pt-1 text-xs whitespace-nowrap">
        <button
          type="button"
          disabled={good === 0}
          onClick={onWrite}
          className="rounded-card bg-ember px-2 py-1 font-semibold text-panel disabled:bg-hair"
        >
          {`Write ${good} of ${lines.length}`}
        </button>
        <button type="button" onClick={() => onChange([])} className="px-2 py-1 text-soft hover:text-ink">
          Drop them
        </button>
      </div>
    </div>
  );
};
