import type { UsedCallout } from "@ash-edge/core/callouts";
import type { PictureSize } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import type { SizeKind } from "@ash-edge/core/numeric";
import type { Placing } from "./placing.ts";
import type { Entry, Picked, Tool } from "./tool.ts";

/** Where an active tool stands. `way` counts the presses of Space; `open` is the text being typed. */
export type ToolState = {
  readonly picks: Readonly<Record<string, Picked>>;
  readonly entries: Readonly<Record<string, Entry>>;
  readonly kinds: Readonly<Record<string, SizeKind>>;
  readonly choices: Readonly<Record<string, string>>;
  readonly way: number;
  /** The wanted point is being typed instead of clicked. */
  readonly placing?: Placing;
  /** The point picked last, from which typed points may count. */
  readonly last?: Point;
  /** More is being added to what is selected: Enter goes on. */
  readonly gathering?: boolean;
  /** True while the first pick is the end of the piece just made. */
  readonly chained?: boolean;
  /** The picks from which each piece of the run was drawn, for stepping back. */
  readonly trail?: readonly Readonly<Record<string, Picked>>[];
  readonly open?: { readonly blank: string; readonly text: string };
  /** The blank or the point that was lit by hand. */
  readonly lit?: string;
  /** The choice that the key for choices swaps; the first unless another was gone to. */
  readonly swaps?: string;
  /** Nothing was entered since the tool was taken up or made something: its first blank is lit. */
  readonly fresh?: true;
  /** Callouts that gave an x or a y of what is picked. */
  readonly counted?: readonly UsedCallout[];
  /** What the last click said or measured. */
  readonly said?: string;
  readonly measured?: readonly Picked[];
};

/** What the pointer is over: the place (snapped where the blank takes points), and the things there, nearest first. */
export type Hover = {
  readonly at: Point;
  readonly snap?: { readonly kind: string; readonly ref?: Picked["ref"] };
  readonly under: readonly Picked[];
  /** The pointer is over a sketch picture; `at` is in its pixels then. */
  readonly picture?: PictureSize;
};

/** The state in which a tool is taken up: choices as they were left, sizes never. */
export const startTool = (
  tool: Tool,
  kept: {
    readonly choices?: Readonly<Record<string, string>>;
    readonly kinds?: Readonly<Record<string, SizeKind>>;
  } = {},
): ToolState => {
  const choices: Record<string, string> = {};
  const kinds: Record<string, SizeKind> = {};
  for (const part of tool.parts) {
    if (part.kind === "choice") {
      const left = kept.choices?.[part.name];
      choices[part.name] = part.options.some(([id]) => id === left)
        ? left!
        : (tool.first?.[part.name] ?? part.options[0]![0]);
    }
    if (part.kind === "size") kinds[part.name] = kept.kinds?.[part.name] ?? part.first;
  }
  return { picks: {}, entries: {}, kinds, choices, way: 0, fresh: true };
};
