import { useLiveQuery } from "dexie-react-hooks";
import { useState } from "react";
import { FIRST_STYLE } from "@ash-edge/core/drawing";
import type { Unit } from "@ash-edge/core/numeric";
import { useDatabase } from "../app/StoreProvider.tsx";
import { keepShopStyle, shopStyle } from "../store/index.ts";
import { Segmented } from "../ui/Choice.tsx";
import { StyleFields } from "../ui/StyleFields.tsx";

/** How dimensions look in this shop. Jobs keep the style in which they were made; each can have its own. */
export const StyleCard = () => {
  const database = useDatabase();
  const style = useLiveQuery(() => shopStyle(database), [database]);
  const [unit, setUnit] = useState<Unit>("mm");
  if (!style) return null;
  return (
    <section className="card mt-3 p-4" aria-label="Dimensions">
      <h2 className="font-semibold">Dimensions and notes</h2>
      <p className="mt-1 mb-3 text-soft">
        Jobs that are made from now on have this style. A job’s own is changed on its bench, in Layers.
      </p>
      <StyleFields style={style} unit={unit} onChange={(change) => void keepShopStyle(database, change)} />
      <div className="mt-3 flex items-center gap-3">
        <span className="text-soft">Sample in</span>
        <Segmented
          label="Sample in"
          options={[
            ["mm", "mm"],
            ["in", "in"],
          ]}
          value={unit}
          onChange={(to) => setUnit(to as Unit)}
        />
        <span className="flex-1" />
        <button
          type="button"
          className="h-8 rounded-card border border-hair px-3 hover:border-ink"
          onClick={() => void keepShopStyle(database, FIRST_STYLE)}
        >
          As it came
        </button>
      </div>
    </section>
  );
};
