import type { Example } from "./example/example.ts";
import type { NewAnnotation } from "@ash-edge/core/annotate";
import type { Ref, PictureSize, Callout, Drawing, Edit } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import type { DrawingIndex } from "@ash-edge/core/look";
import type { Expectation, Id, Outcome, Refusal, SizeKind, Unit } from "@ash-edge/core/numeric";
import type { StraightenPlan } from "@ash-edge/core/picture";
import type { Shape } from "@ash-edge/core/shape";

/** The banks of the key grid, by the key that takes them. */
export const BANKS = {
  KeyQ: "Lay out",
  KeyW: "Draw",
  KeyE: "Round",
  KeyR: "Tangent",
  KeyT: "Shapes",
  KeyA: "Cut back",
  KeyS: "Corners",
  KeyD: "Copies",
  KeyF: "Areas",
  KeyG: "Chains",
  KeyZ: "Dimensions",
  KeyX: "Holes",
  KeyC: "Measure",
  KeyV: "View",
  KeyB: "Job",
} as const;
export type BankKey = keyof typeof BANKS;
/** What stands in a bank's own cell of the grid where its name is too long for it; the trade's short word. */
export const BANK_SHORT: Readonly<Partial<Record<BankKey, string>>> = { KeyZ: "Dims" };
export const BANK_KEYS = Object.keys(BANKS) as readonly BankKey[];

/** Shown only while the choices stand so. */
export type OnlyIf = (choices: Readonly<Record<string, string>>) => boolean;
/** Shown only under some options of a choice. */
export const under =
  (choice: string, ...options: readonly string[]): OnlyIf =>
  (choices) =>
    options.includes(choices[choice] ?? "");

/**
 * The sentence of a tool, part by part. A pick is filled on the board, a size is a radius or diameter, a value a
 * length, an angle or a count, a list is numbers and ranges such as `3, 5-7`; what `stays` is kept after a piece is
 * made, what does not is released. A `round` pick takes no straight curves. A silent pick is a click that the sentence
 * has no blank for, such as the side of a parallel. Things are what is selected, or what is clicked where nothing is; a
 * place on a picture is in its pixels; a bare place is never snapped.
 */
export type Part =
  | { readonly kind: "words"; readonly text: string; readonly onlyIf?: OnlyIf }
  | {
      readonly kind: "pick";
      readonly name: string;
      readonly onlyIf?: OnlyIf;
      readonly label: string;
      readonly takes: "point" | "curve" | "either" | "things" | "picture" | "place";
      readonly round?: boolean;
      /** The place on the curve counts, so snaps on it hold. */
      readonly exact?: boolean;
      readonly silent?: boolean;
      /** It says no more than a side now, so nothing near the pointer holds it. */
      readonly bare?: (wanting: Wanting) => boolean;
      /** Curves that do not fit what is picked already are not meant: the click is a bare place there. */
      readonly fits?: (ref: Ref, picks: Readonly<Record<string, Picked | undefined>>, drawing: Drawing) => boolean;
    }
  | {
      readonly kind: "size";
      readonly name: string;
      readonly first: SizeKind;
      readonly onlyIf?: OnlyIf;
      /** Takes several sizes at once, `.75 .25 1`: one for each piece that is made. */
      readonly several?: true;
      /** Of two sizes typed at once the second goes into that blank. */
      readonly second?: string;
    }
  | { readonly kind: "thread"; readonly name: string; readonly label: string; readonly onlyIf?: OnlyIf }
  | { readonly kind: "text"; readonly name: string; readonly label: string; readonly onlyIf?: OnlyIf }
  | { readonly kind: "list"; readonly name: string; readonly label: string; readonly onlyIf?: OnlyIf }
  | {
      readonly kind: "value";
      readonly name: string;
      readonly label: string;
      readonly expects: Expectation;
      readonly stays: boolean;
      readonly onlyIf?: OnlyIf;
      readonly given?: number;
      /** Takes 0 and negative lengths: a coordinate. */
      readonly signed?: boolean;
    }
  /** One of the drawing's layers, by its id; the working layer unless another is chosen. */
  | { readonly kind: "layer"; readonly name: string; readonly label: string; readonly onlyIf?: OnlyIf }
  | {
      readonly kind: "choice";
      readonly onlyIf?: OnlyIf;
      /** Shown as the nine places of a rectangle instead of words in a row. */
      readonly nine?: boolean;
      readonly name: string;
      readonly label: string;
      readonly options: readonly (readonly [id: string, words: string])[];
    };

/** Something picked: a thing at a place, or a bare place. */
export type Picked = {
  readonly at: Point;
  readonly ref?: Ref;
  readonly snap?: string;
  /** The picture that the place is on; `at` is in its pixels then, y down. */
  readonly picture?: PictureSize;
};

/** A value typed, or taken from a callout; `value` in the job's unit, degrees or a count, in its own kind (R or Ø). */
export type Entry = {
  readonly text: string;
  readonly value: number;
  readonly callout?: Id;
  /** Sizes that come after this one, each for the next piece. */
  readonly then?: readonly number[];
  /** It is left from the piece made before: a callout takes its place without being asked to. */
  readonly left?: true;
};

/** What a tool is given to propose from: `picks` holds the pointer's own pick for the next blank, too. */
export type Given = {
  readonly picks: Readonly<Record<string, Picked | undefined>>;
  /** True when the blank was filled by a click, not by the pointer. */
  readonly isFirm: (name: string) => boolean;
  readonly pointer: Point | undefined;
  readonly value: (name: string) => number | undefined;
  /** What is typed, as text: for a thread its designation, for a text its words. */
  readonly text: (name: string) => string | undefined;
  /** The typed size as a radius. */
  readonly radius: (name: string) => number | undefined;
  readonly choice: (name: string) => string;
  /** What is selected for the tool to work on; none while more is being added to it. */
  readonly things: readonly Id[];
  /** The callout whose value fills a blank, if one does. */
  readonly callout: (name: string) => Callout | undefined;
};

/** What decides which pick is wanted next. */
export type Wanting = Pick<Given, "value" | "radius" | "choice" | "things" | "picks">;

/** With its distance typed a parallel wants no more than its side. */
export const bySide = ({ value }: Wanting): boolean => value("distance") !== undefined;

export type ToolContext = {
  readonly drawing: Drawing;
  readonly index: DrawingIndex;
  readonly unit: Unit;
  readonly selection: ReadonlySet<Id>;
  /** The working layer: what is drawn goes there. */
  readonly layer: Id;
};

/** Something drawn before it is made: added, or about to go; what is filled is so together, holes left out. */
export type PreviewShape = { readonly shape: Shape; readonly goes?: boolean; readonly fill?: boolean };

/** Work for a worker: what it is, and the edit that its answer makes. */
export type Ask = {
  readonly name: "straighten";
  readonly words: string;
  readonly input: { readonly photo: PictureSize; readonly plan: StraightenPlan };
  /** `made` is the stored picture that the work made. */
  readonly edit: (drawing: Drawing, made: string) => Edit;
};

/** One of the solutions that the next click could make. */
export type Way = {
  readonly preview: readonly PreviewShape[];
  /** Dimensions, notes and marks that it would make. */
  readonly annotations?: readonly NewAnnotation[];
  readonly edit?: () => Outcome<Edit>;
  /** Long work that makes the edit, away from the page. */
  readonly ask?: Ask;
  readonly said?: string;
  readonly next?: Readonly<Record<string, Picked>>;
};

export type Chart = {
  readonly profile: readonly { readonly along: number; readonly off: number }[];
  readonly tolerance: number;
};

export type Proposal = {
  readonly ways: readonly Way[];
  /** Why there is no way. */
  readonly refusal?: Refusal;
  /** What the pointer gives for blanks that nothing is typed in. */
  readonly live?: Readonly<Record<string, number>>;
  /** A short word on what the next click would make. */
  readonly note?: string;
  /** How far what would be made lies off what it stands for, all along it. */
  readonly chart?: Chart;
};

export const nothing: Proposal = { ways: [] };
/** A proposal with one way. */
export const oneWay = (preview: readonly Shape[], edit: () => Outcome<Edit>, live?: Proposal["live"]): Proposal => ({
  ways: [{ preview: preview.map((shape) => ({ shape })), edit }],
  ...(live ? { live } : {}),
});
/** A proposal with no way and the reason for that. */
export const refused = (outcome: { readonly refusal: Refusal }): Proposal => ({ ways: [], refusal: outcome.refusal });

type Named = {
  readonly id: string;
  readonly name: string;
  /** What it needs and what it makes, in a sentence or two. */
  readonly help: string;
  /** A small drawing, in a box of 24 by 24 with y down: SVG path data, the main stroke first, the thin one second. */
  readonly drawing: readonly [main: string, thin?: string];
};

/** A tool that is taken up and stays active until Esc. Pure: no screen, no store. */
export type Tool = Named & {
  readonly kind: "tool";
  readonly parts: readonly Part[];
  /** A small piece of work by which it is explained, and tried in the tests. */
  readonly example: Example;
  /** Choices that do not start with their first option. */
  readonly first?: Readonly<Record<string, string>>;
  /** Which picks it wants, in order, with what is typed and picked so far; all its picks where it does not say. */
  readonly wants?: (given: Wanting) => readonly string[];
  /** Put down once it made something. */
  readonly once?: true;
  /** What it makes is layout: the sizes typed for it are not the customer’s. */
  readonly layout?: true;
  readonly propose: (given: Given, context: ToolContext) => Proposal;
  /** What Enter makes when nothing typed is waiting; without it, Enter makes what a click would. */
  readonly finish?: (given: Given, context: ToolContext) => Proposal;
  /** What a drag makes, by the places it went through (all of them, or as the corners of a box). */
  readonly dragged?: (given: Given, context: ToolContext, path: readonly Point[]) => Proposal;
  /** A drag is a way across the board, or a box. */
  readonly drag?: "path" | "box";
  /** What a callout says besides its value: the choices and the values of other blanks that it fills as well. */
  readonly alsoSays?: (
    callout: Callout,
  ) =>
    | { readonly choices: Readonly<Record<string, string>>; readonly values: Readonly<Record<string, number>> }
    | undefined;
  /** What was measured answers callouts of these kinds: a click on one says so. */
  readonly answers?: readonly Callout["kind"][];
  /** The point from which the next one is drawn: tangent snaps and held directions start there. */
  readonly from?: string;
};

/** Done at once; leaves the active tool and its picks alone. */
export type Action = Named & {
  readonly kind: "action";
  /** Its name on the key grid, where that is shorter. */ readonly short?: string;
};

/** Whether a part of the sentence is shown, as the choices stand. */
export const isShown = ({ onlyIf }: Part, choices: Readonly<Record<string, string>>): boolean =>
  onlyIf === undefined || onlyIf(choices);

/** The blanks of a tool that are picked rather than typed. */
export const pickParts = (tool: Tool): readonly Extract<Part, { kind: "pick" }>[] =>
  tool.parts.filter((part) => part.kind === "pick");
