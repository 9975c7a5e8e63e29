import { ChevronRight, CircleCheck, X } from "lucide-react";
import { useState, type ReactNode } from "react";
import { calloutsOff, measureCallout } from "@ash-edge/core/callouts";
import { calloutsOf, unitOf, type Callout, type Drawing, type Ref } from "@ash-edge/core/drawing";
import { derivedNumber, showAngle, showLength, type Id } from "@ash-edge/core/numeric";
import {
  calloutName,
  followsWords,
  heldWords,
  movesWords,
  oddsWords,
  openWords,
  relationWords,
  sayRefusal,
} from "@ash-edge/core/say";
import type { Held, NumbersStanding, TrueLook } from "@ash-edge/core/solve";
import { describeRef } from "@ash-edge/core/look";
import { CopyQuestions } from "../../ui/CopyQuestions.tsx";
import { useBench, useSession } from "../SessionContext.tsx";
import { focusBoard } from "../useBenchKeys.ts";

const small = "h-6 shrink-0 rounded-card border border-hair px-1.5 text-xs whitespace-nowrap hover:border-ink";
const keepFocus = (event: { preventDefault: () => void }): void => event.preventDefault();

/** Numbers made true: what is asked, what it would move, what holds, what they leave open. */
export const Numbers = () => {
  const { act } = useSession();
  const numbers = useBench((state) => state.numbers);
  const drawing = useBench((state) => state.history.drawing);
  if (!numbers) return null;
  const { asked, busy, look, standing, failed, letGo, of } = numbers;
  const isNow = of === drawing;
  return (
    <section
      data-region="Numbers"
      tabIndex={-1}
      role="region"
      aria-label="Numbers"
      className="card flex h-full flex-col overflow-hidden"
      onMouseLeave={() => act.light([])}
    >
      <header className="flex items-center gap-2 px-3 py-1.5">
        <b className="flex-1">Make true</b>
        <button
          type="button"
          aria-label="Back to the pieces"
          title="Back to the pieces"
          onClick={act.closeNumbers}
          className="grid h-6 w-6 place-items-center rounded-card text-soft hover:text-ink"
        >
          <X size={14} aria-hidden="true" />
        </button>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <Asked asked={asked} drawing={drawing} />
        {busy && (
          <div className="flex items-center gap-2 border-t border-hair px-3 py-1.5">
            <progress className="h-2 min-w-0 flex-1 accent-[var(--ember)]" aria-label="Working it out" />
            <button type="button" className={small} onClick={act.stopNumbers}>
              Stop
            </button>
          </div>
        )}
        {failed !== undefined && (
          <p role="alert" className="border-t border-hair px-3 py-2 text-caution">
            <b>It was not looked what would move.</b> {failed}{" "}
            <button type="button" className={small} onClick={act.lookAtNumbers}>
              Look now
            </button>
          </p>
        )}
        {isNow && look && asked.length > 0 && (
          <>
            {look.ok ? (
              <Would look={look} drawing={drawing} />
            ) : (
              <Refused look={look} drawing={drawing} asked={asked} />
            )}
            <Staying drawing={drawing} />
            {letGo.length > 0 && <LetGo letGo={letGo} drawing={drawing} />}
            {look.ok && <Holding holds={look.holds} drawing={drawing} />}
          </>
        )}
        {isNow && standing && <Standing standing={standing} drawing={drawing} />}
      </div>
    </section>
  );
};

const useLight = () => {
  const { act } = useSession();
  return (refs: readonly Ref[]) => ({
    onMouseEnter: () => act.light(refs.map(({ id }) => id)),
    onFocus: () => act.light(refs.map(({ id }) => id)),
  });
};

const Heading = ({ children }: { children: ReactNode }) => (
  <h3 className="border-t border-hair bg-board px-3 py-0.5 text-xs font-normal text-soft">{children}</h3>
);

const measured = ({ kind }: Callout, value: number, drawing: Drawing): string =>
  kind === "angle" ? showAngle(derivedNumber(value)) : showLength(derivedNumber(value), unitOf(drawing));

/** Which numbers are asked, each with what is drawn. */
const Asked = ({ asked, drawing }: { asked: readonly Id[]; drawing: Drawing }) => {
  const { act } = useSession();
  const light = useLight();
  const off = calloutsOff(drawing);
  if (asked.length === 0)
    return off.length > 0 ? (
      <p className="flex items-center gap-2 border-t border-hair px-3 py-1.5">
        <span className="flex-1 text-fault">
          {off.length === 1 ? "1 number is off." : `${off.length} numbers are off.`}
        </span>
        <button type="button" className={small} onMouseDown={keepFocus} onClick={() => act.askTrue(off)}>
          {off.length === 1 ? "look at it" : "look at all"}
        </button>
      </p>
    ) : (
      <p className="flex items-start gap-2 border-t border-hair px-3 py-2 text-soft">
        <CircleCheck size={16} className="mt-0.5 shrink-0 text-moss" aria-hidden="true" />
        No placed number is off.
      </p>
    );
  const rows = calloutsOf(drawing).filter(({ id }) => asked.includes(id));
  return (
    <ul aria-label="Asked">
      {rows.map((callout) => {
        const state = measureCallout(drawing, callout);
        const drawn =
          state.state === "not placed" ? "not measured yet" : `drawn ${measured(callout, state.measured, drawing)}`;
        return (
          <li
            key={callout.id}
            className="flex min-h-7 items-center gap-2 border-t border-hair px-3"
            {...light(callout.links)}
          >
            <span className="figures min-w-0 truncate font-semibold">{calloutName(drawing, callout.id)}</span>
            <span className="figures flex-1 truncate text-right text-xs text-soft">{drawn}</span>
            {asked.length > 1 && (
              <button
                type="button"
                className={small}
                onMouseDown={keepFocus}
                onClick={() => act.askTrue(asked.filter((id) => id !== callout.id))}
              >
                leave out
              </button>
            )}
          </li>
        );
      })}
    </ul>
  );
};

/** What would move, and the button that takes it. */
const Would = ({ look, drawing }: { look: TrueLook & { ok: true }; drawing: Drawing }) => {
  const { act } = useSession();
  const light = useLight();
  const gives = look.letGo.filter(({ kind }) => kind !== "size");
  return (
    <div className="border-t border-hair">
      <p role="status" aria-label="What would move" className="px-3 py-1.5">
        {movesWords(look.moves)}.{" "}
        {look.rough && <span className="text-soft">Drawn by hand: what is meant comes to hold.</span>}
      </p>
      {look.doubtful.map((id) => (
        <p key={id} className="px-3 pb-1.5 text-caution">
          Is <b className="figures">{calloutName(drawing, id)}</b> right? It is far from what is drawn.
        </p>
      ))}
      {gives.length > 0 && (
        <>
          <p className="px-3 text-caution">Gives way:</p>
          <ul aria-label="Gives way" className="pb-1.5">
            {gives.map((held) => (
              <li key={held.key} className="px-3 text-xs" {...light(held.refs)}>
                {relationWords(drawing, held)}
              </li>
            ))}
          </ul>
        </>
      )}
      <div className="px-3 pb-2">
        <button
          type="button"
          className="h-7 rounded-card bg-ember px-3 font-semibold text-panel"
          title="Enter"
          onClick={() => {
            act.takeTrue();
            focusBoard();
          }}
        >
          Make true
        </button>
      </div>
    </div>
  );
};

/** Why it can't be, what fights, and how far it goes. */
const Refused = ({
  look,
  drawing,
  asked,
}: {
  look: TrueLook & { ok: false };
  drawing: Drawing;
  asked: readonly Id[];
}) => {
  const { act } = useSession();
  const light = useLight();
  const { refusal, odds, limit } = look;
  const unit = unitOf(drawing);
  return (
    <div role="alert" aria-label="Can’t be true" className="border-t border-hair px-3 py-1.5">
      <p className="font-semibold text-fault">{odds ? oddsWords(drawing, odds.callouts) : sayRefusal(refusal, unit)}</p>
      {limit !== undefined && <p className="figures mt-1">It goes to {showLength(limit, unit)}.</p>}
      {odds && odds.relations.length > 0 && (
        <>
          <p className="mt-1 text-soft">As long as these hold:</p>
          <ul aria-label="Holds against it">
            {odds.relations.map((held) => (
              <li key={held.key} className="flex items-center gap-2 py-0.5" {...light(held.refs)}>
                <span className="min-w-0 flex-1 text-xs">{relationWords(drawing, held)}</span>
                <button type="button" className={small} onMouseDown={keepFocus} onClick={() => act.letGoOf(held)}>
                  let go
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      {odds && asked.length > 1 && (
        <p className="mt-1 text-soft">Leave out the one that you doubt, or ask the customer.</p>
      )}
    </div>
  );
};

/** What stays where it is, by a click. */
const Staying = ({ drawing }: { drawing: Drawing }) => {
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

const LetGo = ({ letGo, drawing }: { letGo: readonly Held[]; drawing: Drawing }) => {
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
const Holding = ({ holds, drawing }: { holds: readonly Held[]; drawing: Drawing }) => {
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

/** What the numbers leave open, and which of them are said twice; as questions for the customer. */
const Standing = ({ standing, drawing }: { standing: NumbersStanding; drawing: Drawing }) => {
  const { act } = useSession();
  const light = useLight();
  const { open, follows } = standing;
  return (
    <>
      <Heading>Left open {open.length > 0 && <span className="figures">{open.length}</span>}</Heading>
      {open.length === 0 && <p className="px-3 py-1 text-soft">Nothing: the numbers tell all of it.</p>}
      <ul aria-label="Left open">
        {open.map((measure) => (
          <li
            key={`${measure.what} ${measure.ref.id} ${measure.ref.vertex}`}
            className="group flex items-center gap-2 px-3 py-0.5"
            {...light([measure.ref])}
          >
            <span className="min-w-0 flex-1">{openWords(drawing, measure)}</span>
            <button
              type="button"
              className={small}
              title="Writes it down as it is drawn; change it in the ledger"
              onMouseDown={keepFocus}
              onClick={() => act.callAsDrawn(measure)}
            >
              as drawn
            </button>
          </li>
        ))}
      </ul>
      {follows.length > 0 && (
        <>
          <Heading>Said twice</Heading>
          <ul aria-label="Said twice">
            {follows.map((one) => (
              <li key={one.callout} className="px-3 py-0.5 text-xs">
                {followsWords(drawing, one)}
              </li>
            ))}
          </ul>
        </>
      )}
      <CopyQuestions lines={act.questions()} />
    </>
  );
};
