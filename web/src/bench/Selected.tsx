import { ChevronDown, ChevronLeft, ChevronRight } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import {
  annotationOf,
  entityOf,
  layersOf,
  LINE_STYLES,
  unitOf,
  type Drawing,
  type Entity,
} from "@ash-edge/core/drawing";
import { describePoint, describeRef } from "@ash-edge/core/look";
import { agreed, readTypedValue, showAngle, showLength, type Id, type Unit } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import { propertiesOf, type Property } from "@ash-edge/core/shape";
import { MENU, MENU_ITEM } from "../ui/menu.ts";
import { countSelected } from "./annotated.ts";
import { dragToLayer } from "./dragToLayer.ts";
import { shownHandles } from "./handles/shown.ts";
import { RoleChoice } from "./RoleChoice.tsx";
import { SelectedAnnotations } from "./SelectedAnnotations.tsx";
import { FileColour } from "./FileColour.tsx";
import { useBench, useSession } from "./SessionContext.tsx";
import { backToBoard, focusBoard } from "./useBenchKeys.ts";

/** More handles than this are for the pointer. */
const MOST_LISTED = 60;

/** What is selected: its numbers, which can be typed over, its layer and its line. */
export const Selected = () => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const selection = useBench((state) => state.selection.ids);
  const entities = [...selection].map((id) => entityOf(drawing, id)).filter((entity) => entity !== undefined);
  const annotations = [...selection].map((id) => annotationOf(drawing, id)).filter((one) => one !== undefined);
  return (
    <section
      data-region="Selected"
      tabIndex={-1}
      role="region"
      aria-label="Selected"
      className="card flex h-full flex-col overflow-hidden"
    >
      <header
        title={entities.length > 0 ? "Drag it onto a layer to put what is selected there" : undefined}
        onPointerDown={(event) =>
          entities.length > 0 && dragToLayer(event, (layer) => act.putOnLayer([...selection], layer))
        }
        className={`flex h-8 shrink-0 items-center gap-2 px-3 ${entities.length > 0 ? "cursor-grab" : ""}`}
      >
        <b>Selected</b>
        <span className="min-w-0 flex-1 truncate text-xs text-soft">
          {countSelected(drawing, selection) || "nothing"}
        </span>
        <Handles drawing={drawing} />
      </header>
      {entities.length === 0 && annotations.length > 0 ? (
        <div className="min-h-0 flex-1 overflow-y-auto border-t border-hair px-3 py-1.5">
          <SelectedAnnotations annotations={annotations} drawing={drawing} />
        </div>
      ) : entities.length === 0 ? (
        <p className="border-t border-hair px-3 py-2 text-soft">
          Click something with no tool active, or draw a box round it. Its numbers stand here and can be typed over.
        </p>
      ) : (
        <div className="min-h-0 flex-1 overflow-y-auto border-t border-hair px-3 py-1.5">
          {entities.length === 1 && entities[0]!.kind === "chain" && <Vertices chain={entities[0]!} />}
          <Numbers entities={entities} drawing={drawing} />
          <Belongs entities={entities} drawing={drawing} />
        </div>
      )}
    </section>
  );
};

/** The handles by name, for the keyboard; each opens what it offers on the board. */
const Handles = ({ drawing }: { drawing: Drawing }) => {
  const { act } = useSession();
  const shown = useBench((state) => shownHandles(state));
  if (shown.length === 0) return null;
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className={
          "flex h-6 shrink-0 items-center gap-1 rounded-card border border-hair px-1.5 text-xs " +
          "text-soft hover:border-ink hover:text-ink"
        }
      >
        Handles
        <ChevronDown size={14} aria-hidden="true" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className={`${MENU} max-h-72 overflow-y-auto`}
          aria-label="Handles"
          onCloseAutoFocus={backToBoard}
        >
          {shown.slice(0, MOST_LISTED).map((handle, i) => (
            <DropdownMenu.Item key={i} className={MENU_ITEM} onSelect={() => act.grab(handle)}>
              {handle.kind} <span className="figures pl-2 text-soft">{describePoint(drawing, handle.at)}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
};

/** Steps through the corners of a chain; the one stepped to is lit on the board and its numbers can be typed. */
const Vertices = ({ chain }: { chain: Entity & { kind: "chain" } }) => {
  const { act } = useSession();
  const vertex = useBench((state) => state.selection.vertex);
  const n = chain.vertices.length;
  const at = chain.vertices.findIndex(({ id }) => id === vertex);
  const step = (by: number): void => act.stepVertex(chain.vertices[(at + by + n) % n]!.id);
  const button = "grid h-6 w-6 place-items-center rounded-card text-soft hover:text-ink";
  return (
    <div className="flex items-center gap-1 pb-1">
      <span className="flex-1 text-soft">{at < 0 ? `${n} corners` : `corner ${at + 1} of ${n}`}</span>
      <button type="button" aria-label="Corner before" className={button} onClick={() => step(at < 0 ? 0 : -1)}>
        <ChevronLeft size={14} aria-hidden="true" />
      </button>
      <button type="button" aria-label="Next corner" className={button} onClick={() => step(1)}>
        <ChevronRight size={14} aria-hidden="true" />
      </button>
    </div>
  );
};

/**
 * The properties that all share by name; a value that is not the same everywhere is left blank, to be typed for all.
 */
const Numbers = ({ entities, drawing }: { entities: readonly Entity[]; drawing: Drawing }) => {
  const vertex = useBench((state) => state.selection.vertex);
  const lists = entities.map((entity) => propertiesOf(entity, vertex));
  const shared = lists[0]!.filter(({ name }) => lists.every((list) => list.some((one) => one.name === name)));
  return (
    <div className="grid grid-cols-[auto_1fr_auto_1fr] items-center gap-x-2 gap-y-1">
      {shared.map((property) => {
        const values = lists.map((list) => list.find(({ name }) => name === property.name)!.value);
        const same = values.every((value) => value === values[0]);
        return (
          <Field
            key={`${[...entities.map(({ id }) => id)].join()} ${vertex} ${property.name}`}
            property={property}
            value={same ? property.value : undefined}
            unit={unitOf(drawing)}
          />
        );
      })}
    </div>
  );
};

const Field = ({ property, value, unit }: { property: Property; value: number | undefined; unit: Unit }) => {
  const { act } = useSession();
  const [text, setText] = useState<string>();
  const isAngle = property.kind === "angle";
  const shown = value === undefined ? "" : isAngle ? showAngle(value) : showLength(value, unit);
  const keep = (): boolean => {
    if (text === undefined || text.trim() === "") {
      setText(undefined);
      return true;
    }
    const read = readTypedValue(text, { unit, expects: isAngle ? "angle" : "length" });
    if (!read.ok) {
      act.say({ text: sayRefusal(read.refusal, unit), tone: "fault" });
      return false;
    }
    if (!act.changeProperty(property.name, read.value.value)) return false;
    setText(undefined);
    return true;
  };
  return (
    <label className="contents">
      <span className="text-soft">{property.label}</span>
      <input
        aria-label={property.label}
        autoComplete="off"
        spellCheck={false}
        value={text ?? shown}
        placeholder={value === undefined ? "differs" : ""}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => void keep()}
        onKeyDown={(event) => {
          if (event.key === "Enter" && keep()) focusBoard();
          if (event.key === "Escape") {
            setText(undefined);
            focusBoard();
          }
        }}
        title={shown}
        className={
          "figures h-6 w-full min-w-0 rounded-card border border-hair bg-board px-1 text-[13px] placeholder:text-soft"
        }
      />
    </label>
  );
};

const Belongs = ({ entities, drawing }: { entities: readonly Entity[]; drawing: Drawing }) => {
  const { act } = useSession();
  const layer = agreed(entities.map((entity) => entity.layer));
  const lines = entities.map(({ line }) => line ?? "role");
  const colours = entities.map((entity) => entity.colour);
  const colour = agreed(colours);
  const ids: readonly Id[] = entities.map(({ id }) => id);
  const select = "h-6 w-full min-w-0 rounded-card border border-hair bg-board text-xs";
  return (
    <div className="mt-1 grid grid-cols-[auto_1fr_auto_1fr] items-center gap-x-2 gap-y-1">
      <span className="text-soft">layer</span>
      <select
        aria-label="layer"
        value={layer ?? ""}
        onChange={(event) => act.putOnLayer(ids, Number(event.target.value))}
        className={select}
      >
        {layer === undefined && <option value="">differs</option>}
        {layersOf(drawing).map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      <span className="text-soft">role</span>
      <RoleChoice ids={ids} className={select} />
      <span className="text-soft">line</span>
      <select
        aria-label="line"
        value={agreed(lines) ?? ""}
        onChange={(event) => act.setLine(event.target.value === "role" ? undefined : event.target.value)}
        className={select}
      >
        {agreed(lines) === undefined && <option value="">differs</option>}
        <option value="role">as its role has it</option>
        {[...new Set<string>([...LINE_STYLES, ...entities.flatMap(({ line }) => line ?? [])])].map((style) => (
          <option key={style} value={style}>
            {style}
          </option>
        ))}
      </select>
      {colours.some((one) => one !== undefined) && (
        <>
          <span className="text-soft">colour</span>
          <span className="col-span-3 flex min-w-0 items-center gap-2">
            {colour === undefined ? "differs" : <FileColour colour={colour} />}
            <button
              type="button"
              title="Draws it as its role has it; the file’s colour is let go"
              onClick={act.dropColours}
              className="ml-auto h-6 rounded-card border border-hair bg-board px-2 whitespace-nowrap hover:border-ink"
            >
              as its role
            </button>
          </span>
        </>
      )}
      {entities.length === 1 && (
        <>
          <span className="text-soft">is</span>
          <span className="truncate">{describeRef(drawing, { id: entities[0]!.id })}</span>
        </>
      )}
    </div>
  );
};
