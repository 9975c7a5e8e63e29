import Joi from "joi";
import { useEffect } from "react";
import type { Id } from "@ash-edge/core/numeric";
import type { View } from "./board/view.ts";
import type { Session } from "./session.ts";
import { remember, remembered } from "../ui/remembered.ts";

const key = (job: string): string => `ash-edge-view ${job}`;
const schema = Joi.object({
  scale: Joi.number().positive().required(),
  originX: Joi.number().required(),
  originY: Joi.number().required(),
  layer: Joi.number().integer(),
});

/** How a job was left in this browser: its view and the working layer. */
export const leftView = (job: string): { readonly view: View; readonly layer: Id | undefined } | undefined => {
  try {
    const { value, error } = schema.validate(JSON.parse(remembered(key(job)) ?? "null"));
    if (error || !value) return undefined;
    const { layer, ...view } = value as View & { layer?: Id };
    return { view, layer };
  } catch {
    return undefined;
  }
};

/** Keeps the view and the working layer when the bench is left or reloaded. */
export const useKeptView = (job: string, session: Session): void => {
  useEffect(() => {
    const keep = (): void => {
      const {
        view: { now: view, fittedOnce },
        selection: { layer },
      } = session.getState();
      if (fittedOnce) remember(key(job), JSON.stringify({ ...view, layer }));
    };
    window.addEventListener("pagehide", keep);
    return () => {
      window.removeEventListener("pagehide", keep);
      keep();
    };
  }, [job, session]);
};
