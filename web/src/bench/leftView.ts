import { useEffect } from "react";
import Joi from "joi";
import type { View } from "./board/view.ts";
import type { Session } from "./session.ts";

const key = (job: string): string => `ash-edge-view ${job}`;
const schema = Joi.object({
  scale: Joi.number().positive().required(),
  originX: Joi.number().required(),
  originY: Joi.number().required(),
});

/** The view in which a job was left in this browser. */
export const leftView = (job: string): View | undefined => {
  try {
    const { value, error } = schema.validate(JSON.parse(localStorage.getItem(key(job)) ?? "null"));
    return error ? undefined : (value ?? undefined);
  } catch {
    return undefined;
  }
};

/** Keeps the view when the bench is left or reloaded. */
export const useKeptView = (job: string, session: Session): void => {
  useEffect(() => {
    const keep = (): void => {
      const { view, fittedOnce } = session.getState();
      if (fittedOnce) localStorage.setItem(key(job), JSON.stringify(view));
    };
    window.addEventListener("pagehide", keep);
    return () => {
      window.removeEventListener("pagehide", keep);
      keep();
    };
  }, [job, session]);
};
