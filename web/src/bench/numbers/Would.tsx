import { unitOf, type Drawing } from "@ash-edge/core/drawing";
import { showLength, type Id } from "@ash-edge/core/numeric";
import { calloutName, movesWords, oddsWords, relationWords, sayRefusal } from "@ash-edge/core/say";
import type { TrueLook } from "@ash-edge/core/solve";
import { useBench, useSession } from "../SessionContext.tsx";
import { focusBoard } from "../useBenchKeys.ts";
import { keepFocus, small, useLight } from "./parts.tsx";

/** What would move, and the button that takes it. */
export const Would = ({ look, drawing }: { look: TrueLook & { ok: true }; drawing: Drawing }) => {
  const { act } = useSession();
  const light = useLight();
  const gives = look.letGo.filter(({ kind }) => kind !== "size");
  return (
    <div className="border-t border-hair">
      <p role="status" aria-label="What would move" className="px-3 py-1.5">
        {movesWords(look.moves)}.
      </p>
      <Taken rough={look.rough} />
      {look.lost.length > 0 && (
        <p className="px-3 pb-1.5 text-caution">
          Would hold no more: <b className="figures">{look.lost.map((id) => calloutName(drawing, id)).join(", ")}</b>
        </p>
      )}
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

/** What the drawing is taken for, and the way to say otherwise: a taper must not be made level unasked. */
const Taken = ({ rough }: { rough: boolean }) => {
  const { act } = useSession();
  const asDrawn = useBench((state) => state.numbers?.asDrawn) ?? false;
  if (!rough && !asDrawn) return null;
  return (
    <p className="flex items-center gap-2 px-3 pb-1.5 text-xs text-soft">
      <span className="flex-1">
        {asDrawn ? "Taken as it is drawn." : "It is not exact yet: what is nearly level, tangent or alike comes to be."}
      </span>
      <button type="button" className={small} onMouseDown={keepFocus} onClick={() => act.takeAsDrawn(!asDrawn)}>
        {asDrawn ? "as it is meant" : "as it is drawn"}
      </button>
    </p>
  );
};

/** Why it can't be, what fights, and how far it goes. */
export const Refused = ({
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
      {/* what it was taken for may be why */}
      <Taken rough={look.rough} />
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
