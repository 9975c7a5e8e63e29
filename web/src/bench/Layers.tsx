import { RadioGroup } from "radix-ui";
import { Eye, EyeOff, LockKeyhole, LockKeyholeOpen, Plus } from "lucide-react";
import { useState, type ReactNode } from "react";
import { layersOf, LAYOUT_LAYER, FIRST_LAYERS, settingsOf, type CutRole, type Layer } from "@ash-edge/core/drawing";
import { freeLayerName } from "@ash-edge/core/edits";
import { JobStyle } from "./JobStyle.tsx";
import { countsFor } from "./derived.ts";
import { FileColour } from "./FileColour.tsx";
import { LayerMenu } from "./LayerMenu.tsx";
import { ROLES } from "./RoleChoice.tsx";
import { useBench, useSession } from "./SessionContext.tsx";
import { focusBoard } from "./useBenchKeys.ts";

/** With more layers than this a line to find one among them stands over the list. */
const FEW = 8;

/** The layers: the working one, shown or hidden, locked or not, and what becomes of each at the machine. */
export const Layers = () => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const working = useBench((state) => state.selection.layer);
  const counts = countsFor(drawing);
  const [wanted, setWanted] = useState("");
  const all = layersOf(drawing);
  const found = all.filter(({ name }) => name.toLowerCase().includes(wanted.trim().toLowerCase()));
  const shown = all.length > FEW ? found : all;
  return (
    <section
      data-region="Layers"
      tabIndex={-1}
      role="region"
      aria-label="Layers"
      className="card flex h-full flex-col overflow-hidden"
    >
      <header className="flex h-8 shrink-0 items-center gap-2 pr-1 pl-3">
        <b>Layers</b>
        <span className="min-w-0 flex-1 truncate text-xs text-soft">
          drawing on {layersOf(drawing).find(({ id }) => id === working)?.name}
        </span>
        <Small label="New layer" onClick={() => act.addLayer(freeLayerName(drawing), "profile")}>
          <Plus size={14} />
        </Small>
      </header>
      <RadioGroup.Root
        aria-label="Working layer"
        value={String(working)}
        onValueChange={(id) => act.setLayer(Number(id))}
        className="min-h-0 flex-1 overflow-y-auto"
      >
        {all.length > FEW && (
          <input
            type="search"
            aria-label="Find a layer"
            placeholder={`Find one of ${all.length}`}
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
            className="mx-2 mb-1.5 h-6 w-[calc(100%-1rem)] rounded-card border border-hair bg-board px-2 text-xs"
          />
        )}
        {shown.map((layer) => (
          <Row key={layer.id} layer={layer} count={counts.get(layer.id) ?? 0} working={layer.id === working} />
        ))}
        {shown.length === 0 && <p className="border-t border-hair px-3 py-1.5 text-soft">No layer has that name.</p>}
        <Annotations />
      </RadioGroup.Root>
    </section>
  );
};

/** Dimensions, notes and marks: shown or hidden, locked or not, all together. They are never cut. */
const Annotations = () => {
  const { act } = useSession();
  const hidden = useBench((state) => settingsOf(state.history.drawing).annotationsHidden === true);
  const locked = useBench((state) => settingsOf(state.history.drawing).annotationsLocked === true);
  return (
    <div className="flex h-7 items-center border-t border-hair pl-2">
      <span className="w-6 shrink-0" />
      <span className="min-w-0 flex-1 truncate px-1">Dimensions, notes</span>

      <Small
        label={hidden ? "Show dimensions and notes" : "Hide dimensions and notes"}
        onClick={() => act.setAnnotations({ hidden: !hidden })}
      >
        {hidden ? <EyeOff size={14} className="text-fault" /> : <Eye size={14} />}
      </Small>
      <Small
        label={locked ? "Unlock dimensions and notes" : "Lock dimensions and notes"}
        onClick={() => act.setAnnotations({ locked: !locked })}
      >
        {locked ? <LockKeyhole size={13} className="text-ink" /> : <LockKeyholeOpen size={13} />}
      </Small>
      <JobStyle className="grid h-7 w-6 shrink-0 place-items-center rounded-card text-soft hover:text-ink" />
    </div>
  );
};

const Small = ({ label, onClick, children }: { label: string; onClick: () => void; children: ReactNode }) => (
  <button
    type="button"
    aria-label={label}
    title={label}
    onMouseDown={(event) => event.preventDefault()}
    onClick={onClick}
    className="grid h-7 w-6 shrink-0 place-items-center rounded-card text-soft hover:text-ink"
  >
    {children}
  </button>
);

const Row = ({ layer, count, working }: { layer: Layer; count: number; working: boolean }) => {
  const { act } = useSession();
  const own = !FIRST_LAYERS.some(({ id }) => id === layer.id);
  return (
    <div
      data-layer={layer.id}
      className={`group flex h-7 items-center border-t border-hair pl-2 ${working ? "bg-ember-wash" : ""}`}
    >
      <RadioGroup.Item
        value={String(layer.id)}
        aria-label={`Draw on ${layer.name}`}
        disabled={layer.id === LAYOUT_LAYER}
        title={layer.id === LAYOUT_LAYER ? "The layout tools draw here by themselves" : `Draw on ${layer.name}`}
        onMouseDown={(event) => event.preventDefault()}
        className="grid h-7 w-6 shrink-0 place-items-center disabled:opacity-30"
      >
        <span className={`h-3 w-3 rounded-full border-2 ${working ? "border-ember bg-ember" : "border-soft"}`} />
      </RadioGroup.Item>
      {layer.colour !== undefined && <FileColour colour={layer.colour} bare />}
      <Name layer={layer} />
      {count > 0 && (
        <span className="figures mr-1 shrink-0 text-xs text-soft" title={`${count} on ${layer.name}`}>
          {count}
        </span>
      )}
      <select
        aria-label={`Role of ${layer.name}`}
        value={layer.role}
        disabled={!own}
        onChange={(event) => act.changeLayer(layer.id, { role: event.target.value as CutRole })}
        className={
          "h-6 w-[4.4rem] shrink-0 appearance-none rounded-card bg-transparent px-1 text-xs text-soft " +
          "enabled:hover:bg-board"
        }
      >
        {ROLES.map(([role, words]) => (
          <option key={role} value={role}>
            {words}
          </option>
        ))}
      </select>
      <Small
        label={layer.shown ? `Hide ${layer.name}` : `Show ${layer.name}`}
        onClick={() => act.changeLayer(layer.id, { shown: !layer.shown })}
      >
        {layer.shown ? <Eye size={14} /> : <EyeOff size={14} className="text-fault" />}
      </Small>
      <Small
        label={layer.locked ? `Unlock ${layer.name}` : `Lock ${layer.name}`}
        onClick={() => act.changeLayer(layer.id, { locked: !layer.locked })}
      >
        {layer.locked ? <LockKeyhole size={13} className="text-ink" /> : <LockKeyholeOpen size={13} />}
      </Small>
      <LayerMenu layer={layer} count={count} own={own} />
    </div>
  );
};

/** The name; written over on Enter, as before on Esc. */
const Name = ({ layer }: { layer: Layer }) => {
  const { act } = useSession();
  const [text, setText] = useState<string>();
  const keep = (): void => {
    if (text !== undefined && text.trim() !== layer.name) act.changeLayer(layer.id, { name: text });
    setText(undefined);
  };
  return (
    <input
      aria-label={`Name of ${layer.name}`}
      title={layer.name}
      value={text ?? layer.name}
      onChange={(event) => setText(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === "Enter") {
          keep();
          focusBoard();
        } else if (event.key === "Escape") {
          setText(undefined);
          focusBoard();
        }
      }}
      className="h-6 min-w-0 flex-1 truncate rounded-card bg-transparent px-1 hover:bg-board focus:bg-board"
    />
  );
};
