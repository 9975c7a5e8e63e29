import { useState, type ReactNode } from "react";
import { addAnnotations, displayList } from "@ash-edge/core/annotate";
import {
  applyEdit,
  ARROWS,
  DENOMINATORS,
  entitiesOf,
  LETTERING,
  newDrawing,
  PROFILE_LAYER,
  type AnnotationStyle,
  type Drawing,
} from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import { convertLength, type Unit } from "@ash-edge/core/numeric";
import { shapePieces } from "@ash-edge/core/shape";
import { piecesPath } from "../store/index.ts";
import { Segmented } from "./Choice.tsx";
import { DisplaySvg } from "./DisplaySvg.tsx";

type Props = {
  readonly style: AnnotationStyle;
  readonly unit: Unit;
  /** Told only what changes: the rest may have changed since it was shown. */
  readonly onChange: (change: Partial<AnnotationStyle>) => void;
  /** More rows: a label and what belongs to it. */
  readonly children?: ReactNode;
};

/** How dimensions look: lettering, arrows, figures and extension lines, with a small sample of it. */
export const StyleFields = ({ style, unit, onChange: put, children }: Props) => {
  const yesNo = (label: string, value: boolean, name: "zeros" | "unit" | "dual", no: string, yes: string) => (
    <>
      <span className="text-soft">{label}</span>
      <Segmented
        label={label}
        options={[
          ["no", no],
          ["yes", yes],
        ]}
        value={value ? "yes" : "no"}
        onChange={(to) => put({ [name]: to === "yes" })}
      />
    </>
  );
  return (
    <div className="flex flex-col gap-3">
      <Sample style={style} unit={unit} />
      <div className="grid grid-cols-[auto_1fr] items-center justify-items-start gap-x-4 gap-y-2">
        <span className="text-soft">Lettering</span>
        <Segmented
          label="Lettering"
          options={LETTERING.map((size) => [String(size), `${size} mm`])}
          value={String(style.height)}
          onChange={(to) => put({ height: Number(to) as AnnotationStyle["height"] })}
        />
        <span className="text-soft">Arrows</span>
        <Segmented
          label="Arrows"
          options={ARROWS.map((arrow) => [arrow, arrow === "tick" ? "oblique" : arrow])}
          value={style.arrow}
          onChange={(to) => put({ arrow: to as AnnotationStyle["arrow"] })}
        />
        <span className="text-soft" title="Of millimetres and degrees; inches have one more">
          Decimals of mm
        </span>
        <Segmented
          label="Decimals"
          options={[0, 1, 2, 3, 4].map((n) => [String(n), String(n)])}
          value={String(style.decimals)}
          onChange={(to) => put({ decimals: Number(to) })}
        />
        {yesNo("Zeros at the end", style.zeros, "zeros", "left out", "filled up")}
        <span className="text-soft">Inches</span>
        <Segmented
          label="Inches"
          options={DENOMINATORS.map((n) => [String(n), n === 0 ? "decimal" : `1/${n}`])}
          value={String(style.denominator)}
          onChange={(to) => put({ denominator: Number(to) })}
        />
        {yesNo("Unit", style.unit, "unit", "not shown", "shown")}
        {yesNo("The other unit", style.dual, "dual", "not shown", "in brackets")}
        <span className="text-soft">Extension lines</span>
        <span className="flex items-center gap-2">
          <Paper label="gap" value={style.gap} onChange={(gap) => put({ gap })} />
          <Paper label="overhang" value={style.overhang} onChange={(overhang) => put({ overhang })} />
        </span>
        {children}
      </div>
    </div>
  );
};

/** A length on paper, 0 to 20 mm; what is none is marked and changes nothing. */
const Paper = ({ label, value, onChange }: { label: string; value: number; onChange: (to: number) => void }) => {
  const [text, setText] = useState<string>();
  const read = text === undefined ? value : Number(text.trim().replace(",", "."));
  const wrong = text !== undefined && (text.trim() === "" || !(read >= 0 && read <= 20));
  return (
    <label className="flex items-center gap-1.5">
      <span className="text-soft">{label}</span>
      <input
        aria-label={label}
        aria-invalid={wrong || undefined}
        title={wrong ? "From 0 to 20 mm on paper" : undefined}
        autoComplete="off"
        value={text ?? String(value)}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => {
          if (!wrong && read !== value) onChange(read);
          setText(undefined);
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter" && !wrong) event.currentTarget.blur();
        }}
        className="figures h-8 w-14 rounded-card border border-hair bg-board px-2 aria-invalid:border-fault"
      />
      <span className="text-soft">mm</span>
    </label>
  );
};

/** A small plate of 61.9125 by 38.1 mm (2 7/16 in wide) with a hole Ø 14, dimensioned. */
const sampleOf = (unit: Unit): Drawing => {
  const start = newDrawing(unit);
  const draft = draftEdit(start, "Sample", "sample");
  const place = (x: number, y: number) => ({ x: convertLength(x, "mm", unit), y: convertLength(y, "mm", unit) });
  const corners = [place(0, 0), place(61.9125, 0), place(61.9125, 38.1), place(0, 38.1)];
  const vertices = corners.map((at) => ({ id: draft.newId(), at, bulge: 0 }));
  const box = draft.add({ kind: "chain", closed: true, vertices }, PROFILE_LAYER);
  const hole = draft.add({ kind: "circle", centre: place(42, 17), radius: place(7, 0).x }, PROFILE_LAYER);
  const drawing = applyEdit(start, draft.finish());
  const side = (n: number) => [{ id: box, vertex: vertices[n]!.id }];
  const made = addAnnotations(
    drawing,
    [
      { kind: "linear", refs: side(0), at: place(0, -10) },
      { kind: "linear", refs: side(3), at: place(0, -11) },
      { kind: "diameter", refs: [{ id: hole }], at: place(23, 28) },
    ],
    "Sample",
    "sample",
  );
  return made.ok ? applyEdit(drawing, made.value) : drawing;
};

/** The sample as the style draws it, at 1 : 1 on paper. */
const Sample = ({ style, unit }: { style: AnnotationStyle; unit: Unit }) => {
  const drawing = sampleOf(unit);
  const mm = (size: number): number => convertLength(size, "mm", unit);
  const pieces = [...entitiesOf(drawing)].flatMap((entity) =>
    entity.kind === "endless" ? [] : [piecesPath(shapePieces(entity) ?? [], true)],
  );
  return (
    <svg
      role="img"
      aria-label="Sample of dimensions"
      viewBox={`${mm(-30)} ${mm(-53)} ${mm(140)} ${mm(71)}`}
      className="h-44 w-full rounded-card border border-hair bg-board"
    >
      <g transform="scale(1 -1)">
        <path d={pieces.join("")} fill="none" stroke="var(--ink)" strokeWidth={2} vectorEffect="non-scaling-stroke" />
        <DisplaySvg displays={displayList(drawing, style, mm(1))} colour="var(--ink)" />
      </g>
    </svg>
  );
};
