import { toast } from "sonner";
import { exportRaw, sayStoreFault, type Database } from "../store/index.ts";
import { fileName, saveAs } from "../ui/saveAs.ts";

/** Saves all that is stored of a job as it is, sound or not: "Open a file" takes it again. */
export const saveRaw = async (database: Database, id: string): Promise<void> => {
  try {
    saveAs(fileName(`${id}-raw`, ".json"), await exportRaw(database, id), "application/json");
  } catch (reason) {
    toast.error(sayStoreFault(reason));
  }
};
