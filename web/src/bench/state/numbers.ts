import type { Drawing, Ref } from "@ash-edge/core/drawing";
import type { Id } from "@ash-edge/core/numeric";
import type { Held } from "@ash-edge/core/solve";
import type { TrueFound } from "../../worker/true.worker.ts";

/**
 * Numbers while they are made true: which are asked, what is let go of and what stays, and what was found, of the
 * drawing `of`; of nothing while that is undefined.
 */
export type Numbers = {
  readonly asked: readonly Id[];
  readonly letGo: readonly Held[];
  readonly stays: readonly Ref[];
  /** The drafter says that it is exact as it is drawn. */
  readonly asDrawn: boolean;
  /** The next click on the board says what stays. */
  readonly picking: boolean;
  readonly busy: boolean;
  readonly of?: Drawing | undefined;
  readonly found?: TrueFound | undefined;
  /** Why nothing was found out. */
  readonly failed?: string | undefined;
};

export type NumbersEvent =
  | { readonly type: "opened"; readonly asked: readonly Id[] }
  | { readonly type: "closed" }
  | { readonly type: "asked"; readonly asked: readonly Id[] }
  | { readonly type: "let go"; readonly held: Held }
  | { readonly type: "holds again"; readonly key: string }
  | { readonly type: "picking"; readonly on: boolean }
  | { readonly type: "stays"; readonly refs: readonly Ref[] }
  | { readonly type: "as drawn"; readonly on: boolean }
  | { readonly type: "looking" }
  | { readonly type: "found"; readonly of: Drawing; readonly found: TrueFound }
  | { readonly type: "failed"; readonly why: string };

const OPENED = { letGo: [], stays: [], asDrawn: false, picking: false, busy: false } as const;

/** Undefined while numbers are not looked at: only opening them ends that. */
export const numbersAfter = (numbers: Numbers | undefined, event: NumbersEvent): Numbers | undefined => {
  if (event.type === "opened") return { ...OPENED, asked: event.asked };
  if (!numbers) return undefined;
  switch (event.type) {
    case "closed":
      return undefined;
    case "asked":
      return { ...numbers, asked: event.asked };
    case "let go":
      return { ...numbers, letGo: [...numbers.letGo, event.held] };
    case "holds again":
      return { ...numbers, letGo: numbers.letGo.filter(({ key }) => key !== event.key) };
    case "picking":
      return { ...numbers, picking: event.on };
    case "stays":
      return { ...numbers, stays: event.refs, picking: false };
    case "as drawn":
      return { ...numbers, asDrawn: event.on };
    case "looking":
      return { ...numbers, busy: true, of: undefined, failed: undefined };
    case "found":
      return { ...numbers, busy: false, of: event.of, found: event.found, failed: undefined };
    case "failed":
      return { ...numbers, busy: false, of: undefined, failed: event.why };
  }
};
