import { ChevronDown } from "lucide-react";
import { Popover } from "radix-ui";
import { useState, type ReactNode } from "react";
import { settingsOf, unitOf } from "@ash-edge/core/drawing";
import { SNAP_KINDS, SNAP_WORDS } from "@ash-edge/core/look";
import { readTypedValue, showLength } from "@ash-edge/core/numeric";
import { countSelected } from "./annotated.ts";
import { zoomRatio } from "./board/view.ts";
import { HOLD_LEVEL, HOLD_UPRIGHT, holdAngle } from "./hold.ts";
import { useBench, useSession } from "./SessionContext.tsx";
import { backToBoard } from "./useBenchKeys.ts";

const fixed = (value: number, unit: "mm" | "in"): string => (unit === "mm" ? value.toFixed(3) : value.toFixed(4));

/** Where the pointer is, which snap and which direction hold, and the zoom; snaps and directions are set from here. */
export const ReadOut = () => {
  const hover = useBench((state) => state.pointer.hover);
  const heldWord = useBench((state) => state.pointer.heldWord ?? state.pointer.hold?.word);
  const once = useBench((state) => state.pointer.snapOnce);
  const count = useBench((state) => state.pointer.snapCount);
  const which = useBench((state) => state.pointer.snapWhich);
  const view = useBench((state) => state.view.now);
  const selected = useBench((state) => countSelected(state.history.drawing, state.selection.ids));
  const settings = useBench((state) => settingsOf(state.history.drawing));
  const unit = useBench((state) => unitOf(state.history.drawing));
  const at =
    hover && !hover.picture ? { x: hover.at.x - settings.datum.x, y: hover.at.y - settings.datum.y } : undefined;
  const number = (value: number | undefined): string =>
    value === undefined ? "–" : hover?.snap ? showLength(value, unit) : fixed(value, unit);
  const word = hover?.snap ? SNAP_WORDS[hover.snap.kind as keyof typeof SNAP_WORDS] : "none";
  return (
    <footer
      className={"figures @container flex h-7 shrink-0 items-center gap-3 border-t border-hair px-3 text-xs text-soft"}
    >
      <span
        role="status"
        aria-label="Read-out"
        aria-live="off"
        className="flex min-w-0 items-center gap-2 overflow-hidden"
      >
        <span className="min-w-22 whitespace-nowrap">x {number(at?.x)}</span>
        <span className="min-w-22 whitespace-nowrap">y {number(at?.y)}</span>
        <Setting
          label="Snaps"
          words={<span className={once ? "text-ember" : ""}>snap {once ? `${SNAP_WORDS[once]} once` : word}</span>}
        >
          {() => <SnapSettings />}
        </Setting>
        {count > 1 && (
          <span className="whitespace-nowrap">
            {which + 1} of {count}
            <span className="@max-[540px]:hidden"> · Space</span>
          </span>
        )}
        <Setting label="Hold" words={<span className={heldWord ? "text-ember" : ""}>hold {heldWord ?? "none"}</span>}>
          {(close) => <HoldSettings onChosen={close} />}
        </Setting>
        {selected && <span className="truncate text-moss">{selected} selected</span>}
      </span>
      <span className="flex-1" />
      <span className="whitespace-nowrap @max-[540px]:hidden">{zoomRatio(view, unit)}</span>
    </footer>
  );
};

type SettingProps = {
  readonly label: string;
  readonly words: ReactNode;
  readonly children: (close: () => void) => ReactNode;
};

/** A setting of the read-out in a popover; what is chosen there may close it. */
const Setting = ({ label, words, children }: SettingProps) => {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={label}
        onMouseDown={(event) => event.preventDefault()}
        className={
          "flex h-6 min-w-24 items-center gap-1 rounded-card px-1 whitespace-nowrap hover:bg-ground hover:text-ink"
        }
      >
        {words}
        <ChevronDown size={11} aria-hidden="true" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={6}
          aria-label={label}
          onCloseAutoFocus={backToBoard}
          className="card z-40 w-64 p-3 text-[13px]"
        >
          {children(() => setOpen(false))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
};

/** Each kind on or off, and how near the pointer must be. */
const SnapSettings = () => {
  const { act } = useSession();
  const { off, reach, drawn } = useBench((state) => state.kept.snaps);
  return (
    <>
      <div className="mb-2 flex justify-between text-soft">
        <b className="text-ink">Snaps</b> held off with Alt
      </div>
      <div className="grid grid-cols-2 gap-y-1">
        {SNAP_KINDS.map((kind) => (
          <label key={kind} className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={!off.includes(kind)}
              onChange={(event) =>
                act.setSnaps({ off: event.target.checked ? off.filter((one) => one !== kind) : [...off, kind] })
              }
            />
            {SNAP_WORDS[kind]}
          </label>
        ))}
      </div>
      <label className="mt-3 block">
        Reach <span className="figures text-soft">{reach} px</span>
        <input
          type="range"
          aria-label="Reach"
          min={4}
          max={30}
          value={reach}
          onChange={(event) => act.setSnaps({ reach: Number(event.target.value) })}
          className="block w-full accent-[var(--ember)]"
        />
      </label>
      <label className="mt-1 flex items-center gap-2">
        <input type="checkbox" checked={drawn} onChange={(event) => act.setSnaps({ drawn: event.target.checked })} />
        draw the reach round the pointer
      </label>
    </>
  );
};

const HOLDS = [
  ["free", undefined],
  ["level", HOLD_LEVEL],
  ["upright", HOLD_UPRIGHT],
] as const;

/** A direction that stays: level, upright, a typed angle, along or square to an edge. */
const HoldSettings = ({ onChosen }: { onChosen: () => void }) => {
  const { act } = useSession();
  const hold = useBench((state) => state.pointer.hold);
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState(false);
  const row = (on: boolean): string =>
    `flex h-7 w-full items-center rounded-card px-2 text-left ${on ? "bg-ink text-panel" : "hover:bg-ember-wash"}`;
  const keep = (): void => {
    const read = readTypedValue(text, { unit: "mm", expects: "angle" });
    setWrong(!read.ok);
    if (!read.ok) return;
    act.setHold(holdAngle(read.value.value));
    onChosen();
  };
  return (
    <>
      <div className="mb-2 flex justify-between text-soft">
        <b className="text-ink">Direction</b> Shift holds the nearest
      </div>
      {HOLDS.map(([words, to]) => (
        <Popover.Close key={words} className={row(hold?.word === to?.word)} onClick={() => act.setHold(to)}>
          {words}
        </Popover.Close>
      ))}
      {(["along", "square"] as const).map((how) => (
        <Popover.Close
          key={how}
          className={row(hold?.word.startsWith(how) ?? false)}
          onClick={() => act.take(`hold-${how}`)}
        >
          {how === "along" ? "along an edge …" : "square to an edge …"}
        </Popover.Close>
      ))}
      <label className="mt-1 flex items-center gap-2 px-2">
        at
        <input
          aria-label="angle held"
          aria-invalid={wrong || undefined}
          value={text}
          placeholder="30"
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && keep()}
          className="figures h-7 w-20 rounded-card border border-hair bg-board px-2"
        />
        ° and Enter
      </label>
    </>
  );
};
