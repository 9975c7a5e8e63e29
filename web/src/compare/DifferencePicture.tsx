import { useId, useState } from "react";
import { Segmented } from "../ui/Choice.tsx";
import type { Compared } from "./compare.worker.ts";

const WAYS = [
  ["over", "over one another"],
  ["swipe", "swiped"],
] as const;

/** Two drawings over one another, what differs in colour; or one to either side of a line that is pulled across. */
export const DifferencePicture = ({ compared }: { compared: Compared | undefined }) => {
  const [way, setWay] = useState<"over" | "swipe">("over");
  const [part, setPart] = useState(50);
  const clip = useId();
  if (!compared?.box)
    return (
      <section className="card grid place-items-center" aria-label="Drawings">
        <p className="text-soft">{compared ? "Nothing is drawn in either." : "Not compared yet."}</p>
      </section>
    );
  const { before, after, came, went, moved } = compared;
  const [x, y, width, height] = compared.box;
  const margin = 0.05 * Math.max(width, height, 1e-9);
  const [left, low, wide, high] = [x - margin, -y - height - margin, width + 2 * margin, height + 2 * margin];
  const stroke = { vectorEffect: "non-scaling-stroke" as const, strokeWidth: 1.4 };
  const all = (one: typeof before): string => (one ? one.outside + one.inside + one.open + (one.marks ?? "") : "");
  const cut = left + (wide * part) / 100;
  return (
    <section className="card flex min-h-0 flex-col overflow-hidden" aria-label="Drawings">
      <header className="flex items-center gap-4 px-3 py-2">
        <Segmented label="Shown" options={WAYS} value={way} onChange={(to) => setWay(to as typeof way)} />
        {way === "over" ? (
          <span className="flex gap-4 text-soft">
            <Key colour="var(--ink)">the same</Key>
            <Key colour="var(--moss)">came</Key>
            <Key colour="var(--ember)" dashed>
              went
            </Key>
          </span>
        ) : (
          <label className="flex flex-1 items-center gap-2 text-soft">
            before
            <input
              type="range"
              aria-label="Where before ends and after begins"
              min={0}
              max={100}
              value={part}
              className="min-w-0 flex-1 accent-[var(--ember)]"
              onChange={(event) => setPart(Number(event.target.value))}
            />
            after
          </label>
        )}
      </header>
      <svg
        viewBox={`${left} ${low} ${wide} ${high}`}
        className="min-h-0 w-full flex-1 border-t border-hair bg-board"
        role="img"
        aria-label={way === "over" ? "Both drawings, what differs in colour" : "Before to the left, after to the right"}
      >
        {way === "swipe" ? (
          <>
            <clipPath id={`${clip}before`}>
              <rect x={left} y={low} width={cut - left} height={high} />
            </clipPath>
            <clipPath id={`${clip}after`}>
              <rect x={cut} y={low} width={left + wide - cut} height={high} />
            </clipPath>
            {[before, after].map((one, i) => (
              <g key={i} clipPath={`url(#${clip}${i === 0 ? "before" : "after"})`}>
                <g transform="scale(1 -1)" fill="none">
                  {one && <path d={one.outside + one.inside} fill="var(--ink)" fillOpacity={0.06} fillRule="evenodd" />}
                  <path d={all(one)} stroke={i === 0 ? "var(--ember)" : "var(--ink)"} {...stroke} />
                </g>
              </g>
            ))}
            <path d={`M${cut} ${low}v${high}`} stroke="var(--soft)" {...stroke} />
          </>
        ) : (
          <g transform="scale(1 -1)" fill="none">
            {after && <path d={after.outside + after.inside} fill="var(--ink)" fillOpacity={0.06} fillRule="evenodd" />}
            <path d={all(after)} stroke="var(--ink)" {...stroke} />
            <path d={went} stroke="var(--ember)" {...stroke} strokeWidth={2.5} strokeDasharray="6 4" />
            <path d={came + moved} stroke="var(--moss)" {...stroke} strokeWidth={3} />
          </g>
        )}
      </svg>
    </section>
  );
};

const Key = ({ colour, dashed, children }: { colour: string; dashed?: boolean; children: string }) => (
  <span className="inline-flex items-center gap-1.5">
    <svg width="22" height="8" aria-hidden="true">
      <path d="M1 4H21" stroke={colour} strokeWidth="2.5" strokeDasharray={dashed ? "6 4" : undefined} />
    </svg>
    {children}
  </span>
);
