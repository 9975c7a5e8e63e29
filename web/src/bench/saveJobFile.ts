import type { Drawing } from "@ash-edge/core/drawing";
import { jobFileOf, type Database, type JobRecord } from "../store/index.ts";
import type { Message } from "./state/index.ts";
import { fileName, saveAs } from "../ui/saveAs.ts";

/** Saves the job to a file from memory, and says what could not be put into it. */
export const saveJobFile = async (database: Database, opened: JobRecord, drawing: Drawing): Promise<Message> => {
  const { text, words, missing } = await jobFileOf(database, opened, drawing);
  const file = fileName(words, ".ashedge.json");
  saveAs(file, text, "application/json");
  return missing.length === 0
    ? { text: `Saved to ${file}.`, tone: "said" }
    : {
        text: `Saved to ${file}, but without ${missing.join(", ")}: the browser’s storage could not be read.`,
        tone: "fault",
      };
};
