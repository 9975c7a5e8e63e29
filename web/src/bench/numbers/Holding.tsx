import { ChevronRight } from "lucide-react";
import { useState } from "react";
import type { Drawing } from "@ash-edge/core/drawing";
import { describeRef } from "@ash-edge/core/look";
import { heldWords, relationWords } from "@ash-edge/core/say";
import type { Held } from "@ash-edge/core/solve";
import { useBench, useSession } from "../SessionContext.tsx";
import { Heading, keepFocus, small, useLight } from "./parts.tsx";

/** What stays where it is, by a click. */
export const Staying = ({ drawing }: { drawing: Drawing }) => {
  const { act } = useSession();
  const stays = useBench((state) => state.numbers?.stays) ?? [];
  const picking = useBench((state) => state.numbers?.picking) ?? false;
  return (
    <div className="flex items-center gap-2 border-t border-hair px-3 py-1">
      <span className="min-w-0 flex-1 text-xs text-soft">
        {picking
          ? "Click the piece that stays."
          : stays.length > 0
            ? `Stays: ${stays.map((ref) => describeRef(drawing, ref)).join(", ")}`
            : "The fewest things move."}
      </span>
      {stays.length > 0 && (
        <button type="button" className={small} onMouseDown={keepFocus} onClick={act.stayNoMore}>
          nothing
        </button>
      )}
      <button
        type="button"
        aria-pressed={picking}
        className={`${small} aria-pressed:border-ember aria-pressed:text-ember`}
        onMouseDown={keepFocus}
        onClick={() => act.pickStays(!picking)}
      >
        this side stays
      </button>
    </div>
  );
};

export const LetGo = ({ letGo, drawing }: { letGo: readonly Held[]; drawing: Drawing }) => {
  const { act } = useSession();
  const light = useLight();
  return (
    <>
      <Heading>Let go</Heading>
      <ul aria-label="Let go">
        {letGo.map((held) => (
          <li key={held.key} className="flex items-center gap-2 px-3 py-0.5" {...light(held.refs)}>
            <span className="min-w-0 flex-1 text-xs">{relationWords(drawing, held)}</span>
            <button type="button" className={small} onMouseDown={keepFocus} onClick={() => act.holdAgain(held.key)}>
              hold
            </button>
          </li>
        ))}
      </ul>
    </>
  );
};

/** What holds, kind by kind; a kind opens to its relations, each of which can be let go. */
export const Holding = ({ holds, drawing }: { holds: readonly Held[]; drawing: Drawing }) => {
  const { act } = useSession();
  const light = useLight();
  const [open, setOpen] = useState<Held["kind"]>();
  const kinds = new Map<Held["kind"], Held[]>();
  for (const held of holds) if (held.kind !== "size") kinds.set(held.kind, [...(kinds.get(held.kind) ?? []), held]);
  if (kinds.size === 0) return null;
  return (
    <>
      <Heading>Holds</Heading>
      <ul aria-label="Holds">
        {[...kinds].map(([kind, those]) => (
          <li key={kind}>
            <button
              type="button"
              aria-expanded={open === kind}
              className="flex h-6 w-full items-center gap-1 px-2 text-left hover:bg-board"
              onMouseDown={keepFocus}
              onClick={() => setOpen(open === kind ? undefined : kind)}
              {...light(those.flatMap(({ refs }) => refs))}
            >
              <ChevronRight
                size={13}
                className={`shrink-0 text-soft ${open === kind ? "rotate-90" : ""}`}
                aria-hidden="true"
              />
              {heldWords(kind, those.length)}
            </button>
            {open === kind && (
              <ul>
                {those.map((held) => (
                  <li key={held.key} className="flex items-center gap-2 py-0.5 pr-3 pl-7" {...light(held.refs)}>
                    <span className="min-w-0 flex-1 text-xs">
                      {relationWords(drawing, held).replace(/^[^:]*: /, "")}
                    </span>
                    <button type="button" className={small} onMouseDown={keepFocus} onClick={() => act.letGoOf(held)}>
                      let go
                    </button>
                  </li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ul>
    </>
  );
};
