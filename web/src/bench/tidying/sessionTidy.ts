import { layerOf, settingsOf, unitOf, type Drawing, type Edit } from "@ash-edge/core/drawing";
import { leaveFindings, leftFindings, setJoinTolerance, tidyEdit, tidyThings } from "@ash-edge/core/edits";
import { changedShapes } from "@ash-edge/core/look";
import { showLengthUnit } from "@ash-edge/core/numeric";
import { SHOWN_BY, type Thing } from "@ash-edge/core/tidy";
import { run } from "../../worker/run.ts";
import type { Mends, MetFinding, TidyInput, TidyMet, TidyWorker } from "../../worker/tidy.worker.ts";
import type { SessionCore } from "../sessionCore.ts";
import { foundIn, type Tidying } from "../state/index.ts";

/** A change of the drawing is looked at when it has stood for a moment. */
const LOOK_AFTER_MS = 250;
/** In a drawing of more things than this the repair of one finding is not drawn before it is made. */
const PREVIEWED = 4000;

const mendedWords = (result: TidyMet): string => {
  const fixed = result.findings.filter((finding) => finding.fixed).length;
  const left = result.findings.filter((finding) => !finding.fixed && finding.severity === "error").length;
  return `${fixed} mended${left > 0 ? `, ${left} stand${left === 1 ? "s" : ""} in the way` : ""}.`;
};

/**
 * Findings of tidying: looked for in a worker, shown, mended one by one, by their kind or all, and left as they are.
 */
export const makeTidying = ({ get, send, say, commit, keepSetting }: SessionCore) => {
  let looking: AbortController | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let previews = 0;

  const inputOf = (drawing: Drawing, mends: Mends): TidyInput => {
    const {
      kept,
      selection: { ids: selection },
      tidying,
    } = get();
    const only = tidying?.among === "selected" && selection.size > 0 ? selection : undefined;
    return {
      things: tidyThings(drawing, only),
      options: {
        tolerance: settingsOf(drawing).joinTolerance,
        ignore: new Set([...SHOWN_BY, ...(kept.tidy.ignoreLayer ? (["layer"] as const) : [])]),
        sharedEdges: kept.tidy.sharedEdges,
      },
      mends,
      left: leftFindings(drawing),
    };
  };

  /** Works in a worker; a report that comes after the end, or after it was stopped, is not heard. */
  const work = async (input: TidyInput, signal: AbortSignal, shown: boolean): Promise<TidyMet> => {
    let over = false;
    const report = (part: number): void => {
      if (shown && !over && !signal.aborted) send("tidying", { type: "busy", part });
    };
    try {
      return await run<TidyWorker, TidyMet>(
        new Worker(new URL("../../worker/tidy.worker.ts", import.meta.url), { type: "module" }),
        (remote, tell) => remote.work(input, tell),
        { signal, report },
      );
    } finally {
      over = true;
    }
  };

  /**
   * Looks the drawing over anew; what was under way is ended. Listed is what mending everything would meet: a gap
   * between doubled lines shows only once they are single.
   */
  const look = async (): Promise<void> => {
    looking?.abort();
    clearTimeout(timer);
    const own = (looking = new AbortController());
    const {
      history: { drawing },
    } = get();
    send("tidying", { type: "looking" });
    try {
      const input = inputOf(drawing, { which: "all" });
      const result = await work(input, own.signal, true);
      if (own.signal.aborted) return;
      send("tidying", {
        type: "found",
        findings: ofWhatIsCut(drawing, input.things, result.findings),
        of: drawing,
      });
    } catch (reason) {
      if (own.signal.aborted) return;
      send("tidying", { type: "not looked", why: (reason as Error).message });
    }
  };
  const lookSoon = (): void => {
    clearTimeout(timer);
    if (!get().tidying) return;
    // what was found speaks of another drawing now, or of other things
    send("tidying", { type: "stale" });
    timer = setTimeout(() => void look(), LOOK_AFTER_MS);
  };

  /** What each repair would be made of now, looked up again where the drawing changed while it was worked out. */
  const repaired = async (mends: Mends, signal: AbortSignal) => {
    for (;;) {
      const { drawing } = get().history;
      const input = inputOf(drawing, mends);
      let result = await work(input, signal, true);
      // what shows only once doubled lines are single is mended together with them
      if (mends.which === "key" && !signal.aborted && !result.findings.some(({ fixed }) => fixed))
        result = await work({ ...input, mends: { which: "key with doubles", key: mends.key } }, signal, true);
      if (signal.aborted || get().history.drawing === drawing) return { drawing, input, result };
    }
  };

  /** Makes the repairs as one edit. */
  const mendNow = async (mends: Mends): Promise<void> => {
    looking?.abort();
    clearTimeout(timer);
    const own = (looking = new AbortController());
    send("tidying", { type: "busy", part: 0 });
    try {
      const { drawing, input, result } = await repaired(mends, own.signal);
      if (own.signal.aborted) return;
      const label = mends.which === "code" ? `Tidy: ${mends.code}` : "Tidy";
      const edit = tidyEdit(drawing, input.things, result, label);
      send("tidying", { type: "busy", part: undefined });
      send("tidying", { type: "lit", key: undefined });
      if (edit && !commit(edit)) return;
      say({ text: edit ? mendedWords(result) : "There is nothing to mend.", tone: "said" });
      lookSoon();
    } catch (reason) {
      if (own.signal.aborted) return;
      send("tidying", { type: "busy", part: undefined });
      say({ text: `Tidying failed: ${(reason as Error).message} Nothing was changed.`, tone: "fault" });
    }
  };
  // one after the other: a repair asked for while another is worked out is not lost, and loses none
  let mending: Promise<void> = Promise.resolve();
  const mend = (mends: Mends): void => {
    mending = mending.then(() => mendNow(mends));
  };

  /** Shows what mending one finding would change. */
  const preview = async (finding: MetFinding): Promise<void> => {
    const {
      history: { drawing },
    } = get();
    const turn = ++previews;
    if (!finding.mendable || drawing.entity.size > PREVIEWED) return;
    try {
      const input = inputOf(drawing, { which: "key", key: finding.key });
      const result = await work(input, new AbortController().signal, false);
      const edit = tidyEdit(drawing, input.things, result, "Tidy");
      if (turn === previews && get().history.drawing === drawing && get().tidying?.lit === finding.key && edit)
        send("tidying", { type: "preview", shapes: shapesOf(edit) });
    } catch {
      // a preview that can't be made is none; mending says why
    }
  };
  const shapesOf = (edit: Edit): NonNullable<Tidying["preview"]> => {
    const { comes, goes } = changedShapes(edit);
    return [...comes.map((shape) => ({ shape })), ...goes.map((shape) => ({ shape, goes: true }))];
  };

  return {
    openTidy: (): void => {
      send("tidying", { type: "opened" });
      void look();
    },
    closeTidy: (): void => {
      looking?.abort();
      clearTimeout(timer);
      send("selection", { type: "lit", ids: [] });
      send("tidying", { type: "closed" });
    },
    /** Called when the drawing or what is selected has changed. */
    tidySoon: lookSoon,
    mend,
    stopTidy: (): void => {
      looking?.abort();
      clearTimeout(timer);
      const { tidying, history } = get();
      if (foundIn(tidying, history.drawing)) send("tidying", { type: "busy", part: undefined });
      else send("tidying", { type: "not looked", why: "It was stopped." });
      say({ text: "Stopped. Nothing was changed.", tone: "said" });
    },
    lookAgain: (): void => void look(),
    tidyAmong: (among: Tidying["among"]): void => {
      send("tidying", { type: "among", among });
      void look();
    },
    setTidy: (change: Partial<ReturnType<typeof get>["kept"]["tidy"]>): void => {
      keepSetting({ tidy: { ...get().kept.tidy, ...change } });
      void look();
    },
    setTolerance: (tolerance: number): void => {
      if (!commit(setJoinTolerance(get().history.drawing, tolerance))) return;
      say({
        text: `Ends up to ${showLengthUnit(tolerance, unitOf(get().history.drawing))} apart are mended now.`,
        tone: "said",
      });
      void look();
    },
    leaveFinding: (finding: MetFinding, leave: boolean): void => {
      commit(leaveFindings(get().history.drawing, [finding.key], leave));
      void look();
    },
    lightFinding: (finding: MetFinding | undefined): void => {
      previews += 1;
      send("tidying", { type: "lit", key: finding?.key });
      send("selection", { type: "lit", ids: finding?.ids ?? [] });
      if (finding) void preview(finding);
    },
  };
};

/** What is only scribed need not close; layers are called by their names. */
const ofWhatIsCut = (
  drawing: Drawing,
  things: readonly Thing[],
  findings: readonly MetFinding[],
): readonly MetFinding[] => {
  const marks = new Set(
    things.filter(({ layer }) => layerOf(drawing, Number(layer))?.role === "mark").map(({ id }) => id),
  );
  const named = (value: number | string | undefined): string => layerOf(drawing, Number(value))?.name ?? "";
  return findings
    .filter(({ code, ids }) => code !== "open" || !ids.every((id) => marks.has(id)))
    .map((finding) => {
      const { values } = finding;
      if (finding.code !== "open" || values.other === undefined) return finding;
      return { ...finding, values: { ...values, layer: named(values.layer), other: named(values.other) } };
    });
};
