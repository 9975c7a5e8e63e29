import { boundsOf, type Bounds } from "../geometry/bounds.ts";
import { turned, type Point } from "../geometry/point.ts";
import type { Id } from "../numeric/id.ts";

/**
 * A sketch picture laid under the drawing. Places on it are pixels from its top left corner, y down; that corner lies
 * at `at`, a pixel is `scale` units wide, and its rows run at `angle`.
 */
export type Picture = {
  readonly id: Id;
  /** Which stored picture. */
  readonly blob: string;
  readonly width: number;
  readonly height: number;
  readonly at: Point;
  readonly scale: number;
  readonly angle: number;
  /** False until its scale was taken from a known length: then it is only laid there. */
  readonly scaled: boolean;
  readonly shown: boolean;
  readonly locked: boolean;
  /** 0 to 1. */
  readonly opacity: number;
  /** The stored picture that this one was straightened from. */
  readonly from?: string;
  /** Where layout is meant to lie: lines marked on the sketch, in pixels of it. */
  readonly plan?: readonly PlanLine[];
};

/** A line marked on a sketch as a plan; places are pixels from the picture's top left corner, y down. */
export type PlanLine = { readonly a: Point; readonly b: Point };

/** A stored picture and its size in pixels. */
export type PictureSize = Pick<Picture, "blob" | "width" | "height">;

type Lie = Pick<Picture, "at" | "scale" | "angle">;

/** The place in the drawing of a place on the picture (pixels, y down). */
export const fromPicture = ({ at, scale, angle }: Lie, p: Point): Point => {
  const { x, y } = turned({ x: p.x * scale, y: -p.y * scale }, angle);
  return { x: at.x + x, y: at.y + y };
};

/** The place on the picture, in pixels, of a place in the drawing. */
export const ontoPicture = ({ at, scale, angle }: Lie, p: Point): Point => {
  const { x, y } = turned({ x: p.x - at.x, y: p.y - at.y }, -angle);
  return { x: x / scale, y: -y / scale };
};

/** The four corners of a picture on the board, from its first pixel round. */
export const pictureCorners = (picture: Lie & Pick<Picture, "width" | "height">): readonly Point[] => {
  const { width, height } = picture;
  return [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ].map((p) => fromPicture(picture, p));
};

/** The box round a picture on the board, as it lies. */
export const pictureBounds = (picture: Picture): Bounds => boundsOf(pictureCorners(picture));

/** True where a place of the board lies on the picture, its edge included. */
export const isOnPicture = (picture: Picture, p: Point): boolean => {
  const { x, y } = ontoPicture(picture, p);
  return x >= 0 && y >= 0 && x <= picture.width && y <= picture.height;
};
