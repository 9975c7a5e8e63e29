import type { ReactNode } from "react";
import type { FoundLine } from "@ash-edge/core/callouts";

/** A message's words with the numbers marked that would be callouts. */
export const MarkedText = ({ text, found }: { text: string; found: readonly FoundLine[] }) => {
  const parts: ReactNode[] = [];
  let end = 0;
  for (const { from, to } of found) {
    parts.push(text.slice(end, from));
    parts.push(
      <mark key={from} className="rounded-sm bg-ember-wash px-0.5 text-ink">
        {text.slice(from, to)}
      </mark>,
    );
    end = to;
  }
  return [...parts, text.slice(end)];
};
