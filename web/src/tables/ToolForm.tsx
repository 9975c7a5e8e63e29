import { useState } from "react";
import { showLength, type Unit } from "@ash-edge/core/numeric";
import {
  bitNamed,
  sheetNamed,
  TOOL_KINDS,
  type CuttingTool,
  type Sheet,
  type ToolKind,
  type ToolTable,
} from "@ash-edge/core/tables";
import { Field } from "../jobs/headFields.tsx";
import { Segmented } from "../ui/Choice.tsx";
import { FormDialog } from "../ui/FormDialog.tsx";
import { typedLength, typedSizes } from "../ui/typedLength.ts";
import { withRow, type ToolRow } from "./withRow.ts";

/** Asks for a tool or a sheet: a new one where its place is after the last. Left out, a name follows the size. */
export const ToolForm = ({
  table,
  where,
  onClose,
  onKeep,
}: {
  table: ToolTable;
  where: ToolRow;
  onClose: () => void;
  onKeep: (to: ToolTable, said: string) => void;
}) => {
  const { list } = where;
  const former = table[list][where.unit][where.at];
  const [unit, setUnit] = useState<Unit>(where.unit);
  const [name, setName] = useState(former?.name ?? "");
  const [kind, setKind] = useState<ToolKind>(former && "kind" in former ? former.kind : "cutter");
  const [size, setSize] = useState(!former ? "" : sizeText(former));
  const [wrong, setWrong] = useState<{ name?: string; size?: string }>({});
  const what = list === "tools" ? "tool" : "sheet";
  const keep = async (): Promise<void> => {
    const row = readRow({ list, unit, name: name.trim(), kind, size });
    if (typeof row === "string") return setWrong({ size: row });
    const at = former ? where.at : table[list][unit].length;
    if (table[list][unit].some((one, i) => i !== at && one.name === row.name))
      return setWrong({ name: `There is a ${what} of that name already: “${row.name}”. Give this one another.` });
    onKeep(withRow(table, { list, unit, at }, row), `${row.name} ${former ? "changed" : "added"}`);
    onClose();
  };
  return (
    <FormDialog
      title={former ? `Change ${former.name}` : `Add a ${what}`}
      submit={former ? "Change it" : "Add it"}
      onSubmit={keep}
      onClose={onClose}
    >
      {!former && (
        <Segmented
          label="Unit"
          options={[
            ["mm", "mm"],
            ["in", "in"],
          ]}
          value={unit}
          onChange={(to) => setUnit(to as Unit)}
        />
      )}
      {list === "tools" && (
        <Segmented
          label="Kind"
          options={TOOL_KINDS.map((one) => [one, one] as const)}
          value={kind}
          onChange={(to) => setKind(to as ToolKind)}
        />
      )}
      <Field
        label={
          list === "sheets" ? `Width × height, ${unit}` : kind === "cutter" ? `Its Ø, ${unit}` : `Its kerf, ${unit}`
        }
        value={size}
        autoFocus
        autoComplete="off"
        onChange={(event) => setSize(event.target.value)}
        error={wrong.size}
      />
      <Field
        label="Name"
        placeholder="by its size"
        value={name}
        maxLength={120}
        autoComplete="off"
        onChange={(event) => setName(event.target.value)}
        error={wrong.name}
      />
    </FormDialog>
  );
};

const sizeText = (row: CuttingTool | Sheet): string =>
  "kind" in row ? String(row.diameter) : `${row.width} × ${row.height}`;

/** The row as it was typed, or what is wrong with its size in words. */
const readRow = ({
  list,
  unit,
  name,
  kind,
  size,
}: {
  list: keyof ToolTable;
  unit: Unit;
  name: string;
  kind: ToolKind;
  size: string;
}): CuttingTool | Sheet | string => {
  if (list === "tools") {
    const diameter = typedLength(size, unit);
    if (typeof diameter === "string") return diameter;
    const own = kind === "cutter" ? bitNamed(diameter, unit) : `the ${kind}, kerf ${showLength(diameter, unit)}`;
    return { name: name || own, kind, diameter };
  }
  const sizes = typedSizes(size, unit);
  if (typeof sizes === "string") return sizes;
  const [width, height] = sizes;
  return { name: name || sheetNamed(width, height, unit), width, height };
};
