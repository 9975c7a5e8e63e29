import { Check, X } from "lucide-react";
import { unitOf, type Picture } from "@ash-edge/core/drawing";
import { refuse, type Unit } from "@ash-edge/core/numeric";
import { type Group, type Proposal } from "@ash-edge/core/picture/trace";
import { sayRefusal } from "@ash-edge/core/say";
import { keepFocus, small } from "../numbers/parts.tsx";
import { PanelHead } from "../PanelHead.tsx";
import { useBench, useSession } from "../SessionContext.tsx";
import { proposedIn, tracedPicture } from "../state/index.ts";
import { Action, PickedActions } from "./PickedActions.tsx";
import { offWords, proposalWords } from "./words.ts";

const GROUPS: readonly (readonly [group: Group, name: string, why: string])[] = [
  ["outline", "Outline", "what is cut"],
  ["thin", "Thin", "centre and dimension lines: accepted as layout"],
  ["doubtful", "Doubtful", "neither plainly"],
];
/** So many are listed of a group. */
const MOST_LISTED = 40;
const icon = "grid h-6 w-6 shrink-0 place-items-center rounded-card text-soft hover:text-ink";

/** What a picture's strokes may be meant to be, in three groups, to be accepted or not. */
export const Traced = () => {
  const { act } = useSession();
  const tracing = useBench((state) => state.tracing);
  const history = useBench((state) => state.history);
  if (!tracing) return null;
  const { part, found, failed, picked, shown, before, splitting } = tracing;
  const { drawing } = history;
  const picture = tracedPicture(tracing, drawing);
  const proposed = proposedIn(tracing, history);
  const outline = proposed.filter(({ group }) => group === "outline").map(({ id }) => id);
  return (
    <section
      data-region="Traced"
      tabIndex={-1}
      role="region"
      aria-label="Traced"
      className="card flex h-full flex-col overflow-hidden"
      onMouseLeave={() => act.lightTraced(undefined)}
    >
      <PanelHead title="Trace the picture" onClose={act.closeTracing} />
      {part !== undefined && (
        <div className="flex items-center gap-2 border-t border-hair px-3 py-1.5">
          <progress
            value={part}
            className="h-2 min-w-0 flex-1 accent-[var(--ember)]"
            aria-label="Following the strokes"
          />
          <button type="button" className={small} onClick={act.stopTracing}>
            Stop
          </button>
        </div>
      )}
      {failed !== undefined && (
        <p role="alert" className="border-t border-hair px-3 py-2 text-caution">
          <b>Nothing was traced.</b> {failed}{" "}
          <button type="button" className={small} onClick={act.traceAnew}>
            Again
          </button>
        </p>
      )}
      {!picture && (
        <p role="alert" className="border-t border-hair px-3 py-2 text-caution">
          {sayRefusal(refuse("picture-gone").refusal, unitOf(drawing))}
        </p>
      )}
      {picture && found && part === undefined && (
        <div className="flex flex-wrap items-center gap-2 border-t border-hair px-3 py-1.5">
          {picked.length > 0 ? (
            <PickedActions {...{ proposed, picked, splitting, picture }} unit={unitOf(drawing)} />
          ) : (
            outline.length > 0 && (
              <Action
                first
                words={`Accept the outline ${outline.length}`}
                why="Enter does it, too"
                onClick={() => act.acceptTraced(outline)}
              />
            )
          )}
          {before.length > 0 && (
            <Action
              words="Take back"
              why="The last change of what is proposed; Ctrl+Z does it, too"
              onClick={act.takeBackTraced}
            />
          )}
          <Action words="Only in sight" why="Look at this part alone, from the beginning" onClick={act.traceInSight} />
          <Action words="Anew" why="Look at the whole picture, from the beginning" onClick={act.traceAnew} />
          {found.lettering.length > 0 && (
            <Action
              words={`Write its ${found.lettering.length} words`}
              why="Callouts written in the ledger are pinned where words stand, one after the other"
              onClick={act.nextWord}
            />
          )}
          <p className="basis-full text-xs text-soft">
            A click or a box picks, Shift all that hangs together. A dot where two meet can be pulled. Sizes come from
            callouts.{picture.from === undefined && " Askew? Straighten the photo first."}
          </p>
        </div>
      )}
      <div className="min-h-0 flex-1 overflow-y-auto">
        {picture &&
          found &&
          part === undefined &&
          GROUPS.map(([group, name, why]) => (
            <Listed
              key={group}
              {...{ group, name, why, picture, picked }}
              proposed={proposed.filter((one) => one.group === group)}
              isShown={shown.has(group)}
              unit={unitOf(drawing)}
            />
          ))}
      </div>
    </section>
  );
};

const Listed = ({
  group,
  name,
  why,
  proposed,
  isShown,
  picture,
  picked,
  unit,
}: {
  group: Group;
  name: string;
  why: string;
  proposed: readonly Proposal[];
  isShown: boolean;
  picture: Picture;
  picked: readonly number[];
  unit: Unit;
}) => {
  const { act } = useSession();
  return (
    <>
      <h3 className="flex items-center gap-2 border-t border-hair bg-board px-3 py-1 text-xs font-normal text-soft">
        <label className="flex min-w-0 flex-1 items-center gap-1.5" title={why}>
          <input
            type="checkbox"
            checked={isShown}
            onChange={(event) => act.showTraced(group, event.target.checked)}
            aria-label={`Show ${name.toLowerCase()}`}
          />
          {name} <span className="figures">{proposed.length}</span>
        </label>
        {proposed.length > 0 && group !== "outline" && (
          <button
            type="button"
            className={small}
            onMouseDown={keepFocus}
            onClick={() => act.acceptTraced(proposed.map(({ id }) => id))}
          >
            Accept all {proposed.length}
          </button>
        )}
      </h3>
      {isShown && (
        <ul aria-label={name}>
          {proposed.slice(0, MOST_LISTED).map((one) => (
            <li
              key={one.id}
              className={`flex items-center gap-1 border-t border-hair px-3 py-0.5 ${
                picked.includes(one.id) ? "bg-board font-semibold" : ""
              }`}
              onMouseEnter={() => act.lightTraced(one.id)}
            >
              <button
                type="button"
                className="figures min-w-0 flex-1 truncate text-left text-xs"
                aria-pressed={picked.includes(one.id)}
                title="Pick it"
                onMouseDown={keepFocus}
                onClick={() => act.toggleTraced([one.id])}
              >
                {proposalWords(picture, one, unit)}
              </button>
              <span
                className="figures shrink-0 text-xs text-soft"
                title="how far its ink lies off it, but for a twentieth of it"
              >
                {offWords(picture, one, unit)}
              </span>
              <button
                type="button"
                className={icon}
                aria-label={`Accept ${proposalWords(picture, one, unit)}`}
                title="Accept it"
                onMouseDown={keepFocus}
                onClick={() => act.acceptTraced([one.id])}
              >
                <Check size={13} aria-hidden="true" />
              </button>
              <button
                type="button"
                className={icon}
                aria-label={`Reject ${proposalWords(picture, one, unit)}`}
                title="Reject it"
                onMouseDown={keepFocus}
                onClick={() => act.rejectTraced([one.id])}
              >
                <X size={13} aria-hidden="true" />
              </button>
            </li>
          ))}
          {proposed.length > MOST_LISTED && (
            <li className="px-3 py-0.5 text-xs text-soft">and {proposed.length - MOST_LISTED} more</li>
          )}
        </ul>
      )}
    </>
  );
};
