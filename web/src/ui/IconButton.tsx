import { Tooltip } from "radix-ui";
import type { ReactNode } from "react";

/** A button that shows an icon alone; its words are its name and its tooltip. */
export const IconButton = ({
  label,
  hint,
  disabled,
  narrow,
  onClick,
  children,
}: {
  label: string;
  hint?: string;
  disabled?: boolean;
  narrow?: boolean;
  onClick: () => void;
  children: ReactNode;
}) => (
  <Tooltip.Provider delayDuration={400}>
    <Tooltip.Root>
      <Tooltip.Trigger asChild>
        <button
          type="button"
          aria-label={label}
          disabled={disabled}
          onClick={onClick}
          className={
            `grid h-8 ${narrow ? "w-7" : "w-8"} place-items-center rounded-card text-soft ` +
            "hover:bg-ground hover:text-ink disabled:opacity-40 disabled:hover:bg-transparent"
          }
        >
          {children}
        </button>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content sideOffset={4} className="z-50 rounded-card bg-ink px-2 py-1 text-xs text-panel">
          {label}
          {hint && <span className="figures ml-2 opacity-70">{hint}</span>}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  </Tooltip.Provider>
);
