import { expose, transfer } from "comlink";
import { faultsOf, subjectOf, type Fault } from "@ash-edge/core/checks";
import { applyEdit, type Drawing, type Edit } from "@ash-edge/core/drawing";
import { indexDrawing, reindex, type DrawingIndex } from "@ash-edge/core/look";
import { profileOf, type Profile } from "@ash-edge/core/profile";
import { paintMass } from "../bench/board/paintMass.ts";
import type { Palette } from "../bench/board/palette.ts";
import { inSight, type Size, type View } from "../bench/board/view.ts";
import { rolesOf } from "../bench/roles.ts";

/** What is worked out of a great drawing; without the pieces, which the page has itself. */
export type Derived = Profile & {
  readonly faults: readonly Fault[];
};

let drawing: Drawing | undefined;
let index: DrawingIndex | undefined;
let roles: ReturnType<typeof rolesOf> = new Map();

/** A second copy of the drawing, kept up with the page's by its edits: what takes long is done here. */
export const worker = {
  start: (whole: Drawing): void => {
    drawing = whole;
    index = indexDrawing(whole);
  },
  step: (edit: Edit): void => {
    if (!drawing || !index) throw new Error("There is no drawing yet.");
    drawing = applyEdit(drawing, edit);
    index = reindex(index, drawing);
  },
  derive: (): Derived => {
    if (!drawing) throw new Error("There is no drawing yet.");
    const profile = profileOf(drawing);
    roles = rolesOf(profile);
    return {
      contours: profile.contours.map((contour) => ({ ...contour, pieces: [] })),
      open: profile.open.map((chain) => ({ ...chain, pieces: [chain.pieces[0]!, chain.pieces.at(-1)!] })),
      marks: [],
      smooth: profile.smooth,
      faults: faultsOf(subjectOf(drawing, profile), { quick: true }),
    };
  },
  /** The geometry in sight as a picture, `ratio` device pixels to one of the page. */
  paint: (view: View, size: Size, ratio: number, palette: Palette, signsHidden: boolean): ImageBitmap => {
    const canvas = new OffscreenCanvas(Math.max(1, size.width * ratio), Math.max(1, size.height * ratio));
    const context = canvas.getContext("2d")!;
    context.scale(ratio, ratio);
    if (drawing && index)
      paintMass(context, { drawing, index, view, signsHidden }, inSight(view, size), palette, roles);
    const bitmap = canvas.transferToImageBitmap();
    return transfer(bitmap, [bitmap]);
  },
};
export type MassWorker = typeof worker;
expose(worker);
