import { checkCarried } from "../attach/checkCarried.ts";
import { applyEdit } from "../drawing/edit.ts";
import { edits } from "../edits/draftEdit.ts";

// every edit that any unit test makes is held against the rule of references
edits.made = (before, edit) => checkCarried(before, edit, applyEdit(before, edit));
