import { ContextMenu } from "radix-ui";
import { useState, type ReactNode } from "react";
import type { Picked } from "@ash-edge/tools";
import { MENU, MENU_ITEM } from "../../ui/menu.ts";
import { describeThing } from "../annotated.ts";
import { useBench, useSession } from "../SessionContext.tsx";

/** Right click: the actions for what lies under the pointer. */
export const BoardMenu = ({ children }: { children: ReactNode }) => {
  const session = useSession();
  const { act } = session;
  const drawing = useBench((state) => state.history.drawing);
  const [under, setUnder] = useState<readonly Picked[]>([]);
  const known = under.flatMap(({ ref }) => ref ?? []);
  return (
    <ContextMenu.Root onOpenChange={(open) => open && setUnder(session.getState().pointer.hover?.under ?? [])}>
      <ContextMenu.Trigger asChild>{children}</ContextMenu.Trigger>
      <ContextMenu.Portal>
        <ContextMenu.Content className={`${MENU} said`} aria-label="Actions here">
          {known.slice(0, 4).map((ref) => (
            <ContextMenu.Group key={`${ref.id} ${ref.vertex}`}>
              <ContextMenu.Item className={MENU_ITEM} onSelect={() => act.select([ref.id])}>
                Select {describeThing(drawing, ref)}
              </ContextMenu.Item>
              <ContextMenu.Item className={MENU_ITEM} onSelect={() => act.remove([ref.id])}>
                Delete {describeThing(drawing, ref)}
              </ContextMenu.Item>
              <ContextMenu.Separator className="my-1 h-px bg-hair" />
            </ContextMenu.Group>
          ))}
          {known.length === 0 && <div className="px-2.5 py-1 text-soft">Nothing lies here</div>}
          <ContextMenu.Item className={MENU_ITEM} onSelect={() => act.invert()}>
            Select everything else
          </ContextMenu.Item>
          <ContextMenu.Item className={MENU_ITEM} onSelect={() => act.fit()}>
            Show the whole drawing
          </ContextMenu.Item>
          <ContextMenu.Item className={MENU_ITEM} onSelect={() => act.take("clear-layout")}>
            Clear layout
          </ContextMenu.Item>
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  );
};
