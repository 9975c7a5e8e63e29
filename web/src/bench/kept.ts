import Joi from "joi";
import { SNAP_KINDS } from "@ash-edge/core/look";
import { BANK_KEYS } from "@ash-edge/tools";
import { NOTHING_KEPT, type Kept } from "./state/index.ts";

/** The name under which the bench's settings are stored. */
export const KEPT_KEY = "bench";

const words = Joi.object().pattern(Joi.string(), Joi.object().pattern(Joi.string(), Joi.string().allow("")));
const bank = Joi.valid(...BANK_KEYS);
const SCHEMAS: Readonly<Record<keyof Kept, Joi.Schema>> = {
  choices: words,
  kinds: Joi.object().pattern(Joi.string(), Joi.object().pattern(Joi.string(), Joi.valid("R", "Ø"))),
  used: Joi.object().pattern(
    Joi.string(),
    Joi.array().items(Joi.object({ text: Joi.string().required(), job: Joi.string().required() })),
  ),
  selecting: Joi.object({
    how: Joi.valid("one", "run", "kind", "size", "layer", "inside").required(),
    box: Joi.valid("encloses", "touches").required(),
  }),
  snaps: Joi.object({
    off: Joi.array()
      .items(Joi.valid(...SNAP_KINDS))
      .required(),
    reach: Joi.number().min(1).max(200).required(),
    drawn: Joi.boolean().required(),
  }),
  card: Joi.object({ side: Joi.valid("left", "right").required(), large: Joi.boolean().required() }),
  keys: Joi.object().pattern(bank, bank),
  handles: Joi.boolean(),
  tidy: Joi.object({
    ignoreLayer: Joi.boolean().required(),
    sharedEdges: Joi.valid("keep", "drop", "merge").required(),
  }),
};

/**
 * What was kept, with what is new since. A part that is not what it should be falls back to how it is at first; `lost`
 * names those.
 */
export const keptOf = (stored: unknown): { readonly kept: Kept; readonly lost: readonly string[] } => {
  const given = (typeof stored === "object" && stored !== null ? stored : {}) as Partial<Record<keyof Kept, unknown>>;
  const lost: string[] = [];
  const kept: Record<string, unknown> = { ...NOTHING_KEPT };
  for (const [name, schema] of Object.entries(SCHEMAS)) {
    const value = Object.hasOwn(given, name) ? given[name as keyof Kept] : undefined;
    if (value === undefined) continue;
    if (schema.validate(value, { convert: false }).error) lost.push(name);
    else kept[name] = value;
  }
  return { kept: kept as Kept, lost };
};
