import type { Spent } from "@ash-edge/core/numeric";
import { type Ask, type Step, type Tool, type ToolEvent, type ToolState } from "@ash-edge/tools";
import { run, TookTooLong } from "../worker/run.ts";
import type { StepInput, StepWorker } from "../worker/step.worker.ts";
import type { SessionCore, Surroundings } from "./sessionCore.ts";
import type { Work } from "./state/index.ts";

/** A step taken aside is given up after this long: the drawing has a slip in it. */
const STEP_LIMIT_MS = 60_000;

/** Long work: said with its progress, stopped on Esc, and put into the drawing as it stands then. */
export const makeWork = (core: SessionCore, carryOut: Surroundings["carryOut"]) => {
  const { get, send, say, commit } = core;
  let stop: AbortController | undefined;

  /** One at a time; what comes of it, or undefined where it was stopped or failed, which is said. */
  const carried = async <T>(
    words: string,
    start: (report: (how: Work) => void, signal: AbortSignal) => Promise<T>,
    failed: (reason: unknown) => string = (reason) => `${words} failed: ${(reason as Error).message}`,
  ): Promise<T | undefined> => {
    if (get().work) return void say({ text: "Something is being worked out already. Stop it first.", tone: "fault" });
    const own = (stop = new AbortController());
    let over = false;
    // a report that was under way when the work ended must not bring it back
    const report = (how: Work): void => (over ? undefined : send("work", { type: "going on", ...how }));
    report({ words, part: undefined });
    try {
      return await start(report, own.signal);
    } catch (reason) {
      say(
        own.signal.aborted
          ? { text: `${words}: stopped. Nothing was changed.`, tone: "said" }
          : { text: `${failed(reason)} Nothing was changed.`, tone: "fault" },
      );
      return undefined;
    } finally {
      over = true;
      send("work", { type: "ended" });
    }
  };

  const work = async (ask: Ask): Promise<void> => {
    const { words } = ask;
    const made = await carried(words, (report, signal) => carryOut(ask, (part) => report({ words, part }), signal));
    if (made === undefined || !commit(ask.edit(get().history.drawing, made))) return;
    say({ text: `${words}: done.`, tone: "said" });
  };

  /** A tool’s step for which there is no time on the page; undefined where nothing may come of it, which is said. */
  const stepAside = async (tool: Tool, state: ToolState, event: ToolEvent): Promise<Step | undefined> => {
    const { drawing, unit, selection, layer } = core.context();
    const input: StepInput = { toolId: tool.id, state, event, drawing, unit, selection, layer };
    let spent: Spent = { meetings: 0, looks: 0 };
    const step = await carried(
      tool.name,
      (report, signal) =>
        run<StepWorker, Step, Spent>(
          new Worker(new URL("../worker/step.worker.ts", import.meta.url), { type: "module" }),
          (remote, tell) => remote.work(input, tell),
          {
            signal,
            limitMs: STEP_LIMIT_MS,
            report: (now) => {
              spent = now;
              report({ words: `${tool.name}${soFar(spent)}`, part: undefined });
            },
          },
        ),
      (reason) =>
        reason instanceof TookTooLong
          ? `${tool.name}: too much here${soFar(spent)} after ${STEP_LIMIT_MS / 1000} s. Undo what made them, or ` +
            "take less at a time."
          : `${tool.name} failed: ${(reason as Error).message}`,
    );
    if (!step || get().history.drawing === drawing) return step;
    say({
      text: `${tool.name}: the drawing was changed while this was worked out, so nothing was made. Click again.`,
      tone: "fault",
    });
    return undefined;
  };

  return { work, stepAside, stopWork: (): void => stop?.abort() };
};

const soFar = ({ meetings }: Spent): string =>
  meetings > 0 ? `: ${meetings.toLocaleString("en").replaceAll(",", " ")} crossings` : "";
