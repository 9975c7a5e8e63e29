import { toast } from "sonner";

/** Notes about the whole application stand until they are closed; the others go with the place they came from. */
export const standing = (about: string): string => `standing ${about}`;

/** Takes the notes of a place away, when it is left: an undo offered there means what was there. */
export const dropPassing = (): void => {
  for (const { id } of toast.getToasts()) if (!String(id).startsWith(standing(""))) toast.dismiss(id);
};
