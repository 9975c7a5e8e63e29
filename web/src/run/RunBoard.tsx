import { memo, useMemo } from "react";
import { PROCESSES, runAt, type CutterRun, type ProcessKind, type RunStep } from "@ash-edge/core/cutter";
import { piecesBounds, unionBounds, type Bounds } from "@ash-edge/core/geometry";
import { piecesPath } from "../store/index.ts";

/** More numbers than this would lie over one another. */
const NUMBERED = 300;
const TONES = { outside: "var(--ink)", inside: "var(--inside)", mark: "var(--mark)", tapped: "var(--moss)" } as const;
const USES = Object.keys(TONES) as (keyof typeof TONES)[];
const LINE = { vectorEffect: "non-scaling-stroke" as const };

/** A step's contour, and its way in, as path data. */
const pathOf = ({ pieces, leadIn }: RunStep): string => piecesPath(leadIn > 0 ? pieces.slice(1) : pieces, false);
const leadOf = ({ pieces, leadIn }: RunStep): string => (leadIn > 0 ? piecesPath(pieces.slice(0, 1), false) : "");

const boxOf = (steps: readonly RunStep[]): Bounds =>
  unionBounds(
    steps.map(({ pieces, pierce: { x, y } }) => piecesBounds(pieces) ?? { minX: x, minY: y, maxX: x, maxY: y }),
  ) ?? { minX: 0, minY: 0, maxX: 1, maxY: 1 };

/** The run on the bed: what is cut in which order, what is done, and where the cutter is. */
export const RunBoard = ({ run, kind, time }: { run: CutterRun; kind: ProcessKind; time: number }) => {
  const { steps } = run;
  const box = useMemo(() => boxOf(steps), [steps]);
  const size = Math.max(box.maxX, box.maxY, 1);
  const margin = 0.06 * size;
  const now = runAt(run, time, PROCESSES[kind]);
  return (
    <svg
      viewBox={`${-margin} ${-box.maxY - margin} ${box.maxX + 2 * margin} ${box.maxY + 2 * margin}`}
      className="h-full w-full"
      role="img"
      aria-label={`The run, at ${now.state}`}
    >
      <g transform="scale(1 -1)" fill="none">
        <path d={`M0 ${size}V0H${size}`} stroke="var(--hair)" {...LINE} strokeWidth={1.5} />
        <Plan steps={steps} />
        <Done steps={steps} count={now.step} />
        <circle cx={now.at.x} cy={now.at.y} r={0.014 * size} fill="var(--ember)" />
      </g>
      <Numbers steps={steps} size={size} />
    </svg>
  );
};

/** All that is to be cut, the ways in and between; the same as long as the run is. */
const Plan = memo(function Plan({ steps }: { steps: readonly RunStep[] }) {
  const travel = steps.map(({ from, pierce }) => `M${from.x} ${from.y}L${pierce.x} ${pierce.y}`).join("");
  return (
    <>
      <path d={travel} stroke="var(--soft)" {...LINE} strokeWidth={0.8} strokeDasharray="4 3" />
      {USES.map((use) => (
        <path
          key={use}
          d={steps.map((one) => (one.use === use ? pathOf(one) : "")).join("")}
          stroke={TONES[use]}
          opacity={0.45}
          {...LINE}
          strokeWidth={1.2}
        />
      ))}
      <path d={steps.map(leadOf).join("")} stroke="var(--ember)" {...LINE} strokeWidth={1.2} />
    </>
  );
});

/** What is cut already. */
const Done = memo(function Done({ steps, count }: { steps: readonly RunStep[]; count: number }) {
  return USES.map((use) => (
    <path
      key={use}
      d={steps
        .slice(0, count)
        .map((one) => (one.use === use ? pathOf(one) : ""))
        .join("")}
      stroke={TONES[use]}
      {...LINE}
      strokeWidth={2.6}
    />
  ));
});

/** In which order, at the places where each is pierced. */
const Numbers = memo(function Numbers({ steps, size }: { steps: readonly RunStep[]; size: number }) {
  return steps.slice(0, NUMBERED).map(({ pierce }, i) => (
    <text
      key={i}
      x={pierce.x}
      y={-pierce.y}
      dx={0.008 * size}
      dy={-0.008 * size}
      fontSize={0.021 * size}
      fill="var(--ink)"
      className="figures"
    >
      {i + 1}
    </text>
  ));
});
