import {
  calloutsOf,
  drawingBounds,
  entitiesOf,
  entityOf,
  unitOf,
  type Drawing,
  type Edit,
} from "@ash-edge/core/drawing";
import { boundsHold, boundsSize, growBounds, unionBounds, type Bounds, type Point } from "@ash-edge/core/geometry";
import { greatest, type Id } from "@ash-edge/core/numeric";
import { shapeBounds } from "@ash-edge/core/shape";
import { shownAnnotations } from "./annotated.ts";
import type { SessionCore } from "./sessionCore.ts";
import { fitted, inSight, panned, zoomed, type Size, type View } from "./board/view.ts";

/** Views closer together in time than this are one movement. */
const ONE_MOVEMENT_MS = 700;
const VIEWS_KEPT = 40;

/** What an empty board shows: room for the largest called length. */
const emptyBounds = (drawing: Drawing): Bounds => {
  const sizes = calloutsOf(drawing).filter(({ kind }) => ["length", "centres", "diameter"].includes(kind));
  const size = greatest([unitOf(drawing) === "in" ? 4 : 100, ...sizes.map(({ value }) => value)]);
  return { minX: -0.35 * size, minY: -0.4 * size, maxX: 1.35 * size, maxY: 0.4 * size };
};

/** Where the drawing lies on the board, and the way back to where it lay. */
export const makeView = ({ get, send, say, refresh }: SessionCore, leftView: View | undefined) => {
  const before: View[] = [];
  let moved = -Infinity;

  /** Takes a view; the one before it is kept unless it belongs to the same movement. */
  const show = (view: View): void => {
    const now = performance.now();
    if (now - moved > ONE_MOVEMENT_MS) {
      before.push(get().view.now);
      if (before.length > VIEWS_KEPT) before.shift();
    }
    moved = now;
    send("view", { type: "shown", view });
    refresh();
  };
  const jump = (view: View): void => {
    moved = -Infinity;
    show(view);
    moved = -Infinity;
  };
  const boxOf = (ids: Iterable<Id>): Bounds | undefined =>
    unionBounds(
      [...ids].flatMap((id) => {
        const entity = entityOf(get().history.drawing, id);
        return (entity && shapeBounds(entity)) ?? [];
      }),
    );

  /** The bounds of the drawing with the dimensions and notes that are shown. */
  const shownBounds = (): Bounds => {
    const { history, view } = get();
    const { drawing } = history;
    const box = drawingBounds(drawing) ?? emptyBounds(drawing);
    // lettering is not to be made smaller by what it needs itself: its size is that of the whole drawing in sight
    const { scale } = fitted(box, view.size);
    const spoken = shownAnnotations(drawing, scale, view.signsHidden).map(({ bounds }) => bounds);
    return unionBounds([box, ...spoken])!;
  };

  const fit = (): void => {
    const {
      view: { size },
    } = get();
    if (size.width > 0) jump(fitted(shownBounds(), size));
  };

  return {
    fit,
    /** All of a box in sight, with the drawing: the view stays where it is so already. */
    allInSight: (box: Bounds): void => {
      const { now, size } = get().view;
      if (size.width === 0 || boundsHold(inSight(now, size), box)) return;
      const around = unionBounds([box, drawingBounds(get().history.drawing) ?? box])!;
      jump(fitted(growBounds(around, 0.05 * boundsSize(around)), size));
    },
    fitSelection: (): void => {
      const {
        selection: { ids: selection },
        view: { size },
      } = get();
      const box = boxOf(selection);
      if (!box)
        return say({ text: "Nothing with a size is selected. Select what should be shown first.", tone: "fault" });
      jump(fitted(growBounds(box, 0.05 * boundsSize(box)), size));
    },
    viewBefore: (): void => {
      const view = before.pop();
      if (!view) return say({ text: "There is no view before this one.", tone: "said" });
      send("view", { type: "shown", view });
      moved = -Infinity;
      refresh();
    },
    pan: (dx: number, dy: number): void => show(panned(get().view.now, dx, dy)),
    zoom: (at: Point, factor: number): void => show(zoomed(get().view.now, at, factor)),
    resize: (size: Size): void => {
      const {
        view: { fittedOnce },
        history: { drawing },
      } = get();
      const first = !fittedOnce && size.width > 0;
      send("view", { type: "resized", size });
      if (!first) return;
      send("view", {
        type: "shown",
        view: leftView ?? fitted(drawingBounds(drawing) ?? emptyBounds(drawing), size),
      });
      refresh();
    },
    /** Selects something and brings it into sight; `at` is the place that matters. */
    show: (ids: readonly Id[], at?: Point): void => {
      const {
        history: { drawing },
        view: { size },
      } = get();
      const standing = ids.filter((id) => entityOf(drawing, id));
      send("selection", { type: "selected", ids: standing });
      const box = boxOf(standing) ?? (at && drawingBounds(drawing));
      if (!box || size.width === 0) return;
      const room = Math.max(boundsSize(box), 1e-6) / 4;
      const around = at ? { minX: at.x - room, minY: at.y - room, maxX: at.x + room, maxY: at.y + room } : box;
      jump(fitted(around, size));
    },
    /** The first piece drawn comes into view. */
    bringIntoSight: (was: Drawing, edit: Edit): void => {
      const {
        history: { drawing },
        view: { now: view, size },
      } = get();
      if ([...entitiesOf(was)].some((entity) => entity.kind !== "endless")) return;
      const added = edit.changes
        .filter(({ table }) => table === "entity")
        .map(({ after }) => after as Parameters<typeof shapeBounds>[0] | undefined);
      const box = unionBounds(added.flatMap((shape) => (shape ? (shapeBounds(shape) ?? []) : [])));
      if (box && !boundsHold(inSight(view, size), box))
        send("view", { type: "shown", view: fitted(drawingBounds(drawing) ?? box, size) });
    },
  };
};
