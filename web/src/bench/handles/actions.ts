import type { AnnotationHandle } from "@ash-edge/core/annotate";
import { annotationOf, curveAt, type Drawing } from "@ash-edge/core/drawing";
import type { Picked, Tool } from "@ash-edge/tools";
import { bow } from "@ash-edge/tools/chains/bow";
import { straighten } from "@ash-edge/tools/chains/straighten";
import { move } from "@ash-edge/tools/copies/move";
import {
  addTipTool,
  flipArrowsTool,
  holdInsteadTool,
  landingTool,
  moveLineTool,
  moveTextTool,
  takeTipOffTool,
  textToMiddleTool,
} from "@ash-edge/tools/dimensions/handles";
import { freePointsTool } from "@ash-edge/tools/draw/freePoints";
import { addCornerTool } from "@ash-edge/tools/handles/addCorner";
import { lengthenTool } from "@ash-edge/tools/handles/lengthen";
import { radiusOfCircle } from "@ash-edge/tools/handles/radiusOfCircle";
import { removeCornerTool } from "@ash-edge/tools/handles/removeCorner";
import { shiftTool } from "@ash-edge/tools/handles/shift";
import { stretchTool } from "@ash-edge/tools/handles/stretch";
import type { Handle } from "../state/handle.ts";

/** One thing that a handle offers: a tool, with what the handle picks for it. */
export type HandleAction = {
  readonly tool: Tool;
  readonly words: string;
  readonly picks: (handle: Handle) => Readonly<Record<string, Picked>>;
  readonly choices?: Readonly<Record<string, string>>;
};

const picked = ({ at, refs }: Handle): Picked => ({ at, ...(refs[0] ? { ref: refs[0] } : {}) });
const own = (tool: Tool, words: string): HandleAction => ({
  tool,
  words,
  picks: (handle) => ({ handle: picked(handle) }),
});
const stretched = own(stretchTool, "stretch");
const moved: HandleAction = { tool: move, words: "move", picks: ({ at }) => ({ from: { at } }) };
const bowed: HandleAction = { tool: bow, words: "bow", picks: (handle) => ({ piece: picked(handle) }) };
const straightened: HandleAction = {
  tool: straighten,
  words: "straighten",
  picks: (handle) => ({ piece: picked(handle) }),
};
const shifted = own(shiftTool, "shift");
const added = own(addCornerTool, "add a corner");
const pointMoved: HandleAction = {
  tool: freePointsTool,
  words: "move the point",
  picks: (handle) => ({ curve: picked(handle) }),
  choices: { do: "move" },
};

/** What handles of dimensions, notes and marks offer, by what they are: the first at once with a click or a pull. */
const annotationActions = (drawing: Drawing, { kind, refs: [ref] }: AnnotationHandle): readonly HandleAction[] => {
  const annotation = annotationOf(drawing, ref.id);
  if (!annotation) return [];
  const { kind: of, lost, refs } = annotation;
  if (kind === "held") {
    const held = own(holdInsteadTool, of === "note" ? "point elsewhere" : "measure from elsewhere");
    return of === "note" && refs.length > 1 ? [held, own(takeTipOffTool, "take the tip off")] : [held];
  }
  if (kind === "line") return [own(moveLineTool, "move the line"), own(flipArrowsTool, "flip the arrows")];
  const moves = own(moveTextTool, "move the text");
  if (lost) return [moves];
  const landing = own(landingTool, annotation.bare ? "show the landing" : "hide the landing");
  switch (of) {
    case "note":
      return [moves, ...(refs.length > 0 ? [landing] : []), own(addTipTool, "add a tip")];
    case "radius":
    case "diameter":
      return [moves, own(flipArrowsTool, "flip the arrows"), landing];
    case "ordinate":
      return [moves];
    case "linear":
      return annotation.at.x === 0
        ? [moves, own(flipArrowsTool, "flip the arrows")]
        : [moves, own(textToMiddleTool, "to the middle"), own(flipArrowsTool, "flip the arrows")];
    default:
      return [moves, own(flipArrowsTool, "flip the arrows")];
  }
};

/** What a handle offers, the first at once with a click or a pull. */
export const actionsOf = (drawing: Drawing, handle: Handle): readonly HandleAction[] => {
  switch (handle.kind) {
    case "text":
    case "line":
    case "held":
      return annotationActions(drawing, handle);
    case "end":
      return handle.refs.length > 1 ? [stretched] : [stretched, own(lengthenTool, "lengthen")];
    case "corner":
      return [stretched, own(removeCornerTool, "take it out")];
    case "chain end":
      return [stretched, own(lengthenTool, "lengthen"), own(removeCornerTool, "take it out")];
    case "radius":
      return [own(radiusOfCircle, "radius")];
    case "centre":
      return [moved];
    case "curve point":
      return [pointMoved];
    case "middle": {
      const curve = handle.refs[0] && curveAt(drawing, handle.refs[0]);
      if (curve?.kind === "piece" && curve.bulge !== 0) return [bowed, shifted, straightened, added, moved];
      return handle.refs[0]?.vertex === undefined ? [moved, shifted, bowed, added] : [shifted, bowed, added, moved];
    }
  }
};
