import { Ellipsis } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { layersOf, PROFILE_LAYER, type Layer } from "@ash-edge/core/drawing";
import { MENU, MENU_ITEM } from "../ui/menu.ts";
import { FileColour } from "./FileColour.tsx";
import { useBench, useSession } from "./SessionContext.tsx";
import { backToBoard } from "./useBenchKeys.ts";

/** Colours that a layer is given, by their numbers in the standard palette, and what they are called. */
const COLOURS: readonly (readonly [number: string, name: string])[] = [
  ["1", "red"],
  ["30", "orange"],
  ["2", "yellow"],
  ["3", "green"],
  ["4", "cyan"],
  ["5", "blue"],
  ["6", "magenta"],
  ["8", "grey"],
];

const SWATCH =
  "grid h-7 min-w-6 cursor-default place-items-center rounded-card border border-transparent text-xs outline-none " +
  "data-[highlighted]:bg-ember-wash data-[state=checked]:border-ink";

/** What else can be done with a layer: its colour, its place in the list, what of it is shown, taking it away. */
export const LayerMenu = ({ layer, count, own }: { layer: Layer; count: number; own: boolean }) => {
  const { act } = useSession();
  const layers = layersOf(useBench((state) => state.history.drawing));
  const at = layers.findIndex(({ id }) => id === layer.id);
  const main = layers.find(({ id }) => id === PROFILE_LAYER);
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label={`More for ${layer.name}`}
        title={`More for ${layer.name}`}
        className="grid h-7 w-6 shrink-0 place-items-center rounded-card text-soft hover:text-ink"
      >
        <Ellipsis size={14} aria-hidden="true" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={MENU} align="end" onCloseAutoFocus={backToBoard}>
          <DropdownMenu.Label className="px-2.5 pt-1 text-xs text-soft">Colour</DropdownMenu.Label>
          <DropdownMenu.RadioGroup
            className="mb-1 flex flex-wrap px-1"
            value={layer.colour ?? "role"}
            onValueChange={(to) => act.changeLayer(layer.id, { colour: to === "role" ? undefined : to })}
          >
            <DropdownMenu.RadioItem value="role" title="As its role has it" className={`${SWATCH} px-1.5`}>
              as its role
            </DropdownMenu.RadioItem>
            {COLOURS.map(([number, name]) => (
              <DropdownMenu.RadioItem key={number} value={number} aria-label={name} title={name} className={SWATCH}>
                <FileColour colour={number} bare />
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <DropdownMenu.Item className={MENU_ITEM} disabled={at === 0} onSelect={() => act.moveLayer(layer.id, -1)}>
            Move up
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={MENU_ITEM}
            disabled={at === layers.length - 1}
            onSelect={() => act.moveLayer(layer.id, 1)}
          >
            Move down
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => act.showLayers(layer.id)}>
            Show it alone
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={MENU_ITEM}
            disabled={layers.every(({ shown }) => shown)}
            onSelect={() => act.showLayers("all")}
          >
            Show all layers
          </DropdownMenu.Item>
          {own && count === 0 && (
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => act.removeLayer(layer)}>
              Remove it
            </DropdownMenu.Item>
          )}
          {own && count > 0 && (
            <>
              <DropdownMenu.Item className={MENU_ITEM} onSelect={() => act.removeLayer(layer, { to: PROFILE_LAYER })}>
                Remove it, put the {count} on it on {main?.name}
              </DropdownMenu.Item>
              <DropdownMenu.Item className={`${MENU_ITEM} text-fault`} onSelect={() => act.removeLayer(layer, "goes")}>
                Remove it with the {count} on it
              </DropdownMenu.Item>
            </>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
};
