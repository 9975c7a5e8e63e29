import type { Ask } from "@ash-edge/tools";
import type { SessionCore, Surroundings } from "./sessionCore.ts";

/** Long work: said with its progress, stopped on Esc, and put into the drawing as it stands then. */
export const makeWork = ({ get, send, say, commit }: SessionCore, carryOut: Surroundings["carryOut"]) => {
  let stop: AbortController | undefined;
  return {
    work: async (ask: Ask): Promise<void> => {
      if (get().work) return say({ text: "Something is being worked out already. Stop it first.", tone: "fault" });
      const own = (stop = new AbortController());
      let over = false;
      // a report that was under way when the work ended must not bring it back
      const report = (part: number): void =>
        over ? undefined : send("work", { type: "going on", words: ask.words, part });
      const end = (): void => {
        over = true;
        send("work", { type: "ended" });
      };
      report(0);
      try {
        const made = await carryOut(ask, report, own.signal);
        end();
        if (!commit(ask.edit(get().history.drawing, made))) return;
        say({ text: `${ask.words}: done.`, tone: "said" });
      } catch (reason) {
        end();
        say(
          own.signal.aborted
            ? { text: `${ask.words}: stopped. Nothing was changed.`, tone: "said" }
            : { text: `${ask.words} failed: ${(reason as Error).message} Nothing was changed.`, tone: "fault" },
        );
      }
    },
    stopWork: (): void => stop?.abort(),
  };
};
