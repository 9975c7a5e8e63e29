import { RadioGroup } from "radix-ui";
import type { KeyboardEvent, ReactNode } from "react";

type Options = readonly (readonly [id: string, words: string])[];
type Props = {
  readonly label: string;
  readonly options: Options;
  readonly value: string;
  readonly onChange: (to: string) => void;
};

/** A choice of few, all in sight: a radio group by name. In a grid of `columns` up and down go by a row. */
const Choice = ({
  label,
  options,
  value,
  onChange,
  columns = 1,
  className,
  children,
}: Props & {
  readonly columns?: number;
  readonly className: string;
  readonly children: (id: string, words: string, chosen: boolean) => ReactNode;
}) => {
  const step = (event: KeyboardEvent<HTMLElement>): void => {
    const by = { ArrowDown: columns, ArrowUp: -columns }[event.key];
    if (columns === 1 || by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    const to = (options.findIndex(([id]) => id === value) + by + options.length) % options.length;
    onChange(options[to]![0]);
    event.currentTarget.querySelectorAll<HTMLElement>("[role=radio]")[to]!.focus();
  };
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value}
      onValueChange={onChange}
      onKeyDownCapture={step}
      className={className}
      loop
    >
      {options.map(([id, words]) => children(id, words, id === value))}
    </RadioGroup.Root>
  );
};

/** Words in a row. */
export const Segmented = (props: Props) => (
  <Choice {...props} className="inline-flex h-8 shrink-0 overflow-hidden rounded-card border border-hair">
    {(id, words, chosen) => (
      <RadioGroup.Item
        key={id}
        value={id}
        className={`px-2.5 whitespace-nowrap ${
          chosen ? "bg-ink font-semibold text-panel" : "text-soft hover:text-ink"
        }`}
      >
        {words}
      </RadioGroup.Item>
    )}
  </Choice>
);

/** The nine places of a rectangle, as small as a letter each. */
export const NinePlaces = (props: Props) => (
  <Choice
    {...props}
    columns={3}
    className="grid h-8 w-9 shrink-0 grid-cols-3 grid-rows-3 rounded-card border border-hair p-[3px]"
  >
    {(id, words, chosen) => (
      <RadioGroup.Item key={id} value={id} aria-label={words} title={words} className="grid place-items-center">
        <span className={`rounded-full ${chosen ? "h-2 w-2 bg-ember" : "h-1 w-1 bg-soft"}`} />
      </RadioGroup.Item>
    )}
  </Choice>
);
