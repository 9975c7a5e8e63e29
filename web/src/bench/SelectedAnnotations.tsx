import { Trash2 } from "lucide-react";
import { useState } from "react";
import { LOST_WORDS, measureAnnotation } from "@ash-edge/core/annotate";
import { calloutText, standingAt, stateText } from "@ash-edge/core/callouts";
import { calloutsOf, unitOf, type Annotation, type AnnotationKind, type Drawing } from "@ash-edge/core/drawing";
import { showAngle, showLengthUnit } from "@ash-edge/core/numeric";
import { describeThing } from "./annotated.ts";
import { useBench, useSession } from "./SessionContext.tsx";
import { focusBoard } from "./useBenchKeys.ts";

/** The tool that makes each kind, and puts one that is lost on something again. */
const MADE_BY: Readonly<Record<AnnotationKind, string>> = {
  linear: "dimension",
  angle: "angle-dimension",
  radius: "size-dimension",
  diameter: "size-dimension",
  "arc length": "arc-length",
  ordinate: "ordinate",
  note: "note",
  "centre mark": "centre-mark",
  "centre line": "centre-line",
  "thread mark": "thread-mark",
};

/** Kinds whose number the ledger can hold. */
const CALLED: ReadonlySet<AnnotationKind> = new Set(["linear", "angle", "radius", "diameter"]);

const button =
  "flex h-6 items-center gap-1 rounded-card border border-hair px-2 text-soft hover:border-ink hover:text-ink";

/** What is selected of dimensions, notes and marks: what each measures and holds, its words, and what it lost. */
export const SelectedAnnotations = ({
  annotations,
  drawing,
}: {
  annotations: readonly Annotation[];
  drawing: Drawing;
}) => {
  const { act } = useSession();
  const [one] = annotations;
  const ids = annotations.map(({ id }) => id);
  return (
    <div className="flex flex-col gap-1.5">
      {annotations.length === 1 && one && <One annotation={one} drawing={drawing} />}
      <div className="flex flex-wrap gap-1.5">
        {annotations.length === 1 && one?.kind === "thread mark" && one.text && (
          <button type="button" className={button} onClick={() => act.noteThread(one)}>
            Note {one.text}
          </button>
        )}
        {annotations.length === 1 && one && !one.lost && one.callout === undefined && CALLED.has(one.kind) && (
          <button type="button" className={button} onClick={() => act.promote(one)}>
            Write into the ledger
          </button>
        )}
        <button type="button" className={button} onClick={() => act.remove(ids)}>
          <Trash2 size={13} aria-hidden="true" /> Delete
        </button>
      </div>
    </div>
  );
};

const One = ({ annotation, drawing }: { annotation: Annotation; drawing: Drawing }) => {
  const { act } = useSession();
  const unit = unitOf(drawing);
  const { kind, refs, lost } = annotation;
  const sizes = measureAnnotation(drawing, annotation);
  const show = (value: number): string => (kind === "angle" ? showAngle(value) : showLengthUnit(value, unit));
  if (lost)
    return (
      <>
        <p className="text-fault">It {LOST_WORDS}. Put it on something else, or delete it.</p>
        <div>
          <button type="button" className={button} onClick={() => act.take(MADE_BY[kind])}>
            Put it on something
          </button>
        </div>
      </>
    );
  return (
    <div className="grid grid-cols-[auto_1fr] items-baseline gap-x-3 gap-y-1">
      {sizes && (
        <>
          <span className="text-soft">measures</span>
          <span className="figures">{show(sizes.most)}</span>
        </>
      )}
      {refs.length > 0 && (
        <>
          <span className="text-soft">{kind === "note" ? "points to" : "of"}</span>
          <span>
            {refs.length > 4 ? `${refs.length} places` : refs.map((ref) => describeThing(drawing, ref)).join(", ")}
          </span>
        </>
      )}
      <Called annotation={annotation} drawing={drawing} />
      {kind !== "centre mark" && kind !== "centre line" && kind !== "thread mark" && (
        <Words key={`${annotation.id} ${annotation.text ?? ""}`} annotation={annotation} />
      )}
    </div>
  );
};

/** The callout that it shows, and how that stands. */
const Called = ({ annotation, drawing }: { annotation: Annotation; drawing: Drawing }) => {
  const unit = useBench((state) => unitOf(state.history.drawing));
  const callout = calloutsOf(drawing).find(({ id }) => id === annotation.callout);
  if (!callout) return null;
  const sizes = measureAnnotation(drawing, annotation);
  if (!sizes) return null;
  const state = standingAt(drawing, callout, sizes.most);
  const tone = state.state === "off" ? "text-fault" : state.state === "within" ? "text-caution" : "text-moss";
  return (
    <>
      <span className="text-soft">called</span>
      <span>
        <span className="figures">{calloutText(callout, unit)}</span> {callout.name}{" "}
        <span className={tone}>{stateText(state, callout)}</span>
      </span>
    </>
  );
};

/** The words of a note, line by line; of a dimension what stands before its number. Kept on leaving, or by Enter. */
const Words = ({ annotation }: { annotation: Annotation }) => {
  const { act } = useSession();
  const [text, setText] = useState<string>();
  const isNote = annotation.kind === "note";
  const label = isNote ? "text" : "words before";
  const keep = (): boolean => {
    const now = text?.trim();
    if (now === undefined || now === (annotation.text ?? "")) {
      setText(undefined);
      return true;
    }
    const { text: _, ...rest } = annotation;
    return act.changeAnnotations([now === "" && !isNote ? rest : { ...rest, text: now }], "Change the words");
  };
  return (
    <label className="contents">
      <span className="self-start text-soft">{label}</span>
      <textarea
        aria-label={label}
        rows={isNote ? Math.min(6, (text ?? annotation.text ?? "").split("\n").length) : 1}
        spellCheck={false}
        value={text ?? annotation.text ?? ""}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => void keep()}
        onKeyDown={(event) => {
          if (event.key === "Enter" && !(isNote && event.shiftKey)) {
            event.preventDefault();
            if (keep()) focusBoard();
          }
          if (event.key === "Escape") {
            setText(undefined);
            focusBoard();
          }
        }}
        className="figures w-full resize-none rounded-card border border-hair bg-board px-1.5 py-0.5 text-[13px]"
      />
    </label>
  );
};
