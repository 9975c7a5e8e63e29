import type { PictureSize } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import type { Snap, SnapKind } from "@ash-edge/core/look";
import type { Handle } from "./handle.ts";
import type { Hover } from "@ash-edge/tools";
import type { Hold } from "../hold.ts";

export type Modifiers = { readonly shift: boolean; readonly alt: boolean; readonly control: boolean };
export const NO_MODIFIERS: Modifiers = { shift: false, alt: false, control: false };

/** Which of the things stacked under the pointer, and which of the snaps in reach, was asked for. */
export type Asked = {
  readonly under: number;
  readonly snap: Snap | undefined;
};
const NOTHING_ASKED: Asked = { under: 0, snap: undefined };

/** The pointer: where it is, what it is over, and what the next click is bound to. */
export type Pointer = {
  /** Where it is on the board, in CSS pixels; undefined off the board. */
  readonly screen: Point | undefined;
  readonly modifiers: Modifiers;
  /** It is where keys moved it: Enter clicks there. */
  readonly byKeys: boolean;
  readonly asked: Asked;
  /** Where it is in the drawing, before any snap. */
  readonly at: Point | undefined;
  readonly hover: Hover | undefined;
  readonly heldWord: string | undefined;
  /** How many snaps are in reach, and which of them holds; Space takes the next. */
  readonly snapCount: number;
  readonly snapWhich: number;
  /** It is over the sketch card: the picture and the place on it. */
  readonly onCard: { readonly picture: PictureSize; readonly at: Point } | undefined;
  /** The handle under it. */
  readonly grip: Handle | undefined;
  /** A direction that stays held, and an edge being asked for to hold one by. */
  readonly hold: Hold | undefined;
  readonly askingEdge: "along" | "square" | undefined;
  /** The one kind of snap that the next click takes. */
  readonly snapOnce: SnapKind | undefined;
};
export const POINTER_AWAY: Pointer = {
  screen: undefined,
  modifiers: NO_MODIFIERS,
  byKeys: false,
  asked: NOTHING_ASKED,
  at: undefined,
  hover: undefined,
  heldWord: undefined,
  snapCount: 0,
  snapWhich: 0,
  onCard: undefined,
  grip: undefined,
  hold: undefined,
  askingEdge: undefined,
  snapOnce: undefined,
};

export type PointerEvent =
  | { readonly type: "moved"; readonly to: Point | undefined; readonly modifiers: Modifiers }
  | { readonly type: "by keys"; readonly on: boolean }
  | { readonly type: "on the card"; readonly place: Pointer["onCard"] }
  | {
      readonly type: "over";
      readonly hover: Hover | undefined;
      readonly at?: Point;
      readonly heldWord?: string;
      readonly snapCount?: number;
      readonly snapWhich?: number;
    }
  | { readonly type: "on a handle"; readonly grip: Handle | undefined }
  | { readonly type: "asked"; readonly asked: Partial<Asked> }
  | { readonly type: "nothing asked" }
  | { readonly type: "snap asked"; readonly kind: SnapKind }
  | { readonly type: "edge asked"; readonly by: "along" | "square" }
  | { readonly type: "hold"; readonly hold: Hold | undefined }
  /** The one snap or the edge that was asked for is asked for no more. */
  | { readonly type: "let go" };

export const pointerAfter = (pointer: Pointer, event: PointerEvent): Pointer => {
  switch (event.type) {
    case "moved":
      return { ...pointer, screen: event.to, modifiers: event.modifiers, byKeys: false, onCard: undefined };
    case "by keys":
      return pointer.byKeys === event.on ? pointer : { ...pointer, byKeys: event.on };
    case "on the card":
      return { ...pointer, onCard: event.place };
    case "over": {
      const { hover, at, heldWord, snapCount = 0, snapWhich = 0 } = event;
      if (!hover && !pointer.hover) return pointer;
      return { ...pointer, hover, at, heldWord, snapCount, snapWhich };
    }
    case "on a handle":
      return pointer.grip === event.grip ? pointer : { ...pointer, grip: event.grip };
    case "asked":
      return { ...pointer, asked: { ...pointer.asked, ...event.asked } };
    case "nothing asked":
      return pointer.asked === NOTHING_ASKED ? pointer : { ...pointer, asked: NOTHING_ASKED };
    case "snap asked":
      return { ...pointer, snapOnce: event.kind };
    case "edge asked":
      return { ...pointer, askingEdge: event.by };
    case "hold":
      return { ...pointer, hold: event.hold, askingEdge: undefined };
    case "let go":
      return { ...pointer, snapOnce: undefined, askingEdge: undefined };
  }
};
