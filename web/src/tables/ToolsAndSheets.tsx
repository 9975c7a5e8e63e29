import { useLiveQuery } from "dexie-react-hooks";
import { Pencil, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { toast } from "sonner";
import { FIRST_TOOLS, type ToolTable } from "@ash-edge/core/tables";
import { useDatabase } from "../app/StoreProvider.tsx";
import { keepShopTools, sayStoreFault, shopTools } from "../store/index.ts";
import { IconButton } from "../ui/IconButton.tsx";
import { ToolForm } from "./ToolForm.tsx";
import { withRow, type ToolRow } from "./withRow.ts";

const UNITS = ["mm", "in"] as const;

/** What the shop cuts with and from, to be changed here; Prove offers it, and any other size is typed there. */
export const ToolsAndSheets = () => {
  const database = useDatabase();
  const table = useLiveQuery(() => shopTools(database), [database]);
  const [changing, setChanging] = useState<ToolRow>();
  if (!table) return null;
  const keep = (to: ToolTable, said: string): void =>
    void keepShopTools(database, to).then(
      () => toast(said, { action: { label: "Undo", onClick: () => void keepShopTools(database, table) } }),
      (reason: unknown) => toast.error(sayStoreFault(reason)),
    );
  const rows = UNITS.flatMap((unit) => [
    ...table.tools[unit].map((row, at) => ({ row, where: { list: "tools", unit, at } as const })),
    ...table.sheets[unit].map((row, at) => ({ row, where: { list: "sheets", unit, at } as const })),
  ]);
  const button = "flex h-8 items-center gap-1.5 rounded-card border border-hair px-3 hover:border-ink";
  const add = (list: keyof ToolTable): void => setChanging({ list, unit: "mm", at: Infinity });
  return (
    <>
      <div className="mt-3 flex items-center gap-2">
        <button type="button" className={button} onClick={() => add("tools")}>
          <Plus size={14} aria-hidden="true" /> Add a tool
        </button>
        <button type="button" className={button} onClick={() => add("sheets")}>
          <Plus size={14} aria-hidden="true" /> Add a sheet
        </button>
        <span className="flex-1" />
        <button type="button" className={button} onClick={() => keep(FIRST_TOOLS, "Tools and sheets are as they came")}>
          All as they came
        </button>
      </div>
      <div className="card mt-3 min-h-0 flex-1 overflow-auto" tabIndex={0} role="region" aria-label="Tools and sheets">
        <table className="w-full">
          <thead className="sticky top-0 bg-panel text-soft">
            <tr className="border-b border-hair">
              {["tool or sheet", "kind", "unit", "Ø or kerf", "width", "height"].map((head, i) => (
                <th key={head} scope="col" className={`px-3 py-2 ${i > 2 ? "text-right" : "text-left"}`}>
                  {head}
                </th>
              ))}
              <th scope="col" className="w-20">
                <span className="sr-only">Change</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ row, where }) => (
              <tr key={`${where.list} ${where.unit} ${row.name}`} className="border-b border-hair last:border-0">
                <th scope="row" className="px-3 py-1 text-left font-normal">
                  {row.name}
                </th>
                <td className="px-3 py-1 text-soft">{"kind" in row ? row.kind : "sheet"}</td>
                <td className="px-3 py-1 text-soft">{where.unit}</td>
                {("kind" in row ? [row.diameter, "", ""] : ["", row.width, row.height]).map((size, i) => (
                  <td key={i} className="figures px-3 py-1 text-right">
                    {size}
                  </td>
                ))}
                <td className="px-2 py-1">
                  <span className="flex justify-end gap-1">
                    <IconButton label={`Change ${row.name}, ${where.unit}`} onClick={() => setChanging(where)}>
                      <Pencil size={14} aria-hidden="true" />
                    </IconButton>
                    <IconButton
                      label={`Remove ${row.name}, ${where.unit}`}
                      onClick={() => keep(withRow(table, where), `${row.name} removed`)}
                    >
                      <Trash2 size={14} aria-hidden="true" />
                    </IconButton>
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {rows.length === 0 && <p className="px-3 py-6 text-soft">No tool and no sheet: add what the shop has.</p>}
      </div>
      <p className="mt-2 text-soft">
        What comes with it is common practice: sizes as they are sold, kerfs of middling plate. A job names its own
        under Prove, by a click or by its size, and keeps it whatever is changed here.
      </p>
      {changing && <ToolForm table={table} where={changing} onClose={() => setChanging(undefined)} onKeep={keep} />}
    </>
  );
};
