import { useEffect, useState, type ReactNode } from "react";
import { ErrorBoundary } from "react-error-boundary";
import { useLocation } from "react-router";
import { toast } from "sonner";
import type { Point } from "@ash-edge/core/geometry";
import { FaultPage } from "../app/Fault.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { changeHead, type JobRecord } from "../store/index.ts";
import { useSketches } from "../ui/useSketch.ts";
import { Failure, ReadOnlyBar, TopBar, type Elsewhere } from "./BenchBars.tsx";
import { BenchPanels } from "./BenchPanels.tsx";
import { Example } from "./example/Example.tsx";
import { Finder } from "./Finder.tsx";
import { Guarded } from "./Guarded.tsx";
import { useKeptView } from "./leftView.ts";
import { Sentence } from "./Sentence.tsx";
import type { Session } from "./session.ts";
import { SessionContext, useBench, useSession } from "./SessionContext.tsx";
import { SketchesContext } from "./SketchesContext.ts";
import { useNotesGiveWay } from "./useNotesGiveWay.ts";
import { boardHasKeys, useBenchKeys } from "./useBenchKeys.ts";

/** The bench: one job with its sketch, its sentence and its board. */
export const Bench = ({
  job: opened,
  session,
  ...elsewhere
}: {
  job: JobRecord;
  session: Session;
} & Elsewhere) => {
  const [job, setJob] = useState(opened);
  return (
    <SessionContext value={session}>
      <SketchesContext value={useSketches(useDatabase(), job.id)}>
        <BenchGuard session={session}>
          <Layout job={job} onChanged={setJob} {...elsewhere} />
        </BenchGuard>
      </SketchesContext>
    </SessionContext>
  );
};

/** A fault of the bench itself: what is drawn is in memory still, and can be saved or gone back on. */
const BenchGuard = ({ session, children }: { session: Session; children: ReactNode }) => (
  <ErrorBoundary
    fallbackRender={({ error, resetErrorBoundary }) => (
      <FaultPage reason={error}>
        <button
          type="button"
          className="h-8 shrink-0 rounded-card bg-ember px-3 font-semibold text-panel"
          onClick={() => {
            session.act.undo();
            resetErrorBoundary();
          }}
        >
          Undo the last step
        </button>
        <button
          type="button"
          className="h-8 shrink-0 rounded-card border border-hair bg-panel px-3 hover:border-ink"
          onClick={session.act.saveFile}
        >
          Save this job to a file
        </button>
      </FaultPage>
    )}
  >
    {children}
  </ErrorBoundary>
);

const Layout = ({
  job,
  onChanged,
  ...elsewhere
}: {
  job: JobRecord;
  onChanged: (job: JobRecord) => void;
} & Elsewhere) => {
  const [finding, setFinding] = useState(false);
  useBenchKeys(() => setFinding(true));
  useShownPlace();
  useNotesGiveWay();
  useKeptView(job.id, useSession());
  const database = useDatabase();
  const putThickness = (thickness: string): void =>
    void changeHead(database, job, { ...job, thickness }).then(({ job: changed, clashes }) => {
      onChanged(changed);
      const [clash] = clashes;
      if (clash) return toast(`Another tab made the thickness “${clash.theirs}”, not “${clash.mine}”. It was left so.`);
      return toast(`${changed.number} ${changed.name}: thickness ${thickness}`, {
        action: {
          label: "Undo",
          onClick: () => void changeHead(database, changed, job).then((back) => onChanged(back.job)),
        },
      });
    });
  return (
    <div
      className="flex h-full flex-col gap-2 p-2"
      // a click on a choice or a button leaves the keys with the board: Space and Enter mean what they meant before
      onMouseDownCapture={(event) => {
        if (boardHasKeys() && (event.target as HTMLElement).closest("button")) event.preventDefault();
      }}
    >
      <TopBar job={job} onChanged={onChanged} />
      <ReadOnlyBar job={job} {...elsewhere} />
      <Failure />
      <Guarded name="The worked example">
        <Example job={job} />
      </Guarded>
      <Guarded name="The sentence">
        <Sentence />
      </Guarded>
      <BenchPanels job={job} onThickness={putThickness} />
      {finding && <Finder onClose={() => setFinding(false)} />}
    </div>
  );
};

/** Shows what another screen sent the drafter here for. */
const useShownPlace = (): void => {
  const { act } = useSession();
  const state = useLocation().state as {
    select?: readonly number[];
    at?: Point;
    take?: string;
    makeTrue?: readonly number[];
  } | null;
  const measured = useBench((bench) => bench.view.size.width > 0);
  useEffect(() => {
    if (measured && state?.makeTrue) return act.openNumbers(state.makeTrue);
    if (!measured || !state?.select) return;
    act.show(state.select, state.at);
    if (state.take) act.takeRepair(state.take, state.at);
  }, [act, measured, state]);
};
