import type { Size, View } from "../board/view.ts";

/** How the board shows the drawing. */
export type ViewPart = {
  readonly now: View;
  readonly size: Size;
  /** The drawing was fitted into the board once it had a size. */
  readonly fittedOnce: boolean;
  readonly magnified: boolean;
  readonly signsHidden: boolean;
};
export const NOTHING_SHOWN: ViewPart = {
  now: { scale: 1, originX: 0, originY: 0 },
  size: { width: 0, height: 0 },
  fittedOnce: false,
  magnified: false,
  signsHidden: false,
};

export type ViewEvent =
  | { readonly type: "shown"; readonly view: View }
  | { readonly type: "resized"; readonly size: Size }
  | { readonly type: "magnifier" | "signs" };

export const viewAfter = (view: ViewPart, event: ViewEvent): ViewPart => {
  switch (event.type) {
    case "shown":
      return { ...view, now: event.view };
    case "resized":
      return { ...view, size: event.size, fittedOnce: view.fittedOnce || event.size.width > 0 };
    case "magnifier":
      return { ...view, magnified: !view.magnified };
    case "signs":
      return { ...view, signsHidden: !view.signsHidden };
  }
};
