import type { PictureSize } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { lockedAt, SNAP_WORDS } from "@ash-edge/core/look";
import { refuse, type Refusal } from "@ash-edge/core/numeric";
import { draggedOf, givenOf, proposalOf, takesSnap, wantedPick, type Hover } from "@ash-edge/tools";
import { PICK_REACH, pointAt } from "./pointAt.ts";
import type { SessionCore } from "./sessionCore.ts";
import type { Modifiers, Proposed } from "./state/index.ts";

type Parts = {
  readonly holds: { readonly holdByEdge: (hover: Hover) => void };
  readonly callouts: { readonly takeValue: (hover: Hover) => void };
  readonly selecting: {
    readonly clickOn: (hover: Hover, mods: Modifiers) => void;
    readonly stretchBox: (at: Point) => void;
    readonly swapBox: () => boolean;
  };
  readonly handling: { readonly hoverHandles: (at: Point | undefined) => void };
  readonly stayAt: (hover: Hover) => void;
  /** Picks what is proposed of a picture there; false where nothing is. */
  readonly pickTraced: (at: Point, chain: boolean) => boolean;
  /** Pulls the place between two proposals that is held. */
  readonly pullTraced: (to: Point | undefined) => void;
};

/** The pick that the tool in hand wants next. */
export const wantedBy = ({ get, activeTool, context }: SessionCore): ReturnType<SessionCore["wanted"]> => {
  const tool = activeTool();
  const state = get().hand.tool;
  return tool && state && wantedPick(tool, state, givenOf(tool, state, undefined, context()));
};

/** The pointer moved and clicked, on the board and on the sketch card. */
export const makePointing = (
  core: SessionCore,
  { holds, callouts, selecting, handling, stayAt, pickTraced, pullTraced }: Parts,
) => {
  const { get, send, sayNo, activeTool, context, toolEvent, wanted } = core;

  const lookUnder = (): void => {
    const { pointer } = get();
    const { onCard, screen } = pointer;
    if (onCard) send("pointer", { type: "over", hover: { at: onCard.at, under: [], picture: onCard.picture } });
    else if (screen) {
      const { snaps, which, hover, pointer: at, heldWord } = pointAt(get(), activeTool(), context(), screen, pointer);
      send("pointer", {
        type: "over",
        hover,
        at,
        snapCount: snaps.length,
        snapWhich: which,
        ...(heldWord ? { heldWord } : {}),
      });
      // a snap that was taken is let go where the pointer has left its reach
      const { snap } = pointer.asked;
      if (snap && (hover.snap?.kind !== snap.kind || snaps.length === 0))
        send("pointer", { type: "asked", asked: { snap: undefined } });
    } else send("pointer", { type: "over", hover: undefined });
  };
  const proposed = (): Proposed | undefined => {
    const { hand, selection, pointer } = get();
    const tool = activeTool();
    if (!tool || !hand.tool) return undefined;
    const { sweep } = selection;
    if (!tool.dragged || !sweep) return proposalOf(tool, hand.tool, pointer.hover, context());
    const path = tool.drag === "box" ? [sweep[0]!, sweep.at(-1)!] : sweep;
    return { ...draggedOf(tool, hand.tool, path, context()), which: 0 };
  };
  const refresh = (): void => {
    lookUnder();
    send("hand", { type: "proposed", proposal: proposed() });
  };

  const move = (to: Point | undefined, modifiers: Modifiers): void => {
    send("pointer", { type: "moved", to, modifiers });
    if (to) selecting.stretchBox(to);
    pullTraced(to);
    handling.hoverHandles(to);
    refresh();
  };
  const wantsPoint = (): boolean => {
    const part = wanted();
    return part !== undefined && takesSnap(part);
  };
  /** Why a click on what lies here picks nothing: its layer is locked. */
  const lockedHere = ({ at, under, snap }: Hover): Refusal | undefined => {
    const takes = wanted()?.takes;
    if (under.length > 0 || snap || takes === "point" || takes === "picture" || takes === "place") return undefined;
    const { view, history } = get();
    const layer = lockedAt(history.index, at, PICK_REACH / view.now.scale);
    return layer && refuse("layer-locked", { layer: layer.name }).refusal;
  };
  const click = (at: Point, mods: Modifiers): void => {
    move(at, mods);
    const { pointer, hand } = get();
    const { hover, askingEdge, snapOnce } = pointer;
    if (!hover) return;
    if (askingEdge) return holds.holdByEdge(hover);
    if (get().numbers?.picking) return stayAt(hover);
    if (snapOnce && wantsPoint() && !hover.snap)
      return sayNo(refuse("snap-not-here", { kind: SNAP_WORDS[snapOnce] }).refusal);
    const locked = lockedHere(hover);
    if (locked) {
      if (!hand.tool) selecting.clickOn(hover, mods);
      return sayNo(locked);
    }
    if (mods.control && hand.tool) return callouts.takeValue(hover);
    if (hand.tool && wanted()?.takes === "things") {
      // a tool that works on what is selected has nothing yet: clicks select, and Shift adds more until Enter
      selecting.clickOn(hover, mods);
      return toolEvent({ type: "gather", on: mods.shift });
    }
    if (!hand.tool && pickTraced(at, mods.shift)) return;
    if (!hand.tool) return selecting.clickOn(hover, mods);
    toolEvent({ type: "click", hover });
    send("pointer", { type: "nothing asked" });
    if (snapOnce) send("pointer", { type: "let go" });
    refresh();
  };

  /** The pointer on the sketch card: a place on the picture, in its pixels. */
  const moveOnCard = (picture: PictureSize, at: Point | undefined): void => {
    send("pointer", { type: "on the card", place: at && { picture, at } });
    refresh();
  };
  const clickOnCard = (picture: PictureSize, at: Point): void => {
    moveOnCard(picture, at);
    toolEvent({ type: "click", hover: { at, under: [], picture } });
  };

  const canStepSnaps = (): boolean => {
    const { pointer } = get();
    return activeTool() !== undefined && pointer.screen !== undefined && pointer.snapCount > 1;
  };
  const stepSnap = (by: 1 | -1): void => {
    const { pointer } = get();
    const { snaps, which } = pointAt(get(), activeTool(), context(), pointer.screen!, pointer);
    send("pointer", { type: "asked", asked: { snap: snaps[(which + by + snaps.length) % snaps.length] } });
    refresh();
  };

  /** Space: the next solution where there are several, else the next of the snaps in reach. */
  const next = (): void => {
    if (selecting.swapBox()) return;
    if ((get().hand.proposal?.ways.length ?? 0) > 1 || !canStepSnaps()) return toolEvent({ type: "next" });
    stepSnap(1);
  };

  /** Shift+Space: the solution or the snap before; where there is neither, the next of the things that lie here. */
  const nextUnder = (): void => {
    const ways = get().hand.proposal?.ways.length ?? 0;
    if (ways > 1) return toolEvent({ type: "before", of: ways });
    if (canStepSnaps()) return stepSnap(-1);
    send("pointer", { type: "asked", asked: { under: get().pointer.asked.under + 1 } });
    refresh();
    const id = get().pointer.hover?.under[0]?.ref?.id;
    if (!get().hand.tool && id !== undefined) send("selection", { type: "selected", ids: [id] });
  };

  return { refresh, move, click, moveOnCard, clickOnCard, next, nextUnder };
};
