import { CircleCheck, X } from "lucide-react";
import { measureCallout } from "@ash-edge/core/callouts";
import { calloutsOff } from "@ash-edge/core/checks";
import { calloutsOf, cutEntities, unitOf, type Callout, type Drawing } from "@ash-edge/core/drawing";
import { derivedNumber, showAngle, showLength, type Id } from "@ash-edge/core/numeric";
import { calloutName } from "@ash-edge/core/say";
import { PanelHead } from "../PanelHead.tsx";
import { useBench, useSession } from "../SessionContext.tsx";
import { Holding, LetGo, Staying } from "./Holding.tsx";
import { keepFocus, small, useLight } from "./parts.tsx";
import { Standing } from "./Standing.tsx";
import { Unplaced } from "./Unplaced.tsx";
import { Refused, Would } from "./Would.tsx";

/** Numbers made true: what is asked, what it would move, what holds, what they leave open. */
export const Numbers = () => {
  const { act } = useSession();
  const numbers = useBench((state) => state.numbers);
  const drawing = useBench((state) => state.history.drawing);
  if (!numbers) return null;
  const { asked, busy, found, failed, letGo, of } = numbers;
  const look = found?.look;
  const isNow = of === drawing;
  const isDrawn = cutEntities(drawing).length > 0;
  return (
    <section
      data-region="Numbers"
      tabIndex={-1}
      role="region"
      aria-label="Numbers"
      className="card flex h-full flex-col overflow-hidden"
      onMouseLeave={() => act.light([])}
    >
      <PanelHead title="Make true" onClose={act.closeNumbers} />
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
        {isNow && found && (
          <>
            <Unplaced proposed={found.proposed} drawing={drawing} />
            {isDrawn && <Standing standing={found.standing} drawing={drawing} />}
          </>
        )}
      </div>
    </section>
  );
};

const measured = ({ kind }: Callout, value: number, drawing: Drawing): string =>
  kind === "angle" ? showAngle(derivedNumber(value)) : showLength(derivedNumber(value), unitOf(drawing));

/** Which numbers are asked, each with what is drawn. */
const Asked = ({ asked, drawing }: { asked: readonly Id[]; drawing: Drawing }) => {
  const { act } = useSession();
  const light = useLight();
  const off = calloutsOff(drawing);
  const isPlaced = calloutsOf(drawing).some(({ links }) => links.length > 0);
  if (asked.length === 0 && !isPlaced)
    return <p className="border-t border-hair px-3 py-2 text-soft">No number is placed yet.</p>;
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
            <span className="figures min-w-0 flex-1 truncate font-semibold" title={calloutName(drawing, callout.id)}>
              {calloutName(drawing, callout.id)}
            </span>
            <span className="figures shrink-0 text-right text-xs text-soft">{drawn}</span>
            {asked.length > 1 && (
              <button
                type="button"
                aria-label={`Leave out ${calloutName(drawing, callout.id)}`}
                title="Leave it out"
                className="grid h-6 w-6 shrink-0 place-items-center rounded-card text-soft hover:text-ink"
                onMouseDown={keepFocus}
                onClick={() => act.askTrue(asked.filter((id) => id !== callout.id))}
              >
                <X size={13} aria-hidden="true" />
              </button>
            )}
          </li>
        );
      })}
    </ul>
  );
};
