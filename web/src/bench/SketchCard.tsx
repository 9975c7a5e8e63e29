import { Maximize } from "lucide-react";
import { useRef, useState, type PointerEvent, type WheelEvent } from "react";
import { calloutText } from "@ash-edge/core/callouts";
import { calloutsOf, unitOf } from "@ash-edge/core/drawing";
import { useDatabase } from "../app/StoreProvider.tsx";
import type { JobRecord } from "../store/index.ts";
import { IconButton } from "../ui/IconButton.tsx";
import { useSketch } from "../ui/useSketch.ts";
import { useBench, useSession } from "./SessionContext.tsx";

type Place = { readonly zoom: number; readonly x: number; readonly y: number };
const WHOLE: Place = { zoom: 1, x: 0, y: 0 };

/** The customer's sketch, beside the board: zoomed with the wheel and dragged on its own, with the callouts' pins on it. */
export const SketchCard = ({ job }: { job: JobRecord }) => {
  const sketch = useSketch(useDatabase(), job.id);
  const [place, setPlace] = useState(WHOLE);
  const drag = useRef<{ x: number; y: number } | undefined>(undefined);
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
    drag.current = { x: event.clientX, y: event.clientY };
    setPlace((now) => ({ ...now, x: now.x + dx, y: now.y + dy }));
  };
  return (
    <section
      data-region="Sketch card"
      tabIndex={-1}
      role="region"
      aria-label="Sketch card"
      className="card flex h-full flex-col overflow-hidden"
    >
      <header className="flex h-8 shrink-0 items-center justify-between pl-3">
        <b>Sketch</b>
        {sketch && (
          <IconButton label="Show the whole sketch" disabled={place === WHOLE} onClick={() => setPlace(WHOLE)}>
            <Maximize size={14} />
          </IconButton>
        )}
      </header>
      {sketch ? (
        <div
          className="relative mx-2 mb-2 min-h-0 flex-1 cursor-grab overflow-hidden rounded-card border border-hair bg-[#efeadd] active:cursor-grabbing"
          onWheel={onWheel}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            drag.current = { x: event.clientX, y: event.clientY };
          }}
          onPointerMove={onPointerMove}
          onPointerUp={() => (drag.current = undefined)}
        >
          <div
            className="grid h-full w-full place-items-center"
            style={{ transform: `translate(${place.x}px, ${place.y}px) scale(${place.zoom})`, transformOrigin: "0 0" }}
          >
            <div className="relative flex h-full max-w-full items-center">
              <div className="relative max-h-full">
                <img
                  src={sketch.url}
                  alt={`The customer’s sketch of ${job.name}`}
                  draggable={false}
                  className="block max-h-full max-w-full"
                />
                <Pins zoom={place.zoom} />
              </div>
            </div>
          </div>
        </div>
      ) : (
        <p className="border-t border-hair px-3 py-4 text-soft">
          This job has no sketch: it was made from its name alone.
        </p>
      )}
    </section>
  );
};

const Pins = ({ zoom }: { zoom: number }) => {
  const { act } = useSession();
  const drawing = useBench((state) => state.drawing);
  const lit = useBench((state) => state.litCallout);
  return calloutsOf(drawing).map((callout) =>
    callout.pin ? (
      <button
        key={callout.id}
        type="button"
        tabIndex={-1}
        aria-label={`Callout ${calloutText(callout, unitOf(drawing))} on the sketch`}
        title={`${calloutText(callout, unitOf(drawing))} ${callout.name}`}
        onPointerDown={(event) => event.stopPropagation()}
        onMouseDown={(event) => event.preventDefault()}
        onMouseEnter={() =>
          act.light(
            callout.links.map(({ id }) => id),
            callout.id,
          )
        }
        onMouseLeave={() => act.light([])}
        onClick={() => act.useCallout(callout)}
        className={`absolute h-6 w-9 rounded-full border-2 ${callout.id === lit ? "border-[#b4461a]" : "border-transparent hover:border-[#b4461a]"}`}
        style={{
          left: `${callout.pin.x * 100}%`,
          top: `${callout.pin.y * 100}%`,
          transform: `translate(-50%, -50%) scale(${1 / Math.sqrt(zoom)})`,
        }}
      />
    ) : null,
  );
};
