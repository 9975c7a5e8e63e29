import { calloutsOf, LAYOUT_LAYER, layerOf, ontoPicture, picturesOf, type Picture } from "@ash-edge/core/drawing";
import {
  boundsMiddle,
  boundsOf,
  curveBounds,
  curveNearest,
  distance,
  unionBounds,
  type Bounds,
  type Point,
} from "@ash-edge/core/geometry";
import { refuse } from "@ash-edge/core/numeric";
import { acceptShapes, placedShape, type Group, type Proposal } from "@ash-edge/core/picture/trace";
import { inSight, toDrawing } from "../board/view.ts";
import type { SessionCore, Surroundings } from "../sessionCore.ts";
import { proposedIn, tracedPicture, type Tracing } from "../state/index.ts";

/** A click takes what lies no farther off than this, px. */
const REACH = 9;
/** Loose ends go onto those of what was accepted before, no farther than so many strokes. */
const ONTO = 4;
/** Words in one of so many bands of a picture are read from left to right. */
const LINES = 24;
/** Ends as near as this part of a stroke's width are one. */
const ONE_END = 1e-6;

/** A picture traced: what its strokes were meant to be, to be accepted or not. */
export const makeTracing = (
  core: SessionCore,
  parts: {
    readonly trace: Surroundings["trace"];
    readonly toBoard: () => void;
    readonly allInSight: (box: Bounds) => void;
    readonly closeOthers: () => void;
  },
) => {
  const { get, send, say, sayNo, commit } = core;
  let working: AbortController | undefined;

  const proposed = (): readonly Proposal[] => {
    const { tracing, history } = get();
    return tracing ? proposedIn(tracing, history) : [];
  };
  const shown = (): readonly Proposal[] => proposed().filter(({ group }) => get().tracing?.shown.has(group));

  const look = async (picture: Picture, box: Bounds): Promise<boolean> => {
    working?.abort();
    const own = (working = new AbortController());
    send("tracing", { type: "looking" });
    try {
      const found = await parts.trace(
        picture,
        box,
        (part) => !own.signal.aborted && send("tracing", { type: "going on", part }),
        own.signal,
      );
      if (own.signal.aborted) return false;
      send("tracing", { type: "found", found });
      return true;
    } catch (reason) {
      if (!own.signal.aborted) send("tracing", { type: "failed", why: (reason as Error).message });
      return false;
    }
  };

  const lookAll = async (picture: Picture): Promise<void> => {
    if (!(await look(picture, { minX: 0, minY: 0, maxX: picture.width, maxY: picture.height }))) return;
    const { tracing, history } = get();
    const now = tracing && tracedPicture(tracing, history.drawing);
    const outline = proposed().filter(({ group }) => group === "outline");
    const box = now && unionBounds(outline.flatMap(({ shape }) => curveBounds(placedShape(now, shape)) ?? []));
    if (box) parts.allInSight(box);
  };

  /** What was found and changed is kept while the bench is open: a key pressed once too often loses nothing. */
  let kept: Tracing | undefined;
  const closeTracing = (): void => {
    working?.abort();
    const { tracing } = get();
    if (tracing?.found) kept = { ...tracing, picked: [], pulled: undefined, splitting: false };
    send("tracing", { type: "closed" });
  };

  const accept = (ids: readonly number[]): void => {
    const { tracing, history, selection } = get();
    if (!tracing) return;
    const those = proposed().filter(({ id }) => ids.includes(id));
    const picture = tracedPicture(tracing, history.drawing);
    if (!picture) return sayNo(refuse("picture-gone").refusal);
    // thin lines are layout: they must not come to be cut
    const shapes = those.map(({ shape, group }) => ({
      shape,
      layer: group === "thin" ? LAYOUT_LAYER : selection.layer,
    }));
    const locked = shapes.map(({ layer }) => layerOf(history.drawing, layer)).find((layer) => layer?.locked !== false);
    const reach = ONTO * (tracing.found?.stroke ?? 0) * picture.scale;
    const edit = acceptShapes(history.drawing, picture, shapes, reach);
    if (!edit) return sayNo(refuse("layer-locked", { layer: locked?.name ?? "Layout" }).refusal);
    const step = history.steps.position;
    if (!commit(edit)) return;
    send("tracing", { type: "accepted", accepted: { ids: those.map(({ id }) => id), step, edit } });
    parts.toBoard();
  };

  /** The next callout is written at the next word of the picture where none is pinned yet, after the one at hand. */
  const nextWord = (): void => {
    const { tracing, history, panels } = get();
    const picture = tracing && tracedPicture(tracing, history.drawing);
    if (!tracing?.found || !picture) {
      send("panels", { type: "writing", writing: {} });
      return sayNo(refuse("picture-gone").refusal);
    }
    const pinned = calloutsOf(history.drawing).flatMap(({ pin }) => (pin?.sketch === tracing.blob ? [pin] : []));
    const { width, height } = picture;
    const words = asRead(tracing.found.lettering, height);
    // after the one at hand, if any: what is not found is at -1
    const rest = words.slice(words.findIndex((one) => one === panels.writing?.word) + 1);
    const next = rest.find((word) => !pinned.some(({ x, y }) => isIn(word, { x: x * width, y: y * height })));
    if (!next) {
      send("panels", { type: "writing", writing: {} });
      return say({ text: "No word of the picture is left without a callout.", tone: "said" });
    }
    const { x, y } = boundsMiddle(next);
    const pin = { sketch: tracing.blob, x: x / width, y: y / height };
    send("panels", { type: "writing", writing: { pin, word: next } });
  };

  /** Picks proposals, or lets them go where the first is picked. */
  const toggle = (ids: readonly number[]): void => {
    const picked = get().tracing?.picked ?? [];
    const rest = picked.filter((id) => !ids.includes(id));
    send("tracing", { type: "picked", ids: picked.includes(ids[0]!) ? rest : [...rest, ...ids] });
  };

  return {
    toggleTraced: toggle,
    /** Opens what is proposed for the picture that lies under the drawing, and begins to trace it. */
    openTracing: (): void => {
      const scaled = picturesOf(get().history.drawing).filter((one) => one.scaled);
      const picture = scaled.find((one) => one.shown) ?? scaled.at(-1);
      if (!picture) return sayNo(refuse("picture-not-scaled").refusal);
      // asked for once more it stays as it is
      const { tracing } = get();
      if (tracing?.blob === picture.blob && tracing.failed === undefined) return;
      parts.closeOthers();
      send("panels", { type: "tab", tab: "pieces" });
      if (kept?.blob === picture.blob) return send("tracing", { type: "opened again", tracing: kept });
      send("tracing", { type: "opened", blob: picture.blob });
      void lookAll(picture);
    },
    /** All of the picture once more, from the beginning. */
    traceAnew: (): void => {
      const { tracing, history } = get();
      const picture = tracing && tracedPicture(tracing, history.drawing);
      if (picture) void lookAll(picture);
    },
    /** Only the part that is in sight. */
    traceInSight: (): void => {
      const { tracing, view, history } = get();
      if (!tracing) return;
      const picture = tracedPicture(tracing, history.drawing);
      if (!picture) return sayNo(refuse("picture-gone").refusal);
      const { minX, minY, maxX, maxY } = inSight(view.now, view.size);
      const corners: readonly Point[] = [
        { x: minX, y: minY },
        { x: maxX, y: minY },
        { x: maxX, y: maxY },
        { x: minX, y: maxY },
      ];
      const box = boundsOf(corners.map((p) => ontoPicture(picture, p)));
      const within = {
        minX: Math.max(0, Math.floor(box.minX)),
        minY: Math.max(0, Math.floor(box.minY)),
        maxX: Math.min(picture.width, Math.ceil(box.maxX)),
        maxY: Math.min(picture.height, Math.ceil(box.maxY)),
      };
      if (within.maxX <= within.minX || within.maxY <= within.minY)
        return say({ text: "The picture is not in sight.", tone: "fault" });
      void look(picture, within);
    },
    stopTracing: (): void => {
      working?.abort();
      send("tracing", { type: "failed", why: "It was stopped." });
    },
    closeTracing,
    acceptTraced: accept,
    /** Enter: what is picked, else the whole outline. */
    acceptReady: (): boolean => {
      const { tracing } = get();
      if (tracing?.part !== undefined) {
        say({ text: "The picture is still being traced. Enter accepts the outline once it is there.", tone: "said" });
        return true;
      }
      if (!tracing?.found) return false;
      const ids = tracing.picked.length > 0 ? tracing.picked : idsIn(proposed(), "outline");
      if (ids.length === 0) return false;
      accept(ids);
      return true;
    },
    nextWord,
    showTraced: (group: Group, on: boolean): void => send("tracing", { type: "shown", group, on }),
    lightTraced: (id: number | undefined): void => send("tracing", { type: "lit", id }),
    /** A click on the board picks what is proposed there, or lets it go; with Shift all that hangs together with it. */
    pickTraced: (screen: Point, chain: boolean): boolean => {
      const { tracing, view, history } = get();
      const picture = tracing?.found && tracedPicture(tracing, history.drawing);
      if (!tracing || !picture) return false;
      const reach = REACH / view.now.scale;
      const at = toDrawing(view.now, screen);
      let best: { readonly one: Proposal; readonly far: number } | undefined;
      for (const one of shown()) {
        const far = curveNearest(placedShape(picture, one.shape), at).distance;
        if (far <= reach && far < (best?.far ?? Infinity)) best = { one, far };
      }
      if (!best) return false;
      const ids = chain ? togetherWith(best.one, shown()) : [best.one.id];
      toggle(ids);
      return true;
    },
  };
};

/** Words as they are read: line by line. */
const asRead = (lettering: readonly Bounds[], height: number): readonly Bounds[] => {
  const line = (word: Bounds): number => Math.floor((LINES * boundsMiddle(word).y) / height);
  return [...lettering].sort((p, q) => line(p) - line(q) || p.minX - q.minX);
};

const isIn = ({ minX, minY, maxX, maxY }: Bounds, { x, y }: Point): boolean =>
  x >= minX && x <= maxX && y >= minY && y <= maxY;

const idsIn = (proposed: readonly Proposal[], group: Group): readonly number[] =>
  proposed.filter((one) => one.group === group).map(({ id }) => id);

/** What hangs together with a proposal by its ends. */
const togetherWith = (first: Proposal, all: readonly Proposal[]): readonly number[] => {
  const ends = ({ shape }: Proposal): readonly Point[] => (shape.kind === "circle" ? [] : [shape.a, shape.b]);
  const found = [first];
  for (const one of found)
    for (const other of all)
      if (!found.includes(other) && ends(one).some((p) => ends(other).some((q) => distance(p, q) <= ONE_END)))
        found.push(other);
  return found.map(({ id }) => id);
};
