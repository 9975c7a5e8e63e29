import { useLayoutEffect, useRef, useState, type RefObject } from "react";
import { createPortal } from "react-dom";
import { bankPlaces, REGISTRY, BANK_KEYS, BANK_SHORT, BANKS, type BankKey } from "@ash-edge/tools";
import { due } from "./example/due.ts";
import { keyFor } from "./keys.ts";
import { useBench, useSession } from "./SessionContext.tsx";
import { ToolDrawing } from "./ToolDrawing.tsx";

const taken = new Set(REGISTRY.map(({ bank }) => bank));
const keyName = (key: BankKey): string => key.slice(3);
/** The letter that takes a place of the grid, as the keys are set. */
const useKeyName = (): ((place: BankKey) => string) => {
  const keys = useBench((state) => state.kept.keys);
  return (place) => keyName(keyFor(place, keys));
};
const bankOf = (id: string | undefined): BankKey | undefined => REGISTRY.find((one) => one.id === id)?.bank;
const KEYS = "grid min-h-0 flex-1 grid-cols-5 grid-rows-3";

/** The left hand's keys: the first stroke takes a bank, the second a tool by its place. */
export const KeyGrid = () => {
  const bank = useBench((state) => state.panels.bank);
  const section = useRef<HTMLElement>(null);
  return (
    <section
      ref={section}
      data-region="Key grid"
      tabIndex={-1}
      role="region"
      aria-label="Key grid"
      className="card flex h-full flex-col p-2"
    >
      <div className="mb-1.5 flex items-center justify-between px-0.5 text-xs text-soft">
        <b>Tools</b>
        <span>two keys, or Ctrl K finds one</span>
      </div>
      <div className={`${KEYS} gap-1.5`}>
        {BANK_KEYS.map((key) => (
          <BankCell key={key} bank={key} />
        ))}
      </div>
      {bank && <OpenBank bank={bank} section={section} />}
    </section>
  );
};

const BankCell = ({ bank }: { bank: BankKey }) => {
  const { act } = useSession();
  const active = useBench((state) => bankOf(state.hand.toolId) === bank);
  const isDue = useBench((state) => bankOf(due(state).take) === bank);
  const letter = useKeyName();
  const used = taken.has(bank);
  const first = REGISTRY.find((one) => one.bank === bank);
  const look = active
    ? "border-ember bg-ember-wash text-ember"
    : used
      ? "border-hair bg-board hover:border-ink"
      : "border-dashed border-hair text-soft opacity-60";
  return (
    <button
      type="button"
      disabled={!used}
      aria-label={used ? BANKS[bank] : `${letter(bank)}, empty`}
      aria-keyshortcuts={letter(bank)}
      aria-pressed={active}
      onMouseDown={(event) => event.preventDefault()}
      onClick={() => act.setBank(bank)}
      className={
        "flex min-h-0 flex-col justify-between overflow-hidden rounded-card border px-[3px] py-0.5 " +
        `text-left text-[10.5px] leading-[1.15] tracking-[-0.02em] ${look} ${isDue ? "is-due" : ""}`
      }
    >
      <span className="flex w-full justify-between">
        <span className="figures text-soft">{letter(bank)}</span>
        {first && <ToolDrawing drawing={first.drawing} size={16} />}
      </span>
      <span className="whitespace-nowrap">{used ? (BANK_SHORT[bank] ?? BANKS[bank]) : ""}</span>
    </button>
  );
};

/** The tools of a bank, opened large over the ledger until the second stroke. */
const OpenBank = ({ bank, section }: { bank: BankKey; section: RefObject<HTMLElement | null> }) => {
  const { act } = useSession();
  const letter = useKeyName();
  const toolId = useBench((state) => state.hand.toolId);
  const wanted = useBench((state) => due(state).take);
  const [box, setBox] = useState<{ left: number; top: number; width: number; bottom: number }>();
  useLayoutEffect(() => {
    const measure = (): void => {
      const own = section.current!.getBoundingClientRect();
      const width = Math.max(own.width, 480);
      setBox({ left: own.left, top: Math.max(8, own.bottom - 400), width, bottom: window.innerHeight - own.bottom });
    };
    measure();
    window.addEventListener("resize", measure);
    return () => window.removeEventListener("resize", measure);
  }, [section]);
  if (!box) return null;
  const places = bankPlaces(bank);
  return createPortal(
    <div
      role="group"
      aria-label={`${BANKS[bank]} tools`}
      className="card fixed z-30 flex flex-col p-2.5 shadow-lg"
      style={box}
    >
      <div className="mb-2 flex items-center justify-between px-0.5">
        <b>{BANKS[bank]}</b>
        <span className="text-xs text-soft">the second key takes the tool · Esc</span>
      </div>
      <div className={`${KEYS} gap-2`}>
        {BANK_KEYS.map((key) => {
          const member = places.get(key);
          if (!member)
            return (
              <span
                key={key}
                className={
                  "figures rounded-card border border-dashed border-hair px-1.5 py-1 text-xs text-soft opacity-60"
                }
              >
                {letter(key)}
              </span>
            );
          const active = member.id === toolId;
          return (
            <button
              key={key}
              type="button"
              aria-label={member.name}
              aria-keyshortcuts={letter(key)}
              aria-pressed={active}
              title={member.help}
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => act.take(member.id)}
              className={
                "flex min-h-0 flex-col justify-between overflow-hidden rounded-card border px-1.5 py-1 " +
                "text-left text-xs leading-tight " +
                (active ? "border-ember bg-ember-wash text-ember" : "border-hair bg-board hover:border-ink") +
                (member.id === wanted ? " is-due" : "")
              }
            >
              <span className="figures text-soft">{letter(key)}</span>
              <span className="self-center">
                <ToolDrawing drawing={member.drawing} size={34} />
              </span>
              <span>{(member.kind === "action" && member.short) || member.name}</span>
            </button>
          );
        })}
      </div>
    </div>,
    document.body,
  );
};
