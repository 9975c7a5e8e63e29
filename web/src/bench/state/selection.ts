import type { Point } from "@ash-edge/core/geometry";
import type { Id } from "@ash-edge/core/numeric";

/** What is selected, lit and drawn on, and the box that selects more. */
export type Selection = {
  readonly ids: ReadonlySet<Id>;
  /** The working layer. */
  readonly layer: Id;
  /** The vertex stepped to in the Selected panel. */
  readonly vertex: Id | undefined;
  /** The selection box being drawn, by two corners in the drawing. */
  readonly box: { readonly from: Point; readonly to: Point } | undefined;
  /** Where a drag with a tool in hand has gone. */
  readonly sweep: readonly Point[] | undefined;
  /** Geometry lit from a list. */
  readonly lit: ReadonlySet<Id>;
  /** The callout hovered in the ledger. */
  readonly litCallout: Id | undefined;
};
export const nothingSelected = (layer: Id): Selection => ({
  ids: new Set(),
  layer,
  vertex: undefined,
  box: undefined,
  sweep: undefined,
  lit: new Set(),
  litCallout: undefined,
});

export type SelectionEvent =
  | { readonly type: "selected"; readonly ids: Iterable<Id> }
  | { readonly type: "lit"; readonly ids: Iterable<Id>; readonly callout?: Id }
  | { readonly type: "layer"; readonly id: Id }
  | { readonly type: "vertex"; readonly id: Id | undefined }
  | { readonly type: "box"; readonly box: NonNullable<Selection["box"]> }
  | { readonly type: "swept"; readonly path: readonly Point[] }
  | { readonly type: "box dropped" };

export const selectionAfter = (selection: Selection, event: SelectionEvent): Selection => {
  switch (event.type) {
    case "selected":
      return { ...selection, ids: new Set(event.ids), vertex: undefined };
    case "lit":
      return { ...selection, lit: new Set(event.ids), litCallout: event.callout };
    case "layer":
      return { ...selection, layer: event.id };
    case "vertex":
      return { ...selection, vertex: event.id };
    case "box":
      return { ...selection, box: event.box };
    case "swept":
      return { ...selection, sweep: event.path };
    case "box dropped":
      return { ...selection, box: undefined, sweep: undefined };
  }
};
