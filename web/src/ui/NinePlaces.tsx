/** The nine places of a rectangle, as small as a letter each; a radio group by name. */
export const NinePlaces = ({
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
    className="grid h-8 w-9 shrink-0 grid-cols-3 grid-rows-3 rounded-card border border-hair p-[3px]"
  >
    {options.map(([id, words], i) => (
      <button
        key={id}
        type="button"
        role="radio"
        aria-checked={id === value}
        aria-label={words}
        title={words}
        tabIndex={id === value ? 0 : -1}
        onClick={() => onChange(id)}
        onKeyDown={(event) => {
          const step = { ArrowRight: 1, ArrowDown: 3, ArrowLeft: -1, ArrowUp: -3 }[event.key];
          if (!step) return;
          event.preventDefault();
          event.stopPropagation();
          const to = (i + step + options.length) % options.length;
          onChange(options[to]![0]);
          (event.currentTarget.parentElement!.children[to] as HTMLElement).focus();
        }}
        className="grid place-items-center"
      >
        <span className={`rounded-full ${id === value ? "h-2 w-2 bg-ember" : "h-1 w-1 bg-soft"}`} />
      </button>
    ))}
  </span>
);
