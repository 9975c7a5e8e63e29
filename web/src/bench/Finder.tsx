import { Command } from "cmdk";
import { Dialog } from "radix-ui";
import { REGISTRY, BANKS } from "@ash-edge/tools";
import { useSession } from "./SessionContext.tsx";
import { ToolDrawing } from "./ToolDrawing.tsx";
import { backToBoard } from "./useBenchKeys.ts";

/** Finds a tool by its name and takes it. */
export const Finder = ({ onClose }: { onClose: () => void }) => {
  const { act } = useSession();
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/20" />
        <Dialog.Content
          className="card fixed top-24 left-1/2 z-50 w-[30rem] -translate-x-1/2 overflow-hidden"
          aria-describedby={undefined}
          onCloseAutoFocus={backToBoard}
        >
          <Dialog.Title className="sr-only">Finder</Dialog.Title>
          <Command label="Find a tool">
            <Command.Input
              placeholder="Find a tool by its name"
              className="h-11 w-full border-b border-hair bg-transparent px-4 text-base"
            />
            <Command.List className="max-h-96 overflow-y-auto p-1.5">
              <Command.Empty className="px-3 py-6 text-center text-soft">No tool has that name.</Command.Empty>
              {REGISTRY.map((one) => (
                <Command.Item
                  key={one.id}
                  value={`${one.name} ${BANKS[one.bank]}`}
                  onSelect={() => {
                    onClose();
                    act.take(one.id);
                  }}
                  className="flex items-center gap-3 rounded-card px-3 py-1.5 data-[selected=true]:bg-ember-wash"
                >
                  <ToolDrawing drawing={one.drawing} size={20} />
                  <span className="font-semibold">{one.name}</span>
                  <span className="min-w-0 flex-1 truncate text-soft">{one.help}</span>
                  <span className="figures text-xs text-soft">{BANKS[one.bank]}</span>
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
};
