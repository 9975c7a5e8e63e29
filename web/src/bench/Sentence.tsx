import { X } from "lucide-react";
import { Fragment, useEffect, useRef } from "react";
import { toolById } from "@ash-edge/tools";
import { Segmented } from "../ui/Choice.tsx";
import { NextStep } from "./NextStep.tsx";
import { Hint, PartView } from "./SentenceParts.tsx";
import { useBench, useSession } from "./SessionContext.tsx";

/** The line by which the active tool is steered. */
export const Sentence = () => {
  const { act } = useSession();
  const inHand = useBench((state) => state.hand.grabbed !== undefined);
  // what a handle offers stands beside it
  const steering = toolById(useBench((state) => state.hand.toolId));
  const tool = inHand ? undefined : steering;
  const line = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = line.current!;
    const observer = new ResizeObserver(() =>
      document.documentElement.style.setProperty("--sentence-over", `${Math.max(0, element.offsetHeight - 48)}px`),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return (
    <section
      data-region="Sentence"
      data-steer
      tabIndex={-1}
      role="group"
      aria-label={tool?.name ?? "Select"}
      className="relative z-20 h-12 shrink-0"
    >
      {/* a long sentence runs on over the top of the board: nothing moves under the pointer */}
      <div
        ref={line}
        className={
          "card absolute inset-x-0 top-0 flex min-h-12 flex-wrap items-center gap-x-2 gap-y-1.5 py-1.5 " +
          `pl-3 ${tool ? "pr-12" : "pr-3"}`
        }
      >
        {tool ? (
          <>
            <b className="mr-1 shrink-0 text-[15px] whitespace-nowrap text-ember">{tool.name}</b>
            {tool.parts.map((part, i) => (
              <Fragment key={i}>
                <PartView tool={tool} part={part} />
              </Fragment>
            ))}
          </>
        ) : (
          <>
            <b className="mr-1 text-[15px]">Select</b>
            <SelectParts />
          </>
        )}
        <span className="min-w-2 flex-1" />
        <Hint />
        {tool && (
          <button
            type="button"
            aria-label="Put the tool down"
            title="Put the tool down (Esc)"
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => {
              act.toolEvent({ type: "release" });
              act.escape();
            }}
            className={
              "absolute top-2.5 right-3 grid h-7 w-7 place-items-center rounded-card text-soft " +
              "hover:bg-ground hover:text-ink"
            }
          >
            <X size={15} aria-hidden="true" />
          </button>
        )}
      </div>
    </section>
  );
};

/** With no tool active: what a click takes, and what a box takes. */
const SelectParts = () => {
  const { act } = useSession();
  const { how, box } = useBench((state) => state.kept.selecting);
  return (
    <>
      <Segmented
        label="a click takes"
        options={[
          ["one", "one"],
          ["run", "whole chain"],
          ["kind", "same kind"],
          ["size", "same size"],
          ["layer", "same layer"],
          ["inside", "inside it"],
        ]}
        value={how}
        onChange={(to) => act.setSelecting({ how: to as typeof how })}
      />
      <span className="shrink-0 text-[15px]">· box</span>
      <Segmented
        label="a box takes"
        options={[
          ["encloses", "encloses"],
          ["touches", "touches"],
        ]}
        value={box}
        onChange={(to) => act.setSelecting({ box: to as typeof box })}
      />
      <NextStep />
    </>
  );
};
