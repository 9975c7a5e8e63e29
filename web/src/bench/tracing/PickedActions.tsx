import { X } from "lucide-react";
import type { Picture } from "@ash-edge/core/drawing";
import type { Unit } from "@ash-edge/core/numeric";
import { holdsOf, kindOf, type Group, type Hold, type Kind, type Proposals } from "@ash-edge/core/picture/trace";
import { keepFocus, small } from "../numbers/parts.tsx";
import { useSession } from "../SessionContext.tsx";
import { proposalWords } from "./words.ts";

const GROUP_NAMES: readonly (readonly [Group, string])[] = [
  ["outline", "Outline"],
  ["thin", "Thin"],
  ["doubtful", "Doubtful"],
];
const KINDS: readonly Kind[] = ["line", "arc", "circle"];
const HOLD_WORDS: Readonly<Record<Hold["kind"], string>> = {
  level: "level",
  upright: "upright",
  touches: "touches",
  "one centre": "one centre with",
  equal: "as large as",
};

type Props = {
  readonly proposed: Proposals;
  readonly picked: readonly number[];
  readonly splitting: boolean;
  readonly picture: Picture;
  readonly unit: Unit;
};

/** What can be done with the proposals that are picked. */
export const PickedActions = ({ proposed, picked, splitting, picture, unit }: Props) => {
  const { act } = useSession();
  const those = picked.flatMap((id) => proposed.find((one) => one.id === id) ?? []);
  const [one, other] = those;
  if (!one) return null;
  const groups = new Set(those.map(({ group }) => group));
  return (
    <div role="group" aria-label="What is picked" className="flex flex-wrap items-center gap-1.5">
      <Action
        first
        words={`Accept ${those.length}`}
        why="Enter does it, too"
        onClick={() => act.acceptTraced(picked)}
      />
      <Action words="Reject" why="Not proposed any more" onClick={() => act.rejectTraced(picked)} />
      {GROUP_NAMES.filter(([group]) => !(groups.size === 1 && groups.has(group))).map(([group, name]) => (
        <Action
          key={group}
          words={`to ${name}`}
          why={`Put into ${name}`}
          onClick={() => act.moveTraced(picked, group)}
        />
      ))}
      {those.length === 1 && (
        <>
          {KINDS.filter((kind) => kind !== kindOf(one)).map((kind) => (
            <Action
              key={kind}
              words={`as ${kind}`}
              why={`The ${kind} nearest to its ink`}
              onClick={() => act.tracedAs(kind)}
            />
          ))}
          {one.shape.kind === "piece" && (
            <Action
              words={splitting ? "click where to split" : "Split"}
              why="In two, where you click it"
              pressed={splitting}
              onClick={() => act.splitTraced(!splitting)}
            />
          )}
        </>
      )}
      {those.length === 2 && other && (
        <>
          <Action words="Merge" why="One piece through the ink of both" onClick={act.mergeTraced} />
          <Action words="To a corner" why="Both run to where they meet" onClick={act.cornerTraced} />
          <Action
            words="Touch"
            why="The one picked first is made to touch the other, tangent to it"
            onClick={act.touchTraced}
          />
        </>
      )}
      {those.length === 1 && <Holds {...{ proposed, picture, unit }} one={one} />}
    </div>
  );
};

/** A button of the panel; the first is what a drafter most likely wants. */
export const Action = ({
  words,
  why,
  first = false,
  pressed,
  onClick,
}: {
  words: string;
  why: string;
  first?: boolean;
  pressed?: boolean;
  onClick: () => void;
}) => (
  <button
    type="button"
    className={first ? "h-7 rounded-card bg-ember px-2 font-semibold text-panel" : small}
    title={why}
    {...(pressed === undefined ? {} : { "aria-pressed": pressed })}
    onMouseDown={keepFocus}
    onClick={onClick}
  >
    {words}
  </button>
);

/** What was found to hold at one, each of which can be let go. */
const Holds = ({
  proposed,
  one,
  picture,
  unit,
}: Pick<Props, "proposed" | "picture" | "unit"> & { one: Proposals[number] }) => {
  const { act } = useSession();
  const holds = holdsOf(proposed, one);
  if (holds.length === 0) return null;
  return (
    <ul aria-label="What holds" className="flex basis-full flex-wrap gap-1">
      {holds.map((hold, k) => {
        const other = "other" in hold ? proposed.find(({ id }) => id === hold.other) : undefined;
        const words = `${HOLD_WORDS[hold.kind]}${other ? ` ${proposalWords(picture, other, unit)}` : ""}`;
        return (
          <li key={k} className="flex items-center rounded-card border border-moss text-xs text-moss">
            <span className="figures px-1.5">{words}</span>
            <button
              type="button"
              className="grid h-6 w-5 place-items-center hover:text-ink"
              aria-label={`Let go: ${words}`}
              title="It need not hold: fitted to its ink alone"
              onMouseDown={keepFocus}
              onClick={() => act.letGoTraced(one.id, hold)}
            >
              <X size={12} aria-hidden="true" />
            </button>
          </li>
        );
      })}
    </ul>
  );
};
