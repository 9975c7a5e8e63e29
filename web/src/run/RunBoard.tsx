import { useMemo } from "react";
import { PROCESSES, runAt, type CutterRun, type ProcessKind } from "@ash-edge/core/cutter";
import { piecesBounds, unionBounds } from "@ash-edge/core/geometry";
import { piecesPath } from "../store/index.ts";

/** More numbers than this would lie over one another. */
const NUMBERED = 300;
const TONES = { outside: "var(--ink)", inside: "var(--inside)", mark: "var(--mark)", tapped: "var(--moss)" } as const;

/** The run on the bed: what is cut in which order, what is done, and where the cutter is. */
export const RunBoard = ({ run, kind, time }: { run: CutterRun; kind: ProcessKind; time: number }) => {
  const { steps } = run;
  const drawn = useMemo(
    () =>
      steps.map(({ pieces, pierce, from, use, leadIn }, i) => ({
        path: piecesPath(leadIn > 0 ? pieces.slice(1) : pieces, false),
        lead: leadIn > 0 ? piecesPath(pieces.slice(0, 1), false) : "",
        travel: `M${from.x} ${from.y}L${pierce.x} ${pierce.y}`,
        pierce,
        tone: TONES[use],
        number: i + 1,
      })),
    [steps],
  );
  const box = useMemo(
    () =>
      unionBounds(
        steps.map(({ pieces, pierce: { x, y } }) => piecesBounds(pieces) ?? { minX: x, minY: y, maxX: x, maxY: y }),
      ) ?? { minX: 0, minY: 0, maxX: 1, maxY: 1 },
    [steps],
  );
  const size = Math.max(box.maxX, box.maxY, 1);
  const margin = 0.06 * size;
  const now = runAt(run, time, PROCESSES[kind]);
  const line = { vectorEffect: "non-scaling-stroke" as const };
  return (
    <svg
      viewBox={`${-margin} ${-box.maxY - margin} ${box.maxX + 2 * margin} ${box.maxY + 2 * margin}`}
      className="h-full w-full"
      role="img"
      aria-label={`The run, at ${now.state}`}
    >
      <g transform="scale(1 -1)" fill="none">
        <path d={`M0 ${size}V0H${size}`} stroke="var(--hair)" {...line} strokeWidth={1.5} />
        {drawn.map(({ travel, number }) => (
          <path key={number} d={travel} stroke="var(--soft)" {...line} strokeWidth={0.8} strokeDasharray="4 3" />
        ))}
        {drawn.map(({ path, lead, tone, number }) => {
          const isDone = number <= now.step;
          return (
            <g key={number} opacity={isDone ? 1 : 0.45}>
              <path d={path} stroke={tone} {...line} strokeWidth={isDone ? 2.6 : 1.2} />
              {lead && <path d={lead} stroke="var(--ember)" {...line} strokeWidth={1.2} />}
            </g>
          );
        })}
        <circle cx={now.at.x} cy={now.at.y} r={0.014 * size} fill="var(--ember)" />
      </g>
      {drawn.slice(0, NUMBERED).map(({ pierce, number }) => (
        <text
          key={number}
          x={pierce.x}
          y={-pierce.y}
          dx={0.008 * size}
          dy={-0.008 * size}
          fontSize={0.021 * size}
          fill="var(--ink)"
          className="figures"
        >
          {number}
        </text>
      ))}
    </svg>
  );
};
