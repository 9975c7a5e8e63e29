import { X } from "lucide-react";
import { Fragment, useLayoutEffect, useRef, useState } from "react";
import { entityOf, type Drawing } from "@ash-edge/core/drawing";
import { unionBounds, type Point } from "@ash-edge/core/geometry";
import type { Id } from "@ash-edge/core/numeric";
import { shapeBounds } from "@ash-edge/core/shape";
import { toolById } from "@ash-edge/tools";
import { Segmented } from "../../ui/Choice.tsx";
import { shownAnnotations } from "../annotated.ts";
import { toScreen, type Size, type View } from "../board/view.ts";
import { Hint, PartView } from "../SentenceParts.tsx";
import { useBench, useSession } from "../SessionContext.tsx";
import { actionsOf } from "./actions.ts";

/** How far the card stands off its handle, and off the edge of the board. */
const OFF = 18;
const MARGIN = 6;

type Box = { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number };

/** What is selected, on the board in CSS pixels. */
const selectedBox = (drawing: Drawing, selection: ReadonlySet<Id>, view: View): Box | undefined => {
  const shown = shownAnnotations(drawing, view.scale, false);
  const all = unionBounds(
    [...selection].flatMap((id) => {
      const entity = entityOf(drawing, id);
      const own = entity ? shapeBounds(entity) : shown.find((one) => one.id === id)?.bounds;
      return own ?? [];
    }),
  );
  if (!all) return undefined;
  const [a, b] = [toScreen(view, { x: all.minX, y: all.maxY }), toScreen(view, { x: all.maxX, y: all.minY })];
  return { left: a.x, top: a.y, right: b.x, bottom: b.y };
};

/** Beside the handle, or above or below the thing, wherever the card hides the least of it; always on the board. */
const besideHandle = (
  at: Point,
  thing: Box,
  room: Size,
  size: Size,
): { readonly left: number; readonly top: number } => {
  const [right, left] = [at.x + OFF, at.x - OFF - room.width];
  const [down, up] = [at.y + OFF, at.y - OFF - room.height];
  const wanted = [
    [right, down],
    [right, up],
    [left, down],
    [left, up],
    [right, thing.bottom + OFF],
    [right, thing.top - OFF - room.height],
  ].map(([x, y]) => ({
    left: Math.min(Math.max(MARGIN, x!), Math.max(MARGIN, size.width - room.width - MARGIN)),
    top: Math.min(Math.max(MARGIN, y!), Math.max(MARGIN, size.height - room.height - MARGIN)),
  }));
  const hidden = ({ left: x, top: y }: { left: number; top: number }): number => {
    const over = (from: number, to: number, start: number, end: number): number =>
      Math.max(0, Math.min(to, end) - Math.max(from, start));
    const onThing =
      over(x, x + room.width, thing.left, thing.right) * over(y, y + room.height, thing.top, thing.bottom);
    const onHandle = over(x, x + room.width, at.x - OFF, at.x + OFF) * over(y, y + room.height, at.y - OFF, at.y + OFF);
    return onThing + 100 * onHandle;
  };
  return wanted.reduce((best, one) => (hidden(one) < hidden(best) ? one : best));
};

/** What a handle offers, as a short sentence beside it. */
export const HandleCard = () => {
  const { act } = useSession();
  const grabbed = useBench((state) => state.hand.grabbed);
  const tool = toolById(useBench((state) => state.hand.toolId));
  const drawing = useBench((state) => state.history.drawing);
  const view = useBench((state) => state.view.now);
  const size = useBench((state) => state.view.size);
  const selection = useBench((state) => state.selection.ids);
  const card = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 320, height: 80 });
  const inHand = grabbed !== undefined;
  useLayoutEffect(() => {
    const element = card.current;
    if (!element) return;
    // what stands in its blanks makes it wider and narrower
    const observer = new ResizeObserver(() => setRoom({ width: element.offsetWidth, height: element.offsetHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, [inHand]);
  if (!grabbed || !tool) return null;
  const at = toScreen(view, grabbed.handle.at);
  const thing = selectedBox(drawing, selection, view) ?? { left: at.x, right: at.x, top: at.y, bottom: at.y };
  const actions = actionsOf(drawing, grabbed.handle);
  const place = besideHandle(at, thing, room, size);
  return (
    <div
      ref={card}
      data-steer
      role="group"
      aria-label={tool.name}
      className="card absolute z-20 flex w-max max-w-[384px] flex-col items-start gap-1.5 py-1.5 px-2"
      style={place}
    >
      <span className="flex items-center gap-1.5">
        {actions.length > 1 ? (
          <Segmented
            label="at this handle"
            options={actions.map(({ words }) => [words, words] as const)}
            value={grabbed.words}
            onChange={(words) => act.grab(grabbed.handle, words)}
          />
        ) : (
          <b className="text-[15px] text-ember">{tool.name}</b>
        )}
        <button
          type="button"
          aria-label="Let the handle go"
          title="Let the handle go (Esc)"
          onMouseDown={(event) => event.preventDefault()}
          onClick={act.drop}
          className="grid h-7 w-7 shrink-0 place-items-center rounded-card text-soft hover:bg-ground hover:text-ink"
        >
          <X size={15} aria-hidden="true" />
        </button>
      </span>
      <span className="flex flex-wrap items-center gap-x-1.5 gap-y-1.5">
        {tool.parts.map((part, i) => (
          <Fragment key={`${tool.id} ${i}`}>
            <PartView tool={tool} part={part} />
          </Fragment>
        ))}
        <Hint />
      </span>
    </div>
  );
};
