import { checkCarried } from "@ash-edge/core/attach";
import { applyEdit } from "@ash-edge/core/drawing";
import { edits } from "@ash-edge/core/edits";

/** In development every edit is held against the rule of references, as every unit test does. */
export const checkEveryEdit = (): void => {
  edits.made = (before, edit) => checkCarried(before, edit, applyEdit(before, edit));
};
