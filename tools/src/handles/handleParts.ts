import { curveAt, type Edit } from "@ash-edge/core/drawing";
import type { Piece } from "@ash-edge/core/geometry";
import type { Outcome } from "@ash-edge/core/numeric";
import { changingWay } from "../making.ts";
import { refused, type Proposal, type ToolContext, type Picked, type Part, type Given } from "../tool.ts";

// What a handle offers. They are taken up at the handle, which is their pick `handle`, and put down once they made
// something.

/** A proposal of one edit, shown as what it changes. */
export const changes = (edit: Outcome<Edit>, live?: Proposal["live"]): Proposal =>
  edit.ok
    ? { ways: [changingWay(edit.value)], ...(live ? { live } : {}) }
    : { ...refused(edit), ...(live ? { live } : {}) };

/** The line or arc that was picked, in a chain or by itself; undefined for anything else. */
export const pieceAt = ({ drawing }: ToolContext, picked: Picked | undefined): Piece | undefined => {
  const curve = picked?.ref && curveAt(drawing, picked.ref);
  return curve?.kind === "piece" ? curve : undefined;
};

export const tangency: Part = {
  kind: "choice",
  name: "tangency",
  label: "rounded corners",
  options: [
    ["stay", "stay round"],
    ["go", "let go"],
  ],
};
/** True where what is tangent is to stay so. */
export const staysTangent = (given: Given): boolean => given.choice("tangency") === "stay";
