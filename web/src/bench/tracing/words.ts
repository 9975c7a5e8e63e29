import type { Picture } from "@ash-edge/core/drawing";
import { pieceLength, pieceRadius } from "@ash-edge/core/geometry";
import { derivedNumber, showLength, type Unit } from "@ash-edge/core/numeric";
import { placedShape, type Proposal } from "@ash-edge/core/picture/trace";

/** Measured off a picture, nothing is known better than this. */
const shown = (length: number, unit: Unit, digits = 3): string =>
  showLength(derivedNumber(Number(length.toPrecision(digits))), unit);

/** What a proposal is called: its kind and its size, about. */
export const proposalWords = (picture: Picture, { shape }: Proposal, unit: Unit): string => {
  const placed = placedShape(picture, shape);
  if (placed.kind === "circle") return `circle Ø ${shown(2 * placed.radius, unit)}`;
  return placed.bulge === 0 ? `line ${shown(pieceLength(placed), unit)}` : `arc R ${shown(pieceRadius(placed), unit)}`;
};

/** How far its ink lies off it. */
export const offWords = (picture: Picture, { off }: Proposal, unit: Unit): string =>
  `± ${shown(off * picture.scale, unit, 2).replace("≈ ", "")}`;
