import type { Bounds } from "@ash-edge/core/geometry";
import type { Callout } from "@ash-edge/core/drawing";
import type { Id, Refusal } from "@ash-edge/core/numeric";
import type { BankKey } from "@ash-edge/tools";

export type Message = {
  readonly text: string;
  readonly tone: "fault" | "said";
  /** Why something was not done, where it was refused. */
  readonly refusal?: Refusal;
};

/** The panels beside the board, in the order of their tabs where they are folded behind one another. */
export const PANEL_TABS = ["sketch", "callouts", "pieces", "selected", "layers"] as const;
export type PanelTab = (typeof PANEL_TABS)[number];

/** What is open around the board, and what was said last. */
export type Panels = {
  readonly bank: BankKey | undefined;
  /** A callout is being written: where its pin goes, and which one is being changed. */
  readonly writing:
    | {
        readonly id?: Id;
        readonly pin?: NonNullable<Callout["pin"]>;
        /** It goes from word to word of the picture that is traced: where this one stands, in its pixels. */
        readonly word?: Bounds;
      }
    | undefined;
  /** A callout clicked with no tool active: the tools that fit it are offered. */
  readonly offered: Id | undefined;
  readonly message: Message | undefined;
  /** The panel in front, where they are folded. */
  readonly tab: PanelTab;
};
export const NO_PANELS: Panels = {
  bank: undefined,
  writing: undefined,
  offered: undefined,
  message: undefined,
  tab: "callouts",
};

export type PanelsEvent =
  | { readonly type: "bank"; readonly key: BankKey | undefined }
  | { readonly type: "writing"; readonly writing: Panels["writing"] }
  | { readonly type: "offered"; readonly callout: Id | undefined }
  | { readonly type: "tab"; readonly tab: PanelTab }
  | { readonly type: "said"; readonly message: Message | undefined };

export const panelsAfter = (panels: Panels, event: PanelsEvent): Panels => {
  switch (event.type) {
    case "bank":
      return panels.bank === event.key ? panels : { ...panels, bank: event.key };
    case "writing":
      return { ...panels, writing: event.writing, tab: event.writing ? "callouts" : panels.tab };
    case "offered":
      if (panels.offered === event.callout) return panels;
      return { ...panels, offered: event.callout, tab: event.callout === undefined ? panels.tab : "callouts" };
    case "tab":
      return panels.tab === event.tab ? panels : { ...panels, tab: event.tab };
    case "said":
      return panels.message === event.message ? panels : { ...panels, message: event.message };
  }
};
