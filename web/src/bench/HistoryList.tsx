import { useVirtualizer } from "@tanstack/react-virtual";
import { History } from "lucide-react";
import { Popover } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import { stepAt } from "../store/index.ts";
import { useBench, useSession } from "./SessionContext.tsx";

const ROW_PX = 28;

/** Every step that was made, newest last; a click goes to after it, and what is undone stays there to be done again. */
export const HistoryList = () => {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label="History"
        title="History"
        className="grid h-8 w-9 place-items-center rounded-card text-soft hover:bg-panel hover:text-ink"
      >
        <History size={16} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content side="bottom" align="end" sideOffset={6} aria-label="History" className="card z-40 w-72 py-2">
          <List onGone={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
};

const List = ({ onGone }: { onGone: () => void }) => {
  const { act } = useSession();
  const history = useBench((state) => state.history.steps);
  const { edits, first, position } = history;
  useEffect(() => void act.readOlder(), [act]);
  const scroll = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: edits.length + 1,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW_PX,
    initialOffset: Math.max(0, (position - first) * ROW_PX - 200),
    overscan: 6,
  });
  return (
    <div ref={scroll} className="max-h-90 overflow-y-auto" role="listbox" aria-label="Steps made" tabIndex={-1}>
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index: row, start }) => {
          const index = first + row;
          const older = row === 0 && first > 0;
          return (
            <button
              key={index}
              type="button"
              role="option"
              aria-selected={index === position}
              onClick={() => {
                if (older) return void act.readOlder();
                act.walkTo(index);
                onGone();
              }}
              style={{ height: ROW_PX, transform: `translateY(${start}px)` }}
              className={`absolute inset-x-0 top-0 flex items-center gap-3 px-3 text-left hover:bg-board ${
                index === position ? "bg-board font-semibold" : index > position ? "text-soft line-through" : ""
              }`}
            >
              <span className="figures w-8 text-right text-xs text-soft">{index}</span>
              <span className="truncate">
                {older ? "Older steps …" : index === 0 ? "As it was at first" : stepAt(history, index - 1)!.label}
              </span>
            </button>
          );
        })}
      </div>
    </div>
  );
};
