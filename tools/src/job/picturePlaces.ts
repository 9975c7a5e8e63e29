import type { Drawing } from "@ash-edge/core/drawing";
import { refuse } from "@ash-edge/core/numeric";
import { pictureOf } from "@ash-edge/core/picture";
import { nothing, refused, type Part, type Picked, type Given, type Proposal } from "../tool.ts";

/** A blank that takes a place on a sketch picture. */
export const place = (name: string, label: string): Part => ({ kind: "pick", name, label, takes: "picture" });

export type Placed = Picked & { readonly picture: NonNullable<Picked["picture"]> };

/** The places picked so far, if all lie on one picture that may be changed. */
export const places = (
  given: Given,
  drawing: Drawing,
  names: readonly string[],
  changes = true,
): readonly Placed[] | Proposal => {
  const picked = names.map((name) => given.picks[name]).filter((one) => one !== undefined) as Placed[];
  const first = picked[0]?.picture;
  if (!first) return nothing;
  if (picked.some(({ picture }) => picture.blob !== first.blob)) return refused(refuse("pictures-differ"));
  if (changes && pictureOf(drawing, first.blob)?.locked) return refused(refuse("picture-locked"));
  return picked.length < names.length ? nothing : picked;
};
/** True where a proposal came in place of what was looked for. */
export const isProposal = (found: readonly Placed[] | Proposal): found is Proposal => "ways" in found;

/** Their previews are lines on the picture itself, which the sketch card draws through the places picked. */
export const made = (edit: NonNullable<Proposal["ways"][number]["edit"]>, said?: string): Proposal => ({
  ways: [{ preview: [], edit, ...(said ? { said } : {}) }],
});

/** Measured off a picture, nothing is known better than this. */
export const round = (length: number): number => Number(length.toPrecision(5));
