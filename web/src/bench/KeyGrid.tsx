import { useBench, useSession } from "./SessionContext.tsx";
import { bankPlaces, REGISTRY } from "./tools/registry.ts";
import { BANK_KEYS, BANKS, type BankKey } from "./tools/tool.ts";
import { ToolDrawing } from "./ToolDrawing.tsx";

const taken = new Set(REGISTRY.map(({ bank }) => bank));

/** The left hand's keys: the first stroke takes a bank, the second a tool by its place. */
export const KeyGrid = () => {
  const { act } = useSession();
  const bank = useBench((state) => state.bank);
  const toolId = useBench((state) => state.toolId);
  const places = bank ? bankPlaces(bank) : undefined;
  const activeBank = REGISTRY.find(({ id }) => id === toolId)?.bank;
  const cell = (key: BankKey) => {
    const member = places?.get(key);
    const first = REGISTRY.find((one) => one.bank === key);
    const used = places ? member !== undefined : taken.has(key);
    const active = places ? member?.id === toolId : key === activeBank;
    const name = places ? member?.name : used ? BANKS[key] : undefined;
    const drawing = places ? member?.drawing : used ? first?.drawing : undefined;
    return (
      <button
        key={key}
        type="button"
        disabled={!used}
        aria-label={name ?? `${key.slice(3)}, empty`}
        aria-keyshortcuts={key.slice(3)}
        aria-pressed={active}
        title={places ? member?.help : undefined}
        onMouseDown={(event) => event.preventDefault()}
        onClick={() => (member ? act.take(member.id) : act.setBank(key))}
        className={`relative flex min-h-0 flex-col items-start justify-between overflow-hidden rounded-card border px-[3px] py-0.5 text-left text-[10.5px] leading-[1.15] tracking-[-0.02em] ${
          active
            ? "border-ember bg-ember-wash text-ember"
            : used
              ? "border-hair bg-board hover:border-ink"
              : "border-hair border-dashed text-soft opacity-60"
        }`}
      >
        <span className="flex w-full justify-between">
          <span className="figures text-[10.5px] text-soft">{key.slice(3)}</span>
          {drawing && <ToolDrawing drawing={drawing} size={16} />}
        </span>
        <span className={`w-full ${places ? "line-clamp-2" : "whitespace-nowrap"}`}>{name ?? ""}</span>
      </button>
    );
  };
  return (
    <section
      data-region="Key grid"
      tabIndex={-1}
      role="region"
      aria-label="Key grid"
      className="card flex h-full flex-col p-2"
    >
      <div className="mb-1.5 flex items-center justify-between px-0.5 text-xs text-soft">
        <b>{bank ? BANKS[bank] : "Tools"}</b>
        <span>{bank ? "second key takes the tool · Esc" : "two keys take a tool"}</span>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-5 grid-rows-3 gap-1.5">{BANK_KEYS.map(cell)}</div>
    </section>
  );
};
