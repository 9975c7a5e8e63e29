import type { Chain } from "../contour/chain.ts";
import type { Circle } from "../geometry/circle.ts";
import type { Ellipse } from "../geometry/ellipse.ts";
import type { Endless } from "../geometry/endless.ts";
import type { Free } from "../geometry/free.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";

export type Shape =
  | { readonly kind: "point"; readonly at: Point }
  | ({ readonly kind: "piece" } & Piece)
  | ({ readonly kind: "circle" } & Circle)
  | ({ readonly kind: "chain" } & Chain)
  | ({ readonly kind: "endless" } & Endless)
  | ({ readonly kind: "ellipse" } & Ellipse)
  | ({ readonly kind: "free" } & Free);
