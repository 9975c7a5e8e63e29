/** A choice of few, all in sight; a radio group by name. */
export const Segmented = ({
  label,
  options,
  value,
  onChange,
}: {
  label: string;
  options: readonly (readonly [id: string, words: string])[];
  value: string;
  onChange: (to: string) => void;
}) => (
  <span
    role="radiogroup"
    aria-label={label}
    className="inline-flex h-8 shrink-0 overflow-hidden rounded-card border border-hair"
  >
    {options.map(([id, words], i) => (
      <button
        key={id}
        type="button"
        role="radio"
        aria-checked={id === value}
        tabIndex={id === value ? 0 : -1}
        onClick={() => onChange(id)}
        onKeyDown={(event) => {
          const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
          if (!step) return;
          event.preventDefault();
          event.stopPropagation();
          const to = (i + step + options.length) % options.length;
          onChange(options[to]![0]);
          (event.currentTarget.parentElement!.children[to] as HTMLElement).focus();
        }}
        className={`px-2.5 whitespace-nowrap ${id === value ? "bg-ink font-semibold text-panel" : "text-soft hover:text-ink"}`}
      >
        {words}
      </button>
    ))}
  </span>
);
