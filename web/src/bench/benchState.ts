import type { Callout, Drawing, Edit, PictureSize } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import type { DrawingIndex, Handle, SnapKind } from "@ash-edge/core/look";
import type { Id, Refusal, SizeKind } from "@ash-edge/core/numeric";
import type { Hover, proposalOf, ToolEvent, ToolState, Ask, BankKey, PreviewShape, Tool } from "@ash-edge/tools";
import type { History, Keeper } from "../store/index.ts";
import type { MetFinding } from "../worker/tidy.worker.ts";
import type { Size, View } from "./board/view.ts";
import type { Hold } from "./hold.ts";

export type Message = {
  readonly text: string;
  readonly tone: "fault" | "said";
  /** Why something was not done, where it was refused. */
  readonly refusal?: Refusal;
};
export type Modifiers = { readonly shift: boolean; readonly alt: boolean; readonly control: boolean };
export const NO_MODIFIERS: Modifiers = { shift: false, alt: false, control: false };

/** What is kept from one use of a tool to the next, in this browser. */
export type Kept = {
  readonly choices: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly kinds: Readonly<Record<string, Readonly<Record<string, SizeKind>>>>;
  /** Recent values of each blank, newest first, as typed: offered, never held. */
  readonly recent: Readonly<Record<string, readonly string[]>>;
  readonly selecting: Selecting;
  readonly snaps: SnapSettings;
  /** Where the sketch card stands, and whether it is enlarged. */
  readonly card: { readonly side: "left" | "right"; readonly large: boolean };
  /** Banks that were put on other keys: the key that takes each. */
  readonly keys: Readonly<Partial<Record<BankKey, BankKey>>>;
  /** Handles are shown on what is selected. */
  readonly handles: boolean;
  readonly tidy: { readonly ignoreLayer: boolean; readonly sharedEdges: "keep" | "drop" | "merge" };
};
/** Which snaps are off, how near the pointer must be (CSS pixels), and whether that reach is drawn. */
export type SnapSettings = { readonly off: readonly SnapKind[]; readonly reach: number; readonly drawn: boolean };
/** What a click takes with no tool active, and what a box takes. */
export type Selecting = {
  readonly how: "one" | "run" | "kind" | "size" | "layer" | "inside";
  readonly box: "encloses" | "touches";
};
export const NOTHING_KEPT: Kept = {
  choices: {},
  kinds: {},
  recent: {},
  selecting: { how: "one", box: "encloses" },
  snaps: { off: ["grid"], reach: 12, drawn: true },
  card: { side: "left", large: false },
  keys: {},
  handles: true,
  tidy: { ignoreLayer: false, sharedEdges: "keep" },
};

/**
 * The findings while they are looked at: of which drawing, how far a search is, and the one that is lit with its
 * repair.
 */
export type Tidying = {
  readonly among: "all" | "selected";
  readonly findings?: readonly MetFinding[];
  readonly of?: Drawing;
  readonly busy?: number;
  readonly lit?: string;
  readonly preview?: readonly PreviewShape[];
};

export type BenchState = {
  readonly drawing: Drawing;
  readonly index: DrawingIndex;
  readonly history: History;
  /** How many edits are stored. */
  readonly saved: number;
  readonly failure?: string;
  readonly toolId?: string;
  readonly lastToolId?: string;
  readonly tool?: ToolState;
  readonly proposal?: ReturnType<typeof proposalOf>;
  readonly bank?: BankKey;
  readonly selection: ReadonlySet<Id>;
  /** The working layer. */
  readonly layer: Id;
  /** The vertex stepped to in the Selected panel. */
  readonly vertex?: Id;
  /** The selection box being drawn, by two corners in the drawing. */
  readonly box?: { readonly from: Point; readonly to: Point };
  /** Where a drag with a tool in hand has gone. */
  readonly sweep?: readonly Point[];
  /** Geometry lit from a list. */
  readonly lit: ReadonlySet<Id>;
  /** The callout hovered in the ledger. */
  readonly litCallout?: Id;
  /** A callout is being written: where its pin goes, and which one is being changed. */
  readonly writing?: { readonly id?: Id; readonly pin?: NonNullable<Callout["pin"]> };
  /** A callout clicked with no tool active: the tools that fit it are offered. */
  readonly offered?: Id;
  readonly tidying?: Tidying;
  readonly hover?: Hover;
  /** The handle under the pointer, and the one in hand with the action that was chosen of what it offers. */
  readonly grip?: Handle;
  readonly grabbed?: { readonly handle: Handle; readonly words: string };
  readonly pointer?: Point;
  readonly heldWord?: string;
  /** A direction that stays held, and an edge being asked for to hold one by. */
  readonly hold?: Hold;
  readonly askingEdge?: "along" | "square";
  /** The one kind of snap that the next click takes. */
  readonly snapOnce?: SnapKind;
  /** How many snaps are in reach; Space takes the next. */
  readonly snapCount?: number;
  /** The pointer is over the sketch card: the picture and the place on it. */
  readonly onCard?: { readonly picture: PictureSize; readonly at: Point };
  /** Counts what was worked out of a great drawing, so that panels look again. */
  readonly derivedAt?: number;
  readonly magnified?: boolean;
  readonly signsHidden?: boolean;
  /** Long work away from the page: what it is and how far. */
  readonly work?: { readonly words: string; readonly part: number };
  readonly view: View;
  readonly size: Size;
  readonly fittedOnce: boolean;
  readonly message?: Message;
  readonly kept: Kept;
};

/** A way to put back what was cut loose: its words, and what takes it. */
export type Again = { readonly words: string; readonly take: () => void };

/** What the parts of the session share: its state, and the one way in which each thing is done. */
export type SessionCore = {
  readonly get: () => BenchState;
  readonly set: (next: Partial<BenchState>, drop?: readonly (keyof BenchState)[]) => void;
  readonly say: (message: Message | undefined) => void;
  readonly sayNo: (refusal: Refusal) => void;
  readonly commit: (edit: Edit) => void;
  readonly refresh: () => void;
  readonly toolEvent: (event: ToolEvent) => void;
  readonly activeTool: () => Tool | undefined;
  /** Says that something went away, with the way to undo just that. */
  readonly notify: (text: string, again?: Again) => void;
  readonly keepSetting: (change: Partial<Kept>) => void;
};

/** What the session asks of the page around it. */
export type Surroundings = {
  readonly keeper: Keeper;
  /** Reads the steps before a number from the store. */
  readonly older: (first: number) => Promise<{ readonly edits: readonly Edit[]; readonly damage?: string }>;
  readonly kept: Kept;
  readonly remember: (kept: Kept) => void;
  /** The view in which this job was left, if it was open before. */
  readonly view: View | undefined;
  readonly layer: Id | undefined;
  /** Carries out long work in a worker; the id of the stored picture it made. */
  readonly carryOut: (ask: Ask, report: (part: number) => void, stop: AbortSignal) => Promise<string>;
  /** Something went away or was cut loose: a note that offers to undo. */
  readonly notify: (text: string, again: Again | undefined, undo: () => void) => void;
  readonly saveFile: () => void;
  readonly openRelease: () => void;
};
