import type Konva from "konva";
import { useEffect, useMemo, useRef, type MouseEvent, type PointerEvent } from "react";
import { Layer, Shape, Stage } from "react-konva";
import { useTheme } from "../../ui/theme.ts";
import { isSaved, type Modifiers } from "../state/index.ts";
import { isLarge } from "../derived.ts";
import { useBench, useSession } from "../SessionContext.tsx";
import { useShownSketches } from "../SketchesContext.ts";
import { BoardMenu } from "./BoardMenu.tsx";
import { paintLively } from "./paintLively.ts";
import { paintDrawing, paintPainted, type Images } from "./paintStill.ts";
import { readPalette } from "./palette.ts";

const raw = (context: Konva.Context): CanvasRenderingContext2D =>
  (context as unknown as { _context: CanvasRenderingContext2D })._context;
/** Marks when a job's geometry was first on the screen, for measuring. */
const markFirstFrame = (width: number): void => {
  if (width > 0 && performance.getEntriesByName("first-board-frame").length === 0)
    performance.mark("first-board-frame");
};
const modifiersOf = (event: MouseEvent): Modifiers => ({
  shift: event.shiftKey,
  alt: event.altKey,
  control: event.ctrlKey || event.metaKey,
});

/** The area where the geometry is: two layers, one for what lies still and one for what moves. */
export const Board = () => {
  const session = useSession();
  const { act } = session;
  const box = useRef<HTMLDivElement>(null);
  const lively = useRef<Konva.Shape>(null);
  const closing = useRef(false);
  const panning = useRef<{ x: number; y: number } | undefined>(undefined);
  const [theme] = useTheme();
  const palette = useMemo(() => (theme ? readPalette() : readPalette()), [theme]);
  const drawing = useBench((state) => state.history.drawing);
  const index = useBench((state) => state.history.index);
  const view = useBench((state) => state.view.now);
  const size = useBench((state) => state.view.size);
  const revision = useBench((state) => state.history.steps.position);
  const saved = useBench((state) => isSaved(state.history));
  const signsHidden = useBench((state) => state.view.signsHidden);
  useBench((state) => state.history.derivedAt);
  const sketches = useShownSketches();
  const images: Images = useMemo(() => new Map(sketches?.map(({ id, image }) => [id, image])), [sketches]);
  const still = useRef<Konva.Shape>(null);
  const onHandle = useBench((state) => state.pointer.grip !== undefined);
  const hasTool = useBench((state) => state.hand.toolId !== undefined);

  useEffect(() => {
    const element = box.current!;
    const observer = new ResizeObserver(() => act.resize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    const onWheel = (event: globalThis.WheelEvent): void => {
      event.preventDefault();
      const { left, top } = element.getBoundingClientRect();
      if (event.shiftKey || event.deltaX !== 0)
        act.pan(-(event.deltaX || event.deltaY), event.shiftKey ? 0 : -event.deltaY);
      else act.zoom({ x: event.clientX - left, y: event.clientY - top }, 1.0015 ** -event.deltaY);
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => {
      observer.disconnect();
      element.removeEventListener("wheel", onWheel);
    };
  }, [act]);

  // A great drawing is painted in a worker; what it painted last is shown, laid where it belongs, until the next comes.
  const large = isLarge(drawing);
  useEffect(() => {
    if (large && size.width > 0)
      session.act.mass()?.want({ view, size, ratio: window.devicePixelRatio, palette, signsHidden });
  }, [session, large, drawing, view, size, palette, signsHidden]);
  useEffect(() => session.act.onPainted(() => still.current?.getLayer()?.batchDraw()), [session]);

  // What moves is painted at the rate of the screen, straight from the session, without React on the way.
  useEffect(() => {
    const paint = (): void => void lively.current?.getLayer()?.batchDraw();
    paint();
    return session.subscribe(paint);
  }, [session, palette, images]);
  useEffect(() => {
    void document.fonts.ready.then(() => lively.current?.getStage()?.batchDraw());
  }, []);

  const place = (event: MouseEvent): { x: number; y: number } => {
    const { left, top } = box.current!.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  };
  const onPointerDown = (event: PointerEvent): void => {
    // a press beside an open menu closes that, and does no more
    closing.current = document.querySelector('[role="menu"][data-state="open"]') !== null;
    if (closing.current) return;
    if (event.button === 1) {
      event.preventDefault();
      event.currentTarget.setPointerCapture(event.pointerId);
      panning.current = { x: event.clientX, y: event.clientY };
    }
    if (event.button === 0) {
      box.current!.focus({ preventScroll: true });
      event.currentTarget.setPointerCapture(event.pointerId);
      act.press(place(event), modifiersOf(event));
    }
  };
  const onPointerMove = (event: PointerEvent): void => {
    if (panning.current) {
      act.pan(event.clientX - panning.current.x, event.clientY - panning.current.y);
      panning.current = { x: event.clientX, y: event.clientY };
    }
    act.move(place(event), modifiersOf(event));
  };

  return (
    <BoardMenu>
      <div
        ref={box}
        data-region="Board"
        role="application"
        aria-label="Board"
        tabIndex={0}
        data-view={`${view.scale} ${view.originX} ${view.originY}`}
        data-revision={revision}
        data-saved={saved ? revision : ""}
        className={
          "min-h-0 flex-1 touch-none overflow-hidden focus-visible:shadow-[inset_0_0_0_1px_var(--moss)] " +
          `focus-visible:outline-none ${onHandle ? "cursor-pointer" : hasTool ? "cursor-crosshair" : "cursor-default"}`
        }
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={(event) => {
          panning.current = undefined;
          if (event.button === 0 && !closing.current) act.letGo(place(event), modifiersOf(event));
        }}
        onDoubleClick={() => act.selectRunAt()}
        onPointerLeave={() => act.move(undefined, { shift: false, alt: false, control: false })}
      >
        <Stage width={size.width} height={size.height} listening={false}>
          <Layer listening={false}>
            <Shape
              ref={still}
              listening={false}
              perfectDrawEnabled={false}
              sceneFunc={(context) => {
                const state = { drawing, index, view, size, signsHidden };
                const painted = session.act.mass()?.painted();
                if (large) paintPainted(raw(context), state, painted, palette, images);
                else paintDrawing(raw(context), state, palette, images);
                if (!large || painted) markFirstFrame(size.width);
              }}
            />
          </Layer>
          <Layer listening={false}>
            <Shape
              ref={lively}
              listening={false}
              perfectDrawEnabled={false}
              sceneFunc={(context) => paintLively(raw(context), session.getState(), palette, images)}
            />
          </Layer>
        </Stage>
      </div>
    </BoardMenu>
  );
};
