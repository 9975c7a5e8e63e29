import Joi from "joi";
import { useState } from "react";
import { JOB_STATES, type JobState } from "../store/index.ts";
import { remember, remembered } from "../ui/remembered.ts";

/** How the list of jobs is shown; kept in this browser. */
export type TableSettings = {
  readonly search: string;
  readonly state: JobState | "all";
  readonly archived: boolean;
  readonly sorting: { id: string; desc: boolean }[];
};
const FIRST: TableSettings = { search: "", state: "all", archived: false, sorting: [{ id: "number", desc: false }] };
const KEY = "ash-edge-jobs-table";

const schema = Joi.object({
  search: Joi.string().allow("").required(),
  state: Joi.valid("all", ...JOB_STATES).required(),
  archived: Joi.boolean().required(),
  sorting: Joi.array()
    .items(Joi.object({ id: Joi.string().required(), desc: Joi.boolean().required() }))
    .required(),
});

const kept = (): TableSettings => {
  try {
    const { value, error } = schema.validate(JSON.parse(remembered(KEY) ?? "null"));
    return error || !value ? FIRST : (value as TableSettings);
  } catch {
    return FIRST;
  }
};

export const useTableSettings = (): readonly [TableSettings, (change: Partial<TableSettings>) => void] => {
  const [settings, setSettings] = useState(kept);
  const change = (part: Partial<TableSettings>): void => {
    const next = { ...settings, ...part };
    remember(KEY, JSON.stringify(next));
    setSettings(next);
  };
  return [settings, change];
};
