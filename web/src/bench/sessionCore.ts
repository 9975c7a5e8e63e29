import type { Edit, Picture } from "@ash-edge/core/drawing";
import type { Bounds } from "@ash-edge/core/geometry";
import type { Id, Refusal } from "@ash-edge/core/numeric";
import type { PictureTrace } from "@ash-edge/core/picture/trace";
import type { Ask, Picked, Tool, ToolContext, ToolEvent } from "@ash-edge/tools";
import type { Keeper } from "../store/index.ts";
import type { View } from "./board/view.ts";
import type { BenchState, Following, Hand, Kept, Message, ReadOnly, Send } from "./state/index.ts";

/** Places of a job beside its bench. */
export type JobPlace = "prove" | "release";

/** A way to put back what was cut loose: its words, and what takes it. */
export type Again = { readonly words: string; readonly take: () => void };

/** What the parts of the session share: its state, and the one way in which each thing is done. */
export type SessionCore = {
  readonly get: () => BenchState;
  readonly send: Send;
  readonly say: (message: Message | undefined) => void;
  readonly sayNo: (refusal: Refusal) => void;
  /** Something went away or was cut loose: a note with the way to undo just that. */
  readonly notify: (text: string, again?: Again) => void;
  readonly keepSetting: (change: Partial<Kept>) => void;
  /** Puts an edit into the drawing, the history and the journal; false, and said, where nothing may be changed here. */
  readonly commit: (edit: Edit) => boolean;
  /** Works out what the pointer is over and what the tool would make there. */
  readonly refresh: () => void;
  readonly toolEvent: (event: ToolEvent) => void;
  readonly activeTool: () => Tool | undefined;
  readonly context: () => ToolContext;
  /** The pick that the tool in hand wants next. */
  readonly wanted: () => Extract<Tool["parts"][number], { kind: "pick" }> | undefined;
};

/** Takes up the tool that a handle offers, with some of its picks and choices made. */
export type TakeUp = (
  tool: Tool,
  picks: Readonly<Record<string, Picked>>,
  by: { readonly grabbed: NonNullable<Hand["grabbed"]>; readonly choices?: Readonly<Record<string, string>> },
) => void;

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
  /** Why nothing may be changed in this tab, where it may not. */
  readonly readOnly?: ReadOnly | undefined;
  /** Carries out long work in a worker; the id of the stored picture it made. */
  readonly carryOut: (ask: Ask, report: (part: number) => void, stop: AbortSignal) => Promise<string>;
  /** Traces a stored picture, or a part of it (in its pixels), in a worker. */
  readonly trace: (
    picture: Picture,
    box: Bounds,
    report: (part: number) => void,
    stop: AbortSignal,
  ) => Promise<PictureTrace>;
  /** Something went away or was cut loose: a note that offers to undo. */
  readonly notify: (text: string, again: Again | undefined, undo: () => void) => void;
  readonly saveFile: () => void;
  /** Gives the board the keys, so that Enter takes what is shown there. */
  readonly toBoard: () => void;
  /** Where a worked example is followed in this job: how far it was, and where that is kept. */
  readonly followed?: { readonly now: Following; readonly remember: (now: Following | undefined) => void } | undefined;
  /** Goes to another place of the job, with what is selected. */
  readonly openPlace: (place: JobPlace, selected: readonly Id[]) => void;
};
