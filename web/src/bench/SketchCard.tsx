import { ChevronLeft, ChevronRight, ImagePlus, Maximize, Trash2 } from "lucide-react";
import { useEffect, useRef, useState, type PointerEvent, type WheelEvent } from "react";
import { toast } from "sonner";
import { calloutText } from "@ash-edge/core/callouts";
import { calloutsOf, unitOf } from "@ash-edge/core/drawing";
import { useDatabase } from "../app/StoreProvider.tsx";
import { addSketch, type JobRecord } from "../store/index.ts";
import { IconButton } from "../ui/IconButton.tsx";
import { filesOf, readPicture } from "../ui/readPicture.ts";
import { useSketches, type ShownSketch } from "../ui/useSketch.ts";
import { useBench, useSession } from "./SessionContext.tsx";

type Place = { readonly zoom: number; readonly x: number; readonly y: number };
type Size = { readonly width: number; readonly height: number };
const WHOLE: Place = { zoom: 1, x: 0, y: 0 };
/** A press that moves less than this many pixels is a click. */
const STILL = 4;

/** The customer's sketch, beside the board: zoomed with the wheel and dragged on its own, with the callouts' pins on it. */
export const SketchCard = ({ job }: { job: JobRecord }) => {
  const database = useDatabase();
  const sketches = useSketches(database, job.id);
  const [chosen, setChosen] = useState(0);
  const [place, setPlace] = useState(WHOLE);
  const picker = useRef<HTMLInputElement>(null);
  const which = Math.min(chosen, Math.max(0, (sketches?.length ?? 0) - 1));
  const sketch = sketches?.[which];

  const [add] = useState(() => async (files: readonly File[]): Promise<void> => {
    for (const file of files) {
      try {
        await addSketch(database, job.id, await readPicture(file));
        setChosen(Infinity);
        setPlace(WHOLE);
      } catch (reason) {
        toast.error((reason as Error).message);
      }
    }
  });
  useEffect(() => {
    const onPaste = (event: ClipboardEvent): void => {
      const files = filesOf(event.clipboardData);
      if (files.length > 0) void add(files);
    };
    window.addEventListener("paste", onPaste);
    return () => window.removeEventListener("paste", onPaste);
  }, [add]);
  const remove = async (shown: ShownSketch): Promise<void> => {
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
          <span className="ml-2 flex items-center text-xs text-soft">
            <IconButton label="Sketch before" disabled={which === 0} onClick={() => turn(-1)}>
              <ChevronLeft size={14} />
            </IconButton>
            <span className="figures">
              {which + 1} of {sketches.length}
            </span>
            <IconButton label="Next sketch" disabled={which === sketches.length - 1} onClick={() => turn(1)}>
              <ChevronRight size={14} />
            </IconButton>
          </span>
        )}
        <span className="flex-1" />
        {sketch && (
          <>
            <IconButton label="Show the whole sketch" disabled={place === WHOLE} onClick={() => setPlace(WHOLE)}>
              <Maximize size={14} />
            </IconButton>
            <IconButton label="Take this picture off the job" onClick={() => void remove(sketch)}>
              <Trash2 size={14} />
            </IconButton>
          </>
        )}
        <IconButton label="Add a picture" onClick={() => picker.current?.click()}>
          <ImagePlus size={14} />
        </IconButton>
        <input
          ref={picker}
          type="file"
          accept="image/png,image/jpeg,image/webp,image/svg+xml"
          multiple
          aria-label="Pictures of the sketch"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            void add([...(event.target.files ?? [])]);
            event.target.value = "";
          }}
        />
      </header>
      {sketch && (
        <Picture sketch={sketch} alt={`The customer’s sketch of ${job.name}`} place={place} setPlace={setPlace} />
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

type PictureProps = {
  readonly sketch: ShownSketch;
  readonly alt: string;
  readonly place: Place;
  readonly setPlace: (to: Place | ((now: Place) => Place)) => void;
};

const Picture = ({ sketch, alt, place, setPlace }: PictureProps) => {
  const { act } = useSession();
  const writing = useBench((state) => state.writing);
  const drag = useRef<{ x: number; y: number; moved: number } | undefined>(undefined);
  const image = useRef<HTMLImageElement>(null);
  const room = useRef<HTMLDivElement>(null);
  const [natural, setNatural] = useState<Size>();
  const [card, setCard] = useState<Size>();
  useEffect(() => {
    const element = room.current!;
    const observer = new ResizeObserver(() => setCard({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  // the whole picture, as large as the card has room for, so that pins keep their places on it
  const scale = natural && card ? Math.min(card.width / natural.width, card.height / natural.height) : 0;
  const fitted = { width: scale * (natural?.width ?? 0), height: scale * (natural?.height ?? 0) };
  const onWheel = (event: WheelEvent<HTMLDivElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const [px, py] = [event.clientX - box.left, event.clientY - box.top];
    const zoom = Math.min(12, Math.max(1, place.zoom * (event.deltaY < 0 ? 1.25 : 0.8)));
    const real = zoom / place.zoom;
    setPlace(zoom === 1 ? WHOLE : { zoom, x: px - (px - place.x) * real, y: py - (py - place.y) * real });
  };
  const onPointerMove = (event: PointerEvent): void => {
    if (!drag.current) return;
    const [dx, dy] = [event.clientX - drag.current.x, event.clientY - drag.current.y];
    drag.current = { x: event.clientX, y: event.clientY, moved: drag.current.moved + Math.abs(dx) + Math.abs(dy) };
    if (drag.current.moved >= STILL) setPlace((now) => ({ ...now, x: now.x + dx, y: now.y + dy }));
  };
  const onPointerUp = (event: PointerEvent): void => {
    const still = drag.current && drag.current.moved < STILL;
    drag.current = undefined;
    const box = image.current?.getBoundingClientRect();
    if (!still || !writing || !box) return;
    const [x, y] = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    if (x >= 0 && x <= 1 && y >= 0 && y <= 1) act.setWriting({ ...writing, pin: { sketch: sketch.id, x, y } });
  };
  return (
    <div
      className={`relative mx-2 mb-2 min-h-0 flex-1 overflow-hidden rounded-card border border-hair bg-[#efeadd] ${writing ? "cursor-crosshair" : "cursor-grab active:cursor-grabbing"}`}
      onWheel={onWheel}
      onPointerDown={(event) => {
        if (writing) event.preventDefault(); // the line being written keeps the keyboard
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { x: event.clientX, y: event.clientY, moved: 0 };
      }}
      onMouseDown={(event) => writing && event.preventDefault()}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
    >
      <div
        ref={room}
        className="grid h-full w-full place-items-center"
        style={{ transform: `translate(${place.x}px, ${place.y}px) scale(${place.zoom})`, transformOrigin: "0 0" }}
      >
        <div className="relative" style={fitted}>
          <img
            ref={image}
            src={sketch.url}
            alt={alt}
            draggable={false}
            className="block h-full w-full"
            onLoad={(event) =>
              setNatural({ width: event.currentTarget.naturalWidth, height: event.currentTarget.naturalHeight })
            }
          />
          <Pins sketch={sketch.id} zoom={place.zoom} />
        </div>
      </div>
    </div>
  );
};

const Pins = ({ sketch, zoom }: { sketch: string; zoom: number }) => {
  const { act } = useSession();
  const drawing = useBench((state) => state.drawing);
  const lit = useBench((state) => state.litCallout);
  const writing = useBench((state) => state.writing);
  const at = (pin: { x: number; y: number }) => ({
    left: `${pin.x * 100}%`,
    top: `${pin.y * 100}%`,
    transform: `translate(-50%, -50%) scale(${1 / Math.sqrt(zoom)})`,
  });
  return (
    <>
      {calloutsOf(drawing).map((callout) => {
        const { pin } = callout;
        if (pin?.sketch !== sketch) return null;
        const text = calloutText(callout, unitOf(drawing));
        return (
          <button
            key={callout.id}
            type="button"
            tabIndex={-1}
            aria-label={`Callout ${text} on the sketch`}
            title={`${text} ${callout.name}`}
            onPointerDown={(event) => !writing && event.stopPropagation()}
            onMouseDown={(event) => event.preventDefault()}
            onMouseEnter={() =>
              act.light(
                callout.links.map(({ id }) => id),
                callout.id,
              )
            }
            onMouseLeave={() => act.light([])}
            onClick={() => !writing && act.useCallout(callout)}
            className={`absolute h-6 w-9 rounded-full border-2 ${callout.id === lit ? "border-[#b4461a]" : writing ? "border-[#b4461a55]" : "border-transparent hover:border-[#b4461a]"}`}
            style={at(pin)}
          />
        );
      })}
      {writing?.pin?.sketch === sketch && (
        <span
          className="pointer-events-none absolute h-6 w-9 rounded-full border-2 border-dashed border-[#b4461a]"
          style={at(writing.pin)}
        />
      )}
    </>
  );
};
