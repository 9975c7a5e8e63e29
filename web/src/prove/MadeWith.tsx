import { useLiveQuery } from "dexie-react-hooks";
import { useState, type ReactNode } from "react";
import { wallLimit } from "@ash-edge/core/checks";
import { settingsOf, unitOf, type Drawing, type Making } from "@ash-edge/core/drawing";
import { setMaking } from "@ash-edge/core/edits";
import { showLength } from "@ash-edge/core/numeric";
import { bitNamed, sheetNamed } from "@ash-edge/core/tables";
import { useDatabase } from "../app/StoreProvider.tsx";
import { stockOf } from "../release/stockOf.ts";
import { shopTools, type JobRecord } from "../store/index.ts";
import { typedLength, typedSizes } from "../ui/typedLength.ts";
import type { ProvedJob } from "./useProvedJob.ts";

const FIELD = "h-8 min-w-0 rounded-card border border-hair bg-board px-2";

/** What the job is made with: its tool, its sheet, and the thinnest wall; the checks go by it. */
export const MadeWith = ({ drawing, job, edit }: { drawing: Drawing; job: JobRecord; edit: ProvedJob["edit"] }) => {
  const unit = unitOf(drawing);
  const making = settingsOf(drawing).making ?? {};
  const change = <K extends keyof Making>(what: K, to: Making[K] | undefined): undefined =>
    void edit((now) => setMaking(now, what, to), "What it is made with was changed");
  const { tool, sheet, wall } = making;
  const asked = wallLimit({ making: {}, stock: stockOf(job, unit) });
  const database = useDatabase();
  const table = useLiveQuery(() => shopTools(database), [database]);
  const [tools, sheets] = [table?.tools[unit] ?? [], table?.sheets[unit] ?? []];
  return (
    <section className="card p-4" aria-label="Made with">
      <h2 className="font-semibold">Made with</h2>
      <div className="mt-2 grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2">
        <Row label="Tool">
          <Pick
            label="Tool"
            none="none"
            value={tool?.name}
            own={tool && !tools.some((one) => one.name === tool.name && one.diameter === tool.diameter)}
            names={tools.map(({ name }) => name)}
            onPick={(name) =>
              change(
                "tool",
                tools.find((one) => one.name === name),
              )
            }
          />
          <Typed
            label="Another tool’s Ø"
            placeholder={`Ø, ${unit}`}
            onTyped={(text) => {
              const size = typedLength(text, unit);
              if (typeof size === "string") return size;
              return change("tool", { name: bitNamed(size, unit), kind: "cutter", diameter: size });
            }}
          />
        </Row>
        <Row label="Sheet">
          <Pick
            label="Sheet"
            none="none"
            value={sheet?.name}
            own={
              sheet &&
              !sheets.some((one) => one.name === sheet.name && one.width === sheet.width && one.height === sheet.height)
            }
            names={sheets.map(({ name }) => name)}
            onPick={(name) =>
              change(
                "sheet",
                sheets.find((one) => one.name === name),
              )
            }
          />
          <Typed
            label="Another sheet’s sizes"
            placeholder="w × h"
            onTyped={(text) => {
              const size = typedSizes(text, unit);
              if (typeof size === "string") return size;
              const [width, height] = size;
              return change("sheet", { name: sheetNamed(width, height, unit), width, height });
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
            placeholder={wall === undefined ? `least, ${unit}` : "as before"}
            onTyped={(text) => {
              if (text === "") return change("wall", undefined);
              const size = typedLength(text, unit);
              if (typeof size === "string") return size;
              return change("wall", size);
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

/** No name of a tool or a sheet. */
const OWN = "\u0000";

const Pick = ({
  label,
  none,
  value,
  own = false,
  names,
  onPick,
}: {
  label: string;
  none: string;
  value: string | undefined;
  /** The job has one that the table has not, or has otherwise under that name. */
  own?: boolean | undefined;
  names: readonly string[];
  onPick: (name: string) => void;
}) => (
  <select
    aria-label={label}
    className={FIELD}
    value={own ? OWN : (value ?? "")}
    onChange={(event) => event.target.value !== OWN && onPick(event.target.value)}
  >
    <option value="">{none}</option>
    {own && <option value={OWN}>{value}, as this job has it</option>}
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
