import { useEffect, useRef, useState, type MouseEvent, type PointerEvent, type WheelEvent } from "react";
import { calloutText } from "@ash-edge/core/callouts";
import { calloutsOf, picturesOf, unitOf } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import type { ShownSketch } from "../ui/useSketch.ts";
import { useBench, useSession } from "./SessionContext.tsx";

export type Place = { readonly zoom: number; readonly x: number; readonly y: number };
type Size = { readonly width: number; readonly height: number };
export const WHOLE: Place = { zoom: 1, x: 0, y: 0 };
/** A press that moves less than this many pixels is a click. */
const STILL = 4;
const LARGEST_ZOOM = 24;

type Props = {
  readonly sketch: ShownSketch;
  readonly alt: string;
  readonly place: Place;
  readonly setPlace: (to: Place | ((now: Place) => Place)) => void;
};

/** How a picture `size` large, turned by `angle` (counter-clockwise), fits into a room. */
const fitOf = (size: Size, room: Size | undefined, angle: number): number => {
  if (!room) return 0;
  const [c, s] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))];
  const turned = { width: size.width * c + size.height * s, height: size.width * s + size.height * c };
  return Math.min(room.width / turned.width, room.height / turned.height);
};

/** A sketch picture: the wheel zooms, dragging pans, a click pins a callout or gives a place to the active tool. */
export const SketchPicture = ({ sketch, alt, place, setPlace }: Props) => {
  const { act } = useSession();
  const writing = useBench((state) => state.panels.writing);
  const large = useBench((state) => state.kept.card.large);
  const angle = useBench(
    (state) => picturesOf(state.history.drawing).find(({ blob }) => blob === sketch.id)?.angle ?? 0,
  );
  const picking = useBench((state) => state.hand.tool !== undefined && act.wantsPicture());
  const drag = useRef<{ x: number; y: number; moved: number } | undefined>(undefined);
  const image = useRef<HTMLImageElement>(null);
  const room = useRef<HTMLDivElement>(null);
  const [card, setCard] = useState<Size>();
  useEffect(() => {
    const element = room.current!;
    const observer = new ResizeObserver(() => setCard({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  // the whole picture, as large as the card has room for, so that pins keep their places on it
  const scale = fitOf(sketch, card, angle);
  const size = { blob: sketch.id, width: sketch.width, height: sketch.height };

  /** The place on the picture, in its own pixels: its middle stays the middle however it is turned. */
  const placeAt = (event: MouseEvent): Point => {
    const box = image.current!.getBoundingClientRect();
    const [dx, dy] = [event.clientX - box.left - box.width / 2, event.clientY - box.top - box.height / 2];
    const [c, s, k] = [Math.cos(angle), Math.sin(angle), scale * place.zoom];
    return { x: (dx * c - dy * s) / k + sketch.width / 2, y: (dx * s + dy * c) / k + sketch.height / 2 };
  };
  const isOn = ({ x, y }: Point): boolean => x >= 0 && y >= 0 && x <= sketch.width && y <= sketch.height;

  const onWheel = (event: WheelEvent<HTMLDivElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const [px, py] = [event.clientX - box.left, event.clientY - box.top];
    const by = event.deltaY < 0 ? 1.25 : 0.8;
    // from where the picture is by then: several turns of the wheel can come before it is shown again
    setPlace((now) => {
      const zoom = Math.min(LARGEST_ZOOM, Math.max(1, now.zoom * by));
      const real = zoom / now.zoom;
      return zoom === 1 ? WHOLE : { zoom, x: px - (px - now.x) * real, y: py - (py - now.y) * real };
    });
  };
  const onPointerMove = (event: PointerEvent): void => {
    if (picking) {
      const at = placeAt(event);
      act.moveOnCard(size, isOn(at) ? at : undefined);
    }
    if (!drag.current) return;
    const [dx, dy] = [event.clientX - drag.current.x, event.clientY - drag.current.y];
    drag.current = { x: event.clientX, y: event.clientY, moved: drag.current.moved + Math.abs(dx) + Math.abs(dy) };
    if (drag.current.moved >= STILL) setPlace((now) => ({ ...now, x: now.x + dx, y: now.y + dy }));
  };
  const onPointerUp = (event: PointerEvent): void => {
    const still = drag.current && drag.current.moved < STILL;
    drag.current = undefined;
    const at = placeAt(event);
    if (!still || !isOn(at)) return;
    if (picking) act.clickOnCard(size, at);
    else if (writing)
      act.setWriting({ ...writing, pin: { sketch: sketch.id, x: at.x / sketch.width, y: at.y / sketch.height } });
  };
  const aims = writing !== undefined || picking;
  return (
    <div
      className={
        "relative mx-2 mb-2 min-h-0 flex-1 overflow-hidden rounded-card border bg-[#efeadd] " +
        (picking ? "border-ember " : "border-hair ") +
        (aims ? "cursor-crosshair" : "cursor-grab active:cursor-grabbing")
      }
      onWheel={onWheel}
      onPointerDown={(event) => {
        if (aims) event.preventDefault(); // the line being written keeps the keyboard
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { x: event.clientX, y: event.clientY, moved: 0 };
      }}
      onMouseDown={(event) => aims && event.preventDefault()}
      onPointerMove={onPointerMove}
      onPointerLeave={() => picking && act.moveOnCard(size, undefined)}
      onPointerUp={onPointerUp}
      title={aims ? undefined : "Double click: larger, and as it was again"}
      onDoubleClick={() => !aims && act.setCard({ large: !large })}
    >
      <div
        ref={room}
        className="grid h-full w-full place-items-center"
        style={{ transform: `translate(${place.x}px, ${place.y}px) scale(${place.zoom})`, transformOrigin: "0 0" }}
      >
        <div
          className="relative shrink-0"
          style={{ width: scale * sketch.width, height: scale * sketch.height, rotate: `${-angle}rad` }}
        >
          <img ref={image} src={sketch.url} alt={alt} draggable={false} className="block h-full w-full" />
          <Plan sketch={sketch} pixel={1 / (scale * place.zoom)} />
          <Picks sketch={sketch} pixel={1 / (scale * place.zoom)} />
          <Pins sketch={sketch.id} zoom={place.zoom} />
        </div>
      </div>
    </div>
  );
};

/** The lines that were marked on the sketch as a plan. */
const Plan = ({ sketch, pixel }: { sketch: ShownSketch; pixel: number }) => {
  const drawing = useBench((state) => state.history.drawing);
  const plan = picturesOf(drawing).find(({ blob }) => blob === sketch.id)?.plan ?? [];
  if (plan.length === 0 || !Number.isFinite(pixel)) return null;
  return (
    <svg
      viewBox={`0 0 ${sketch.width} ${sketch.height}`}
      className="pointer-events-none absolute inset-0 h-full w-full"
      role="figure"
      aria-label={`Plan: ${plan.length} ${plan.length === 1 ? "line" : "lines"}`}
    >
      {plan.map(({ a, b }, i) => (
        <path
          key={i}
          d={`M${a.x} ${a.y}L${b.x} ${b.y}`}
          stroke="#45606b"
          strokeWidth={1.6 * pixel}
          strokeDasharray={`${10 * pixel} ${5 * pixel}`}
        />
      ))}
    </svg>
  );
};

/** The places that the active tool has been given on this picture, and the line through them to the pointer. */
const Picks = ({ sketch, pixel }: { sketch: ShownSketch; pixel: number }) => {
  const picks = useBench((state) => state.hand.tool?.picks);
  const onCard = useBench((state) => state.pointer.onCard);
  const picked = Object.values(picks ?? {}).filter(({ picture }) => picture?.blob === sketch.id);
  const { act } = useSession();
  const live = onCard && onCard.picture.blob === sketch.id && act.wantsPicture() ? [onCard.at] : [];
  const places = [...picked.map(({ at }) => at), ...live];
  if (places.length === 0 || !Number.isFinite(pixel)) return null;
  const line = places.map(({ x, y }) => `${x},${y}`).join(" ");
  return (
    <svg
      viewBox={`0 0 ${sketch.width} ${sketch.height}`}
      className="pointer-events-none absolute inset-0 h-full w-full"
      aria-hidden="true"
    >
      <g fill="none" stroke="#b4461a" strokeWidth={1.6 * pixel}>
        {places.length > 3 ? <polygon points={line} /> : <polyline points={line} />}
        {picked.map(({ at }, i) => (
          <path
            key={i}
            d={`M${at.x - 6 * pixel} ${at.y}h${12 * pixel}M${at.x} ${at.y - 6 * pixel}v${12 * pixel}`}
            strokeWidth={2 * pixel}
          />
        ))}
      </g>
    </svg>
  );
};

const Pins = ({ sketch, zoom }: { sketch: string; zoom: number }) => {
  const { act } = useSession();
  const drawing = useBench((state) => state.history.drawing);
  const lit = useBench((state) => state.selection.litCallout);
  const writing = useBench((state) => state.panels.writing);
  const picking = useBench((state) => state.hand.tool !== undefined && act.wantsPicture());
  const at = (pin: { x: number; y: number }) => ({
    left: `${pin.x * 100}%`,
    top: `${pin.y * 100}%`,
    transform: `translate(-50%, -50%) scale(${1 / Math.sqrt(zoom)})`,
  });
  return (
    <>
      {calloutsOf(drawing).map((callout) => {
        const { pin } = callout;
        if (pin?.sketch !== sketch || picking) return null;
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
            className={
              "absolute h-6 w-9 rounded-full border-2 " +
              (callout.id === lit
                ? "border-[#b4461a]"
                : writing
                  ? "border-[#b4461a55]"
                  : "border-transparent hover:border-[#b4461a]")
            }
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
