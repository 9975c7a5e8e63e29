import Joi from "joi";
import { PAPER_NAMES, type Paper } from "@ash-edge/core/sheet";
import { remember, remembered } from "../ui/remembered.ts";

/** How this shop puts jobs on paper, as it was chosen last. */
export type Setup = {
  readonly paper: Paper;
  readonly template: boolean;
  /** Drawing to paper; as it fits where it says nothing. */
  readonly scale?: number | undefined;
  readonly callouts: boolean;
  readonly sketch: boolean;
  readonly questions: boolean;
  readonly shop: string;
};

const FIRST: Setup = {
  paper: { name: "A3", landscape: true },
  template: false,
  callouts: true,
  sketch: false,
  questions: false,
  shop: "",
};

const schema = Joi.object({
  paper: Joi.object({ name: Joi.valid(...PAPER_NAMES).required(), landscape: Joi.boolean().required() }).required(),
  template: Joi.boolean().required(),
  callouts: Joi.boolean().required(),
  sketch: Joi.boolean().required(),
  questions: Joi.boolean().default(false),
  shop: Joi.string().allow("").max(80).required(),
});

const KEPT = "ash-edge-sheet";

/** What was chosen last, without the scale: that belongs to a drawing. */
export const keptSetup = (): Setup => {
  try {
    const value: unknown = JSON.parse(remembered(KEPT) ?? "");
    const { error, value: kept } = schema.validate(value, { convert: false }) as { error?: Error; value: Setup };
    return error ? FIRST : kept;
  } catch {
    return FIRST;
  }
};

export const keepSetup = ({ scale: _, ...setup }: Setup): void => remember(KEPT, JSON.stringify(setup));
