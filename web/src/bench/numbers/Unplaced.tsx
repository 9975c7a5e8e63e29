import { useState } from "react";
import type { Drawing } from "@ash-edge/core/drawing";
import { describeRef } from "@ash-edge/core/look";
import type { Id } from "@ash-edge/core/numeric";
import { calloutName } from "@ash-edge/core/say";
import type { Answer, LinkProposal } from "@ash-edge/core/solve";
import { useSession } from "../SessionContext.tsx";
import { Heading, keepFocus, small, useLight } from "./parts.tsx";

const WAYS = { x: ", level", y: ", upright" };

/** Callouts that are not placed: where they plainly belong, to be put there at once; else which they may be. */
export const Unplaced = ({ proposed, drawing }: { proposed: readonly LinkProposal[]; drawing: Drawing }) => {
  const { act } = useSession();
  const light = useLight();
  const [left, setLeft] = useState<ReadonlySet<Id>>(new Set());
  const plain = proposed.flatMap(({ callout, is }) => (is ? [{ callout, ...is }] : []));
  const doubtful = proposed.filter(({ is, among }) => !is && among.length > 0);
  if (plain.length + doubtful.length === 0) return null;
  const taken = plain.filter(({ callout }) => !left.has(callout));
  const namesOf = ({ links, axis }: Answer): string => {
    const names = links.map(({ place: _, ...ref }) => describeRef(drawing, ref));
    const count = (name: string): number => names.filter((one) => one === name).length;
    return (
      [...new Set(names)].map((name) => (count(name) > 1 ? `${count(name)} × ${name}` : name)).join(", ") +
      (axis ? WAYS[axis] : "")
    );
  };
  return (
    <>
      <Heading>
        Not placed <span className="figures">{plain.length + doubtful.length}</span>
      </Heading>
      <ul aria-label="Where they belong">
        {plain.map(({ callout, ...answer }) => (
          <li key={callout} className="px-3 py-0.5" {...light(answer.links)}>
            <label className="flex items-baseline gap-2">
              <input
                type="checkbox"
                checked={!left.has(callout)}
                onChange={({ target }) => {
                  const next = new Set(left);
                  if (target.checked) next.delete(callout);
                  else next.add(callout);
                  setLeft(next);
                }}
              />
              <span className="min-w-0 flex-1">
                <b className="figures">{calloutName(drawing, callout)}</b>{" "}
                <span className="text-xs text-soft">is {namesOf(answer)}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
      {taken.length > 0 && (
        <div className="px-3 py-1">
          <button
            type="button"
            className="h-7 rounded-card border border-hair px-2 hover:border-ink"
            onMouseDown={keepFocus}
            onClick={() => void act.linkThese(taken)}
          >
            {taken.length === 1 ? "Place it" : `Place these ${taken.length}`}
          </button>
        </div>
      )}
      <ul aria-label="Which is it">
        {doubtful.map(({ callout, among }) => (
          <li key={callout} className="px-3 py-0.5">
            Which is <b className="figures">{calloutName(drawing, callout)}</b>?
            <span className="mt-0.5 flex flex-wrap gap-1">
              {among.map((answer) => (
                <button
                  key={JSON.stringify(answer)}
                  type="button"
                  className={small}
                  {...light(answer.links)}
                  onMouseDown={keepFocus}
                  onClick={() => void act.linkThese([{ callout, ...answer }])}
                >
                  {namesOf(answer)}
                </button>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
};
