import type { Action } from "../tool.ts";

/** An action that changes only what is seen. */
export const view = (id: string, name: string, help: string, drawing: Action["drawing"]): Action => ({
  kind: "action",
  id,
  name,
  help,
  drawing,
});
