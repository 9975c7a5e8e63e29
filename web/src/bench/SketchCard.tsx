import {
  ChevronLeft,
  ChevronRight,
  Ellipsis,
  Eye,
  ImagePlus,
  Lock,
  Maximize,
  Maximize2,
  Minimize2,
  PanelLeft,
  PanelRight,
  Layers2,
  Trash2,
} from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import { createPortal } from "react-dom";
import { toast } from "sonner";
import { picturesOf } from "@ash-edge/core/drawing";
import { useDatabase } from "../app/StoreProvider.tsx";
import { addSketch, isStoreFault, sayStoreFault, type JobRecord } from "../store/index.ts";
import { IconButton } from "../ui/IconButton.tsx";
import { MENU, MENU_ITEM } from "../ui/menu.ts";
import { filesOf } from "../ui/readPicture.ts";
import { PICTURE_TYPES, useTakenPictures } from "../ui/useTakenPictures.tsx";
import type { ShownSketch } from "../ui/useSketch.ts";
import { useBench, useSession } from "./SessionContext.tsx";
import { useShownSketches } from "./SketchesContext.ts";
import { SketchPicture, WHOLE } from "./SketchPicture.tsx";

/**
 * The customer's sketch, beside the board: zoomed with the wheel and dragged on its own, with the callouts' pins on it.
 */
export const SketchCard = ({ job }: { job: JobRecord }) => {
  const { act } = useSession();
  const database = useDatabase();
  const sketches = useShownSketches();
  const [chosen, setChosen] = useState(0);
  const [place, setPlace] = useState(WHOLE);
  const picker = useRef<HTMLInputElement>(null);
  const which = Math.min(chosen, Math.max(0, (sketches?.length ?? 0) - 1));
  const sketch = sketches?.[which];
  const large = useBench((state) => state.kept.card.large);

  const { take, dialog } = useTakenPictures(
    async (picture) => {
      await addSketch(database, job.id, picture);
      setChosen(Infinity);
      setPlace(WHOLE);
    },
    (reason) => void toast.error(isStoreFault(reason) ? sayStoreFault(reason) : reason.message),
  );
  const taking = useRef(take);
  useEffect(() => {
    taking.current = take;
  });
  const [add] = useState(() => async (files: readonly File[]): Promise<void> => {
    if (files.length > 0 && act.isReadOnly()) return;
    await taking.current(files);
  });
  useEffect(() => {
    const onPaste = (event: ClipboardEvent): void => {
      const files = filesOf(event.clipboardData);
      if (files.length > 0) void add(files);
    };
    window.addEventListener("paste", onPaste);
    return () => window.removeEventListener("paste", onPaste);
  }, [add]);
  // a picture that was straightened just now is what the drafter wants to see
  const straightened = sketches?.filter(({ from }) => from).length ?? 0;
  const [known, setKnown] = useState(straightened);
  if (sketches && straightened !== known) {
    setKnown(straightened);
    if (straightened > known) setChosen(Infinity);
    setPlace(WHOLE);
  }
  const remove = async (shown: ShownSketch): Promise<void> => {
    if (act.isReadOnly()) return;
    const record = await database.blobs.get(shown.id);
    if (!record) return;
    await database.blobs.delete(shown.id);
    toast(`${shown.name} taken off the job`, {
      action: { label: "Undo", onClick: () => void database.blobs.put(record) },
    });
  };
  const turn = (by: number): void => {
    setChosen(which + by);
    setPlace(WHOLE);
  };

  return (
    <section
      data-region="Sketch card"
      tabIndex={-1}
      role="region"
      aria-label="Sketch card"
      className="card flex h-full flex-col overflow-hidden"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        void add(filesOf(event.dataTransfer));
      }}
    >
      <header className="flex h-8 shrink-0 items-center pl-3">
        <b>Sketch</b>
        {sketches && sketches.length > 1 && (
          <span className="ml-1 flex items-center text-xs text-soft">
            <IconButton narrow label="Sketch before" disabled={which === 0} onClick={() => turn(-1)}>
              <ChevronLeft size={14} />
            </IconButton>
            <span className="figures whitespace-nowrap">
              {which + 1} of {sketches.length}
            </span>
            <IconButton narrow label="Next sketch" disabled={which === sketches.length - 1} onClick={() => turn(1)}>
              <ChevronRight size={14} />
            </IconButton>
          </span>
        )}
        <span className="flex-1" />
        {sketch && (
          <>
            <IconButton narrow label="Show the whole sketch" disabled={place === WHOLE} onClick={() => setPlace(WHOLE)}>
              <Maximize size={14} />
            </IconButton>
            <Peek sketch={sketch} />
            <IconButton
              narrow
              label={large ? "Make the sketch card smaller" : "Enlarge the sketch card"}
              onClick={() => act.setCard({ large: !large })}
            >
              {large ? <Minimize2 size={14} /> : <Maximize2 size={14} />}
            </IconButton>
          </>
        )}
        <More sketch={sketch} onAdd={() => picker.current?.click()} onRemove={(shown) => void remove(shown)} />
        <input
          ref={picker}
          type="file"
          accept={PICTURE_TYPES}
          multiple
          aria-label="Pictures of the sketch"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            void add([...(event.target.files ?? [])]);
            event.target.value = "";
          }}
        />
        {dialog}
      </header>
      {sketch && (
        <SketchPicture
          key={sketch.id}
          sketch={sketch}
          alt={`The customer’s sketch of ${job.name}`}
          place={place}
          setPlace={setPlace}
        />
      )}
      {sketches && !sketch && (
        <div className="border-t border-hair px-3 py-3 text-soft">
          <p>No sketch yet. Drop a picture here, paste one, or pick one.</p>
          <button
            type="button"
            className="mt-2 h-8 rounded-card border border-hair px-3 text-ink hover:border-ink"
            onClick={() => picker.current?.click()}
          >
            Pick a picture
          </button>
        </div>
      )}
    </section>
  );
};

/** Holding this button shows the sketch large over the board; letting go puts it back. */
const Peek = ({ sketch }: { sketch: ShownSketch }) => {
  const [box, setBox] = useState<DOMRect>();
  const start = (): void => setBox(document.querySelector('[data-region="Board"]')?.getBoundingClientRect());
  const stop = (): void => setBox(undefined);
  return (
    <>
      <button
        type="button"
        aria-label="Hold to peek at the sketch"
        title="Hold to see the sketch large over the board"
        className="grid h-8 w-7 place-items-center rounded-card text-soft hover:bg-ground hover:text-ink"
        onPointerDown={start}
        onPointerUp={stop}
        onPointerLeave={stop}
        onKeyDown={(event) => (event.key === " " || event.key === "Enter") && start()}
        onKeyUp={stop}
        onBlur={stop}
      >
        <Eye size={14} aria-hidden="true" />
      </button>
      {box &&
        createPortal(
          <div
            className="card pointer-events-none fixed z-30 grid place-items-center bg-[#efeadd]! p-2"
            style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
          >
            <img src={sketch.url} alt="The sketch, large" className="max-h-full max-w-full object-contain" />
          </div>,
          document.body,
        )}
    </>
  );
};

const OPACITIES = [0.2, 0.4, 0.6, 0.8, 1];

/** What else can be done with the picture and the card. */
const More = ({
  sketch,
  onAdd,
  onRemove,
}: {
  sketch: ShownSketch | undefined;
  onAdd: () => void;
  onRemove: (sketch: ShownSketch) => void;
}) => {
  const { act } = useSession();
  const side = useBench((state) => state.kept.card.side);
  const picture = useBench((state) => picturesOf(state.history.drawing).find(({ blob }) => blob === sketch?.id));
  const size = sketch && { blob: sketch.id, width: sketch.width, height: sketch.height };
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label="More for the sketch"
        className="grid h-8 w-7 place-items-center rounded-card text-soft hover:bg-ground hover:text-ink"
      >
        <Ellipsis size={15} aria-hidden="true" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={MENU} align="end">
          <DropdownMenu.Item className={MENU_ITEM} onSelect={onAdd}>
            <ImagePlus size={14} aria-hidden="true" /> Add a picture
          </DropdownMenu.Item>
          {size && (
            <>
              <DropdownMenu.CheckboxItem
                className={MENU_ITEM}
                checked={picture?.shown ?? false}
                onCheckedChange={(shown) => act.changePicture(size, { shown })}
              >
                <Layers2 size={14} aria-hidden="true" /> Under the drawing {picture?.shown ? "✓" : ""}
              </DropdownMenu.CheckboxItem>
              {picture?.shown && (
                <>
                  <div className="flex items-center gap-1 px-2.5 py-1 text-soft">
                    Strength
                    <DropdownMenu.RadioGroup
                      className="flex"
                      value={String(picture.opacity)}
                      onValueChange={(value) => act.changePicture(size, { opacity: Number(value) })}
                    >
                      {OPACITIES.map((value) => (
                        <DropdownMenu.RadioItem
                          key={value}
                          value={String(value)}
                          onSelect={(event) => event.preventDefault()}
                          className={
                            "figures rounded-card px-1.5 text-xs outline-none data-[highlighted]:bg-ember-wash " +
                            "data-[state=checked]:bg-ink data-[state=checked]:text-panel"
                          }
                        >
                          {value * 100} %
                        </DropdownMenu.RadioItem>
                      ))}
                    </DropdownMenu.RadioGroup>
                  </div>
                  <DropdownMenu.CheckboxItem
                    className={MENU_ITEM}
                    checked={picture.locked}
                    onCheckedChange={(locked) => act.changePicture(size, { locked })}
                  >
                    <Lock size={14} aria-hidden="true" /> Locked where it lies {picture.locked ? "✓" : ""}
                  </DropdownMenu.CheckboxItem>
                </>
              )}
              <DropdownMenu.Separator className="my-1 h-px bg-hair" />
              {(
                [
                  ["scale-picture", "Scale it by a length"],
                  ["level-picture", "Level it"],
                  ["straighten-picture", "Straighten it by four corners"],
                  ["place-picture", "Place it under the drawing"],
                ] as const
              ).map(([tool, words]) => (
                <DropdownMenu.Item key={tool} className={MENU_ITEM} onSelect={() => act.take(tool)}>
                  {words}
                </DropdownMenu.Item>
              ))}
            </>
          )}
          <DropdownMenu.Separator className="my-1 h-px bg-hair" />
          <DropdownMenu.Item
            className={MENU_ITEM}
            onSelect={() => act.setCard({ side: side === "left" ? "right" : "left" })}
          >
            {side === "left" ? <PanelRight size={14} aria-hidden="true" /> : <PanelLeft size={14} aria-hidden="true" />}
            {side === "left" ? "Dock right" : "Dock left"}
          </DropdownMenu.Item>
          {sketch && (
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => onRemove(sketch)}>
              <Trash2 size={14} aria-hidden="true" /> Take this picture off the job
            </DropdownMenu.Item>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
};
