import type { Drawing } from "@ash-edge/core/drawing";
import { followsWords, nothingOpenWords, openWords } from "@ash-edge/core/say";
import type { NumbersStanding } from "@ash-edge/core/solve";
import { CopyQuestions } from "../../ui/CopyQuestions.tsx";
import { useSession } from "../SessionContext.tsx";
import { Heading, keepFocus, small, useLight } from "./parts.tsx";

/** So many are listed: what nothing calls at all is open from end to end. */
const MOST_LISTED = 30;

/** What the numbers leave open, and which of them are said twice; as questions for the customer. */
export const Standing = ({ standing, drawing }: { standing: NumbersStanding; drawing: Drawing }) => {
  const { act } = useSession();
  const light = useLight();
  const { open, follows, rough, unseen } = standing;
  if (rough)
    return (
      <>
        <Heading>Left open</Heading>
        <p className="px-3 py-1 text-soft">It is not exact yet: that is told once its numbers are true.</p>
      </>
    );
  return (
    <>
      <Heading>Left open {open.length > 0 && <span className="figures">{open.length}</span>}</Heading>
      {open.length === 0 && <p className="px-3 py-1 text-soft">{nothingOpenWords(unseen)}</p>}
      <ul aria-label="Left open">
        {open.slice(0, MOST_LISTED).map((measure) => (
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
      {open.length > MOST_LISTED && <p className="px-3 py-0.5 text-soft">and {open.length - MOST_LISTED} more</p>}
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
