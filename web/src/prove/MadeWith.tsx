import { useState, type ReactNode } from "react";
import { wallLimit } from "@ash-edge/core/checks";
import { settingsOf, unitOf, type Drawing, type Making } from "@ash-edge/core/drawing";
import { setMaking } from "@ash-edge/core/edits";
import { readTypedValue, showLength } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import { SHEETS, TOOLS } from "@ash-edge/core/tables";
import { stockOf } from "../release/stockOf.ts";
import type { JobRecord } from "../store/index.ts";
import type { ProvedJob } from "./useProvedJob.ts";

const FIELD = "h-8 min-w-0 rounded-card border border-hair bg-board px-2";

/** What the job is made with: its tool, its sheet, and the thinnest wall; the checks go by it. */
export const MadeWith = ({ drawing, job, edit }: { drawing: Drawing; job: JobRecord; edit: ProvedJob["edit"] }) => {
  const unit = unitOf(drawing);
  const making = settingsOf(drawing).making ?? {};
  const change = (to: Making): undefined => void edit((now) => setMaking(now, to), "What it is made with was changed");
  const { tool, sheet, wall, ...rest } = making;
  const asked = wallLimit({ making: {}, stock: stockOf(job, unit) });
  const length = (text: string): number | string => {
    const read = readTypedValue(text, { unit, expects: "length" });
    if (!read.ok) return sayRefusal(read.refusal, unit);
    return read.value.value > 0 ? read.value.value : "It must be more than 0.";
  };
  const sizes = (text: string): readonly [number, number] | string => {
    const parts = text.split(/[×x*]/).map((part) => length(part.trim()));
    const [w, h] = parts;
    if (parts.length !== 2) return "A sheet has two sizes, such as 1250 × 2500.";
    return typeof w === "number" && typeof h === "number"
      ? [w, h]
      : String(parts.find((one) => typeof one === "string"));
  };
  return (
    <section className="card p-4" aria-label="Made with">
      <h2 className="font-semibold">Made with</h2>
      <div className="mt-2 grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2">
        <Row label="Tool">
          <Pick
            label="Tool"
            none="none"
            value={tool?.name}
            names={TOOLS[unit].map(({ name }) => name)}
            onPick={(name) => {
              const found = TOOLS[unit].find((one) => one.name === name);
              change({
                ...rest,
                ...(sheet ? { sheet } : {}),
                ...(wall ? { wall } : {}),
                ...(found ? { tool: found } : {}),
              });
            }}
          />
          <Typed
            label="Another tool’s Ø"
            placeholder={`Ø in ${unit}`}
            onTyped={(text) => {
              const size = length(text);
              if (typeof size === "string") return size;
              return change({
                ...making,
                tool: { name: `a bit of ${showLength(size, unit)} ${unit}`, kind: "cutter", diameter: size },
              });
            }}
          />
        </Row>
        <Row label="Sheet">
          <Pick
            label="Sheet"
            none="none"
            value={sheet?.name}
            names={SHEETS[unit].map(({ name }) => name)}
            onPick={(name) => {
              const found = SHEETS[unit].find((one) => one.name === name);
              change({
                ...rest,
                ...(tool ? { tool } : {}),
                ...(wall ? { wall } : {}),
                ...(found ? { sheet: found } : {}),
              });
            }}
          />
          <Typed
            label="Another sheet’s sizes"
            placeholder="w × h"
            onTyped={(text) => {
              const size = sizes(text);
              if (typeof size === "string") return size;
              const [width, height] = size;
              const name = `a sheet of ${showLength(width, unit)} × ${showLength(height, unit)}`;
              return change({ ...making, sheet: { name, width, height } });
            }}
          />
        </Row>
        <Row label="Walls">
          <span className="text-soft">
            {wall !== undefined
              ? `at least ${showLength(wall, unit)} ${unit}`
              : asked !== undefined
                ? `at least ${showLength(asked, unit)} ${unit}, by material and thickness`
                : "the job says no thickness"}
          </span>
          <Typed
            label="Thinnest wall"
            placeholder={wall === undefined ? `in ${unit}` : "as before"}
            onTyped={(text) => {
              if (text === "") return change({ ...rest, ...(tool ? { tool } : {}), ...(sheet ? { sheet } : {}) });
              const size = length(text);
              if (typeof size === "string") return size;
              return change({ ...making, wall: size });
            }}
          />
        </Row>
      </div>
    </section>
  );
};

const Row = ({ label, children }: { label: string; children: ReactNode }) => (
  <>
    <span className="text-soft">{label}</span>
    <div className="grid min-w-0 grid-cols-[1fr_92px] items-center gap-2">{children}</div>
  </>
);

const Pick = ({
  label,
  none,
  value,
  names,
  onPick,
}: {
  label: string;
  none: string;
  value: string | undefined;
  names: readonly string[];
  onPick: (name: string) => void;
}) => (
  <select aria-label={label} className={FIELD} value={value ?? ""} onChange={(event) => onPick(event.target.value)}>
    <option value="">{none}</option>
    {value !== undefined && !names.includes(value) && <option value={value}>{value}</option>}
    {names.map((name) => (
      <option key={name} value={name}>
        {name}
      </option>
    ))}
  </select>
);

/** A blank that is taken by Enter; what is wrong with it is said under it, and the text stays. */
const Typed = ({
  label,
  placeholder,
  onTyped,
}: {
  label: string;
  placeholder: string;
  onTyped: (text: string) => string | undefined;
}) => {
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState<string>();
  return (
    <span className="min-w-0">
      <input
        aria-label={label}
        aria-invalid={wrong ? true : undefined}
        className={`figures w-full ${FIELD}`}
        value={text}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Escape") {
            setText("");
            setWrong(undefined);
          }
          if (event.key !== "Enter") return;
          const said = onTyped(text.trim());
          setWrong(said);
          if (!said) setText("");
        }}
      />
      {wrong && (
        <span role="alert" className="mt-1 block text-xs text-fault">
          {wrong}
        </span>
      )}
    </span>
  );
};
