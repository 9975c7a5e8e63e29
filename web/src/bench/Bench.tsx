import { useLiveQuery } from "dexie-react-hooks";
import { CircleHelp, Download, Pencil, Redo2, Undo2 } from "lucide-react";
import { useEffect, useState, type ReactNode } from "react";
import { Group, Panel, Separator, usePanelRef } from "react-resizable-panels";
import { ErrorBoundary } from "react-error-boundary";
import { Link, useLocation, useNavigate } from "react-router";
import { toast } from "sonner";
import { unitOf } from "@ash-edge/core/drawing";
import type { Point } from "@ash-edge/core/geometry";
import { FaultPage, Guard } from "../app/Fault.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { JobDetails } from "../jobs/JobDetails.tsx";
import { saveRaw } from "../jobs/saveRaw.ts";
import { changeHead, isInMemory, stepCount, type JobRecord } from "../store/index.ts";
import { Brand } from "../ui/Brand.tsx";
import { IconButton } from "../ui/IconButton.tsx";
import { ThemeButton } from "../ui/ThemeButton.tsx";
import { useNarrow } from "../ui/useNarrow.ts";
import { useSketches } from "../ui/useSketch.ts";
import { Board } from "./board/Board.tsx";
import { DeviationCard } from "./DeviationCard.tsx";
import { Example } from "./example/Example.tsx";
import { ExamplePlace } from "./example/ExamplePlace.tsx";
import { Finder } from "./Finder.tsx";
import { HandleCard } from "./handles/HandleCard.tsx";
import { HistoryList } from "./HistoryList.tsx";
import { KeyGrid } from "./KeyGrid.tsx";
import { Layers } from "./Layers.tsx";
import { Ledger } from "./Ledger.tsx";
import { useKeptView } from "./leftView.ts";
import { FirstStep } from "./NextStep.tsx";
import { Pieces } from "./Pieces.tsx";
import { PanelTabs } from "./PanelTabs.tsx";
import { ReadOut } from "./ReadOut.tsx";
import { Said } from "./Said.tsx";
import { Selected } from "./Selected.tsx";
import { Sentence } from "./Sentence.tsx";
import type { Session } from "./session.ts";
import { isSaved } from "./state/index.ts";
import { SessionContext, useBench, useSession } from "./SessionContext.tsx";
import { SketchCard } from "./SketchCard.tsx";
import { SketchesContext } from "./SketchesContext.ts";
import { Steps } from "./Steps.tsx";
import { Findings } from "./tidying/Findings.tsx";
import { useAskBeforeLeaving } from "./useAskBeforeLeaving.ts";
import { useNotesGiveWay } from "./useNotesGiveWay.ts";
import { boardHasKeys, useBenchKeys } from "./useBenchKeys.ts";

const Handle = ({ upright }: { upright?: boolean }) => (
  <Separator
    className={`${upright ? "w-2" : "h-2"} rounded-card transition-colors hover:bg-hair focus-visible:bg-hair`}
  />
);

/** What the bench is told of other tabs on its job. */
type Elsewhere = { readonly changedSince: () => Promise<boolean>; readonly onTakeOver: () => void };

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

/** What stands at the top of a side: it gives way to a sentence of two lines, which would cover its head. */
const Top = ({ children }: { children: ReactNode }) => (
  <div className="h-full pt-[var(--sentence-over,0px)]">{children}</div>
);

/** Where there is room the sketch is larger from the first. */
const [ROOMY_WIDTH, ROOMY_HEIGHT] = [
  window.matchMedia("(min-width: 1600px)"),
  window.matchMedia("(min-height: 900px)"),
];

/** The sketch card, docked left or right; enlarged it takes the room of what stands below it. */
const SketchPanel = ({ children }: { children: ReactNode }) => {
  const large = useBench((state) => state.kept.card.large);
  const panel = usePanelRef();
  const share = ROOMY_HEIGHT.matches ? "40%" : "31%";
  useEffect(() => panel.current?.resize(large ? "62%" : share), [large, share, panel]);
  return (
    <>
      <Panel id="sketch" panelRef={panel} defaultSize={share} minSize="80px" collapsible>
        <Top>{children}</Top>
      </Panel>
      <Handle />
    </>
  );
};

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
  const narrow = useNarrow();
  const { side, large } = useBench((state) => state.kept.card);
  const [left, right, pieces] = [usePanelRef(), usePanelRef(), usePanelRef()];
  const looking = useBench((state) => state.tidying !== undefined);
  const { act } = useSession();
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
  // findings want more room than pieces
  useEffect(() => pieces.current?.resize(looking ? "62%" : "44%"), [looking, pieces]);
  useEffect(() => {
    const [wide, roomy] = ["480px", ROOMY_WIDTH.matches ? "400px" : undefined];
    left.current?.resize(large && (narrow || side === "left") ? wide : (side === "left" && roomy) || "272px");
    right.current?.resize(large && side === "right" ? wide : (side === "right" && roomy) || "264px");
  }, [large, side, narrow, left, right]);
  // findings are looked for to be seen
  useEffect(() => {
    if (looking) act.showPanel("pieces");
  }, [looking, act]);
  const sketch = (
    <Guarded name="The sketch">
      <SketchCard job={job} />
    </Guarded>
  );
  const callouts = (
    <Guarded name="The ledger">
      <Ledger onThickness={putThickness} />
    </Guarded>
  );
  const keys = (
    <Guarded name="The key grid">
      <KeyGrid />
    </Guarded>
  );
  const pieceList = <PiecesOrFindings job={job} />;
  const selected = (
    <Guarded name="What is selected">
      <Selected />
    </Guarded>
  );
  const layers = (
    <Guarded name="The layers">
      <Layers />
    </Guarded>
  );
  const board = (
    <section className="card relative flex h-full flex-col overflow-hidden !bg-board">
      <Board />
      <ExamplePlace />
      <FirstStep />
      <Work />
      <Said />
      <HandleCard />
      <DeviationCard />
      <ReadOut />
    </section>
  );
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
      {narrow ? (
        <Group key="folded" orientation="horizontal" id="bench-folded" className="min-h-0 flex-1">
          <Panel id="left" panelRef={left} defaultSize="272px" minSize="264px" maxSize="560px" collapsible>
            <Group orientation="vertical" id="bench-left-folded" className="h-full">
              <Panel id="panels" minSize="120px">
                <Top>
                  <PanelTabs panels={{ sketch, callouts, pieces: pieceList, selected, layers }} />
                </Top>
              </Panel>
              <Handle />
              <Panel id="keys" defaultSize="30%" minSize="150px">
                {keys}
              </Panel>
            </Group>
          </Panel>
          <Handle upright />
          <Panel id="middle" minSize="320px">
            {board}
          </Panel>
        </Group>
      ) : (
        <Group key="wide" orientation="horizontal" id="bench" className="min-h-0 flex-1">
          <Panel id="left" panelRef={left} defaultSize="272px" minSize="220px" maxSize="560px" collapsible>
            <Group orientation="vertical" id={`bench-left-${side}`} key={side} className="h-full">
              {side === "left" && <SketchPanel>{sketch}</SketchPanel>}
              <Panel id="ledger" defaultSize={side === "left" ? "42%" : "73%"} minSize="80px" collapsible>
                {side === "left" ? callouts : <Top>{callouts}</Top>}
              </Panel>
              <Handle />
              <Panel id="keys" defaultSize="27%" minSize="150px">
                {keys}
              </Panel>
            </Group>
          </Panel>
          <Handle upright />
          <Panel id="middle" minSize="320px">
            {board}
          </Panel>
          <Handle upright />
          <Panel id="right" panelRef={right} defaultSize="264px" minSize="200px" maxSize="560px" collapsible>
            <Group orientation="vertical" id={`bench-right-${side}`} key={side} className="h-full">
              {side === "right" && <SketchPanel>{sketch}</SketchPanel>}
              <Panel id="pieces" panelRef={pieces} minSize="80px" collapsible>
                {side === "right" ? pieceList : <Top>{pieceList}</Top>}
              </Panel>
              <Handle />
              <Panel id="selected" defaultSize="31%" minSize="60px" collapsible>
                {selected}
              </Panel>
              <Handle />
              <Panel id="layers" defaultSize="25%" minSize="60px">
                {layers}
              </Panel>
            </Group>
          </Panel>
        </Group>
      )}
      {finding && <Finder onClose={() => setFinding(false)} />}
    </div>
  );
};

/** A panel whose fault stays its own; the next change of the drawing tries it again. */
const Guarded = ({ name, children }: { name: string; children: ReactNode }) => (
  <Guard name={name} when={useBench((state) => state.history.drawing)}>
    {children}
  </Guard>
);

/** The findings take the place of the pieces while they are looked at. */
const PiecesOrFindings = ({ job }: { job: JobRecord }) =>
  useBench((state) => state.tidying !== undefined) ? (
    <Guarded name="The findings">
      <Findings />
    </Guarded>
  ) : (
    <Guarded name="The pieces">
      <Pieces job={job} />
    </Guarded>
  );

/** Shows what another screen sent the drafter here for. */
const useShownPlace = (): void => {
  const { act } = useSession();
  const state = useLocation().state as { select?: readonly number[]; at?: Point; take?: string } | null;
  const measured = useBench((bench) => bench.view.size.width > 0);
  useEffect(() => {
    if (!measured || !state?.select) return;
    act.show(state.select, state.at);
    if (state.take) act.takeRepair(state.take, state.at);
  }, [act, measured, state]);
};

const TopBar = ({ job, onChanged }: { job: JobRecord; onChanged: (job: JobRecord) => void }) => {
  const [asking, setAsking] = useState(false);
  const { act } = useSession();
  const navigate = useNavigate();
  const history = useBench((state) => state.history.steps);
  const saved = useBench((state) => isSaved(state.history));
  const readOnly = useBench((state) => state.history.readOnly !== undefined);
  const failure = useBench((state) => state.history.failure !== undefined);
  const unit = useBench((state) => unitOf(state.history.drawing));
  const inMemory = isInMemory(useDatabase());
  useAskBeforeLeaving(failure || (inMemory && history.position > 0));
  return (
    <header className="flex h-9 items-center gap-3 pl-1">
      <Brand />
      <nav aria-label="Place" className="flex min-w-0 whitespace-pre text-soft">
        <Link to="/jobs" className="hover:underline">
          Jobs
        </Link>
        {" / "}
        <b className="min-w-0 truncate text-ink" title={job.name}>{`${job.number} ${job.name}`}</b>
        {` · ${unit} · `}
        {/* whether it is saved is never cut off */}
        <span aria-live="polite" className="shrink-0">
          {readOnly
            ? "read only"
            : saved
              ? inMemory
                ? "in memory alone"
                : "saved"
              : failure
                ? "not saved"
                : "saving …"}
        </span>
      </nav>
      <IconButton label="Job details" onClick={() => setAsking(true)}>
        <Pencil size={14} />
      </IconButton>
      {asking && <JobDetails job={job} onClose={() => setAsking(false)} onChanged={onChanged} />}
      <span className="flex-1" />
      <div className="flex">
        <IconButton label="Undo" hint="Ctrl Z" disabled={history.position === 0} onClick={act.undo}>
          <Undo2 size={16} />
        </IconButton>
        <IconButton label="Redo" hint="Ctrl Y" disabled={history.position === stepCount(history)} onClick={act.redo}>
          <Redo2 size={16} />
        </IconButton>
        <HistoryList />
        <IconButton label="Save to a file" hint="Ctrl S" onClick={act.saveFile}>
          <Download size={16} />
        </IconButton>
        <IconButton label="Help" onClick={() => void navigate("/help")}>
          <CircleHelp size={16} />
        </IconButton>
        <ThemeButton />
      </div>
      <Guarded name="The steps">
        <Steps job={job} />
      </Guarded>
    </header>
  );
};

/** Long work going on away from the page: what it is, how far, and the way to stop it. */
const Work = () => {
  const { act } = useSession();
  const work = useBench((state) => state.work);
  if (!work) return null;
  return (
    <div
      role="status"
      aria-label="Work"
      className="card absolute bottom-10 left-2 z-10 flex items-center gap-3 px-3 py-2"
    >
      <span>{work.words} …</span>
      <progress
        {...(work.part === undefined ? {} : { value: work.part })}
        className="h-2 w-40 accent-[var(--ember)]"
        aria-label="How far"
      />
      <button
        type="button"
        className="h-7 rounded-card border border-hair px-2 hover:border-ink"
        onClick={act.stopWork}
      >
        Stop
      </button>
    </div>
  );
};

/** Why the job is read only in this tab, and the way out of that. */
const ReadOnlyBar = ({ job, changedSince, onTakeOver }: { job: JobRecord } & Elsewhere) => {
  const why = useBench((state) => state.history.readOnly);
  const damage = useBench((state) => state.history.damage);
  const database = useDatabase();
  const isOld = useLiveQuery(async () => why === "elsewhere" && (await changedSince()), [why, changedSince]);
  if (!why) return null;
  return (
    <div role="alert" className="card flex items-center gap-3 !border-caution px-3 py-1.5">
      {why === "elsewhere" ? (
        <>
          <b className="text-caution">Open in another tab: read only here.</b>
          <span className="text-soft">
            {isOld
              ? "It was changed there since: take over to see it as it is now."
              : "It is shown as it was stored when it was opened here."}
          </span>
        </>
      ) : (
        <>
          <b className="text-caution">Part of this job can’t be read.</b>
          <span>{damage} The drawing is shown as it was before that.</span>
        </>
      )}
      <span className="flex-1" />
      {why === "damaged" && (
        <button
          type="button"
          className="h-8 shrink-0 rounded-card border border-hair px-3 hover:border-ink"
          onClick={() => void saveRaw(database, job.id)}
        >
          Export raw
        </button>
      )}
      <button
        type="button"
        className="h-8 shrink-0 rounded-card bg-ember px-3 font-semibold text-panel"
        onClick={onTakeOver}
      >
        {why === "elsewhere" ? "Take over" : "Go on from here"}
      </button>
    </div>
  );
};

/** Nothing is stored any more: said at once, with the way to keep the work. */
const Failure = () => {
  const failure = useBench((state) => state.history.failure);
  const { act } = useSession();
  if (!failure) return null;
  return (
    <div role="alert" className="card flex items-center gap-3 !border-fault px-3 py-2">
      <b className="text-fault">What you draw now is not stored.</b>
      <span>{failure}</span>
      <span className="flex-1" />
      <button type="button" className="h-8 shrink-0 rounded-card border border-hair px-3" onClick={act.storeAgain}>
        Try again
      </button>
      <button type="button" className="h-8 shrink-0 rounded-card border border-hair px-3" onClick={act.saveFile}>
        Save to a file now
      </button>
    </div>
  );
};
