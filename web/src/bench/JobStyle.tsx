import { Dialog } from "radix-ui";
import { Settings2, X } from "lucide-react";
import { styleOf, unitOf } from "@ash-edge/core/drawing";
import { sheetScale } from "@ash-edge/core/annotate";
import { scaleWords } from "@ash-edge/core/sheet";
import { useDatabase } from "../app/StoreProvider.tsx";
import { shopStyle } from "../store/index.ts";
import { Segmented } from "../ui/Choice.tsx";
import { StyleFields } from "../ui/StyleFields.tsx";
import { useBench, useSession } from "./SessionContext.tsx";
import { backToBoard } from "./useBenchKeys.ts";

/** Scales of the sheet that can be chosen: common ones of ISO 5455, drawing to paper. */
const SHEETS = [0.2, 0.5, 1, 2, 5, 10, 20] as const;

/** How dimensions look in this job, opened by a small button; each change is a step that can be undone. */
export const JobStyle = ({ className }: { className: string }) => (
  <Dialog.Root>
    <Dialog.Trigger className={className} aria-label="Style of dimensions" title="Style of dimensions">
      <Settings2 size={13} />
    </Dialog.Trigger>
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-40 bg-shade" />
      <Dialog.Content
        className="card fixed top-[6vh] z-40 left-1/2 max-h-[88vh] w-[44rem] -translate-x-1/2 overflow-y-auto p-5"
        aria-describedby={undefined}
        onCloseAutoFocus={backToBoard}
      >
        <div className="mb-3 flex items-center">
          <Dialog.Title className="flex-1 text-base font-semibold">Dimensions of this job</Dialog.Title>
          <Dialog.Close aria-label="Close" className="grid h-7 w-7 place-items-center text-soft hover:text-ink">
            <X size={16} />
          </Dialog.Close>
        </div>
        <Fields />
      </Dialog.Content>
    </Dialog.Portal>
  </Dialog.Root>
);

const Fields = () => {
  const { act } = useSession();
  const database = useDatabase();
  const drawing = useBench((state) => state.history.drawing);
  const style = styleOf(drawing);
  const { sheet, ...unscaled } = style;
  return (
    <>
      <StyleFields
        style={style}
        unit={unitOf(drawing)}
        onChange={(change) => act.setAnnotationStyle({ ...style, ...change })}
      >
        <span className="text-soft">Sheet</span>
        <Segmented
          label="Sheet"
          options={[
            ["auto", `as it fits A3, ${scaleWords(sheetScale(drawing, unscaled))}`],
            ...SHEETS.map((scale) => [String(scale), scaleWords(scale)] as const),
          ]}
          value={sheet === undefined ? "auto" : String(sheet)}
          onChange={(to) => act.setAnnotationStyle(to === "auto" ? unscaled : { ...unscaled, sheet: Number(to) })}
        />
      </StyleFields>
      <div className="mt-4 flex justify-end">
        <button
          type="button"
          className="h-8 rounded-card border border-hair px-3 hover:border-ink"
          onClick={() => void shopStyle(database).then(act.setAnnotationStyle)}
        >
          As in the shop
        </button>
      </div>
    </>
  );
};
