import { Tabs } from "radix-ui";
import type { ReactNode } from "react";
import { PANEL_TABS, type PanelTab } from "./state/index.ts";
import { useBench, useSession } from "./SessionContext.tsx";

const NAMES: Readonly<Record<PanelTab, string>> = {
  sketch: "Sketch",
  callouts: "Callouts",
  pieces: "Pieces",
  selected: "Selected",
  layers: "Layers",
};

/** The panels behind one another where there is no room beside the board: those that are not shown stay as they are. */
export const PanelTabs = ({ panels }: { panels: Readonly<Record<PanelTab, ReactNode>> }) => {
  const { act } = useSession();
  const tab = useBench((state) => state.panels.tab);
  const selected = useBench((state) => state.selection.ids.size);
  return (
    <Tabs.Root value={tab} onValueChange={(to) => act.showPanel(to as PanelTab)} className="flex h-full flex-col">
      <Tabs.List aria-label="Panels" className="card mb-2 flex h-8 shrink-0 overflow-hidden">
        {PANEL_TABS.map((name) => (
          <Tabs.Trigger
            key={name}
            value={name}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => act.showPanel(name)}
            className={
              "flex-1 border-l border-hair px-0.5 text-xs first:border-l-0 hover:bg-board " +
              "data-[state=active]:bg-ink data-[state=active]:text-panel"
            }
          >
            {NAMES[name]}
            {name === "selected" && selected > 0 && <span className="figures ml-1">{selected}</span>}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {PANEL_TABS.map((name) => (
        <Tabs.Content
          key={name}
          value={name}
          forceMount
          tabIndex={-1}
          className="min-h-0 flex-1 data-[state=inactive]:hidden"
        >
          {panels[name]}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
};
