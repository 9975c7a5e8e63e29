import type { PictureSize } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { SNAP_WORDS } from "@ash-edge/core/look";
import { refuse } from "@ash-edge/core/numeric";
import { draggedOf, givenOf, proposalOf, takesPoint, wantedPick, type Hover } from "@ash-edge/tools";
import { pointAt } from "./pointAt.ts";
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
};

/** The pick that the tool in hand wants next. */
export const wantedBy = ({ get, activeTool, context }: SessionCore): ReturnType<SessionCore["wanted"]> => {
  const tool = activeTool();
  const state = get().hand.tool;
  return tool && state && wantedPick(tool, state, givenOf(tool, state, undefined, context()));
};

/** The pointer moved and clicked, on the board and on the sketch card. */
export const makePointing = (core: SessionCore, { holds, callouts, selecting, handling }: Parts) => {
  const { get, send, sayNo, activeTool, context, toolEvent, wanted } = core;

  const lookUnder = (): void => {
    const { pointer } = get();
    const { onCard, screen } = pointer;
    if (onCard) send("pointer", { type: "over", hover: { at: onCard.at, under: [], picture: onCard.picture } });
    else if (screen) {
      const { snaps, hover, pointer: at, heldWord } = pointAt(get(), activeTool(), context(), screen, pointer);
      send("pointer", { type: "over", hover, at, snapCount: snaps.length, ...(heldWord ? { heldWord } : {}) });
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
    handling.hoverHandles(to);
    refresh();
  };
  const wantsPoint = (): boolean => {
    const part = wanted();
    return part !== undefined && takesPoint(part);
  };
  const click = (at: Point, mods: Modifiers): void => {
    move(at, mods);
    const { pointer, hand } = get();
    const { hover, askingEdge, snapOnce } = pointer;
    if (!hover) return;
    if (askingEdge) return holds.holdByEdge(hover);
    if (snapOnce && wantsPoint() && !hover.snap)
      return sayNo(refuse("snap-not-here", { kind: SNAP_WORDS[snapOnce] }).refusal);
    if (mods.control && hand.tool) return callouts.takeValue(hover);
    if (hand.tool && wanted()?.takes === "things") {
      // a tool that works on what is selected has nothing yet: clicks select, and Shift adds more until Enter
      selecting.clickOn(hover, mods);
      return toolEvent({ type: "gather", on: mods.shift });
    }
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

  /** Space: the next solution where there are several, else the next of the snaps in reach. */
  const next = (): void => {
    const { hand, pointer } = get();
    const { hover, screen, snapCount } = pointer;
    if (selecting.swapBox()) return;
    const tool = activeTool();
    if ((hand.proposal?.ways.length ?? 0) > 1 || !tool || !screen || snapCount < 2) return toolEvent({ type: "next" });
    const asked = { ...pointer.asked, snap: undefined };
    const { snaps } = pointAt(get(), tool, context(), screen, { ...pointer, asked });
    const at = snaps.findIndex(
      ({ kind, at: place }) => kind === hover?.snap?.kind && place.x === hover.at.x && place.y === hover.at.y,
    );
    send("pointer", { type: "asked", asked: { snap: snaps[(at + 1) % snaps.length] } });
    refresh();
  };

  /** Shift+Space: the next of the things that lie here one on another. */
  const nextUnder = (): void => {
    send("pointer", { type: "asked", asked: { under: get().pointer.asked.under + 1 } });
    refresh();
    const id = get().pointer.hover?.under[0]?.ref?.id;
    if (!get().hand.tool && id !== undefined) send("selection", { type: "selected", ids: [id] });
  };

  return { refresh, move, click, moveOnCard, clickOnCard, next, nextUnder };
};
