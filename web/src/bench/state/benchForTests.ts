import { applyEdit, newDrawing, PROFILE_LAYER, type Drawing } from "@ash-edge/core/drawing";
import { draftEdit } from "@ash-edge/core/edits";
import type { Shape } from "@ash-edge/core/shape";
import { makeSession, type Session } from "../session.ts";
import { NOTHING_KEPT } from "./kept.ts";

/** A drawing with a circle and a line to point at. */
export const someDrawing = (): Drawing => {
  const drawing = newDrawing("mm");
  const draft = draftEdit(drawing, "Draw", "draw");
  const shapes: Shape[] = [
    { kind: "circle", centre: { x: 0, y: 0 }, radius: 20 },
    { kind: "piece", a: { x: 50, y: 0 }, b: { x: 90, y: 0 }, bulge: 0 },
  ];
  for (const shape of shapes) draft.add(shape, PROFILE_LAYER);
  return applyEdit(drawing, draft.finish());
};

/** A bench of one drawing without a page around it: 400 × 300 pixels, one pixel a millimetre, (200, 150) the datum. */
export const benchOf = (drawing: Drawing): Session => {
  const session = makeSession(
    "job",
    { drawing, history: { edits: [], first: 0, position: 0 }, token: 0 },
    {
      keeper: {
        by: "",
        again: () => undefined,
        keep: () => undefined,
        idle: async () => undefined,
        end: () => undefined,
      },
      older: async () => ({ edits: [] }),
      kept: NOTHING_KEPT,
      remember: () => undefined,
      view: { scale: 1, originX: 200, originY: 150 },
      layer: undefined,
      carryOut: async () => "",
      trace: async () => ({ proposals: [], lettering: [], stroke: 1 }),
      notify: () => undefined,
      saveFile: () => undefined,
      toBoard: () => undefined,
      openPlace: () => undefined,
    },
  );
  session.act.resize({ width: 400, height: 300 });
  return session;
};
