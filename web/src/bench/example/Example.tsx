import { GraduationCap, X } from "lucide-react";
import { useMemo } from "react";
import { useNavigate } from "react-router";
import { REGISTRY } from "@ash-edge/tools";
import type { JobRecord } from "../../store/index.ts";
import { IconButton } from "../../ui/IconButton.tsx";
import { keyFor, type KeyMap } from "../keys.ts";
import { useBench, useSession } from "../SessionContext.tsx";
import { EXAMPLE } from "./due.ts";

/** The two keys that take a tool or an action, as the keys are set. */
const keysOf = (id: string, keys: KeyMap): string => {
  const { bank, place } = REGISTRY.find((one) => one.id === id)!;
  return [bank, place].map((key) => keyFor(key, keys).slice(3)).join(" ");
};

const button =
  "h-7 shrink-0 rounded-card border border-hair bg-panel px-2 hover:border-ink " +
  "disabled:opacity-50 disabled:hover:border-hair";

const Said = ({ text, keys }: { text: string; keys: string }) => {
  const [before, after] = text.split("{keys}") as [string, string?];
  if (after === undefined) return before;
  return (
    <>
      {before}
      <kbd className="figures rounded-card border border-hair bg-board px-1.5 py-0.5 font-semibold">{keys}</kbd>
      {after}
    </>
  );
};

/** What is said after the last step: by what is drawn, which can have been changed since. */
const DONE = {
  whole: "One closed contour and three holes. Prove holds every number of the sketch against them.",
  less: "All steps are done, but something of them is not there any more. Undo, go back, or begin again.",
} as const;

/** The worked example: one sentence a step, and the ways on, back and out. */
export const Example = ({ job }: { job: JobRecord }) => {
  const { act } = useSession();
  const navigate = useNavigate();
  const following = useBench((state) => state.following);
  const drawing = useBench((state) => state.history.drawing);
  const isWhole = useMemo(() => EXAMPLE.isWhole(drawing), [drawing]);
  const keys = useBench((state) => state.kept.keys);
  if (!following) return null;
  const at = following.starts.length - 1;
  const step = EXAMPLE.steps[at];
  // the board keeps the keys
  const ways = {
    type: "button",
    className: button,
    onMouseDown: (event: React.MouseEvent) => event.preventDefault(),
  } as const;
  return (
    <section
      role="region"
      aria-label="Worked example"
      className="card flex min-h-10 shrink-0 items-center gap-2 !border-moss py-1 pr-2 pl-3"
    >
      <GraduationCap size={18} className="shrink-0 text-moss" aria-hidden="true" />
      <span className="figures shrink-0 text-soft">{step ? `${at + 1}/${EXAMPLE.steps.length}` : "done"}</span>
      <p role="status" className="min-w-0 flex-1">
        {step ? <Said text={step.say} keys={keysOf(step.take, keys)} /> : DONE[isWhole ? "whole" : "less"]}
      </p>
      {step ? (
        <button {...ways} onClick={act.exampleDo}>
          Do it for me
        </button>
      ) : (
        <button {...ways} onClick={() => void navigate(`/jobs/${job.id}/prove`)}>
          Prove it
        </button>
      )}
      <button {...ways} disabled={at === 0} onClick={act.exampleBack}>
        Back
      </button>
      <button {...ways} disabled={at === 0} onClick={act.exampleAgain}>
        Begin again
      </button>
      <IconButton label="Leave the worked example" onClick={act.exampleLeave}>
        <X size={15} />
      </IconButton>
    </section>
  );
};
