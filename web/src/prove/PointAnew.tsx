import { useEffect } from "react";
import { calloutText, measureCallout, stateText } from "@ash-edge/core/callouts";
import { unitOf, type Callout, type Drawing, type Ref } from "@ash-edge/core/drawing";

const counted = (n: number): string => (n === 0 ? "nothing yet" : n === 1 ? "one thing" : `${n} things`);

/** Says what is pointed at for a callout and how it would stand; the drawing under it is clicked. */
export const PointAnew = ({
  drawing,
  callout,
  refs,
  missed,
  onTake,
  onLeave,
}: {
  drawing: Drawing;
  callout: Callout;
  refs: readonly Ref[];
  /** The last click hit nothing that would do. */
  missed: boolean;
  onTake: () => void;
  onLeave: () => void;
}) => {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === "Escape") onLeave();
      if (event.key === "Enter" && refs.length > 0 && !(event.target instanceof HTMLButtonElement)) onTake();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [onLeave, onTake, refs]);
  const text = `${calloutText(callout, unitOf(drawing))} ${callout.name}`.trim();
  const state = measureCallout(drawing, { ...callout, links: refs });
  const button = "h-7 rounded-card border border-hair px-2 disabled:opacity-50";
  return (
    <section className="card shrink-0 px-3 py-2" aria-label={`Point ${text} at`}>
      <p>
        Click what <b className="figures">{text}</b> speaks of: <span role="status">{counted(refs.length)}</span>
        {refs.length > 0 && `, ${state.state === "not placed" ? "not all of it" : stateText(state, callout)}`}.
      </p>
      {missed && (
        <p role="alert" className="text-fault">
          Nothing there that it could speak of. {WANTED[callout.kind]}
        </p>
      )}
      <div className="mt-1.5 flex gap-2">
        <button
          type="button"
          className={`${button} bg-ember font-semibold text-panel`}
          disabled={refs.length === 0}
          onClick={onTake}
        >
          Take it
        </button>
        <button type="button" className={button} onClick={onLeave}>
          Leave it as it was
        </button>
      </div>
    </section>
  );
};

const ROUND = "A circle or an arc would do.";
const BETWEEN = "An edge, or two ends, centres or edges would do.";
const WANTED: Readonly<Record<Callout["kind"], string>> = {
  radius: ROUND,
  diameter: ROUND,
  thread: ROUND,
  length: BETWEEN,
  centres: BETWEEN,
  angle: BETWEEN,
  count: "Anything that is counted would do.",
  chamfer: "The short edge of a cut corner would do.",
};
