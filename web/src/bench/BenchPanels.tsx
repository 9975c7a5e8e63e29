import { useEffect, type ReactNode } from "react";
import { Group, Panel, Separator, usePanelRef } from "react-resizable-panels";
import type { JobRecord } from "../store/index.ts";
import { useNarrow } from "../ui/useNarrow.ts";
import { Board } from "./board/Board.tsx";
import { DeviationCard } from "./DeviationCard.tsx";
import { ExamplePlace } from "./example/ExamplePlace.tsx";
import { Guarded } from "./Guarded.tsx";
import { HandleCard } from "./handles/HandleCard.tsx";
import { KeyGrid } from "./KeyGrid.tsx";
import { Layers } from "./Layers.tsx";
import { Ledger } from "./Ledger.tsx";
import { FirstStep } from "./NextStep.tsx";
import { Numbers } from "./numbers/Numbers.tsx";
import { PanelTabs } from "./PanelTabs.tsx";
import { Pieces } from "./Pieces.tsx";
import { ReadOut } from "./ReadOut.tsx";
import { Said } from "./Said.tsx";
import { Selected } from "./Selected.tsx";
import { useBench, useSession } from "./SessionContext.tsx";
import { SketchCard } from "./SketchCard.tsx";
import type { BenchState } from "./state/index.ts";
import { Findings } from "./tidying/Findings.tsx";
import { Traced } from "./tracing/Traced.tsx";
import { Work } from "./Work.tsx";

const Handle = ({ upright }: { upright?: boolean }) => (
  <Separator
    className={`${upright ? "w-2" : "h-2"} rounded-card transition-colors hover:bg-hair focus-visible:bg-hair`}
  />
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
  // a few callouts stay in sight beside a large sketch
  const wide = ROOMY_HEIGHT.matches ? "62%" : "50%";
  useEffect(() => panel.current?.resize(large ? wide : share), [large, wide, share, panel]);
  return (
    <>
      <Panel id="sketch" panelRef={panel} defaultSize={share} minSize="80px" collapsible>
        <Top>{children}</Top>
      </Panel>
      <Handle />
    </>
  );
};

const Keys = ({ share }: { share: string }) => (
  <>
    <Handle />
    <Panel id="keys" defaultSize={share} minSize="150px">
      <Guarded name="The key grid">
        <KeyGrid />
      </Guarded>
    </Panel>
  </>
);

/** The board, and what stands over it. */
const Middle = () => (
  <>
    <Handle upright />
    <Panel id="middle" minSize="320px">
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
    </Panel>
  </>
);

/** What stands in the place of the pieces while it is looked at: findings, numbers made true, what is traced. */
const PiecesPlace = ({ job }: { job: JobRecord }) => {
  const instead = useBench(insteadOfPieces);
  if (instead === "numbers")
    return (
      <Guarded name="The numbers">
        <Numbers />
      </Guarded>
    );
  if (instead === "traced")
    return (
      <Guarded name="What is traced">
        <Traced />
      </Guarded>
    );
  return instead === "findings" ? (
    <Guarded name="The findings">
      <Findings />
    </Guarded>
  ) : (
    <Guarded name="The pieces">
      <Pieces job={job} />
    </Guarded>
  );
};

const insteadOfPieces = ({ tidying, numbers, tracing }: BenchState): "findings" | "numbers" | "traced" | undefined =>
  numbers ? "numbers" : tracing ? "traced" : tidying && "findings";

/** The panels round the board: on both sides of it, or in a narrow window behind one another on one. */
export const BenchPanels = ({ job, onThickness }: { job: JobRecord; onThickness: (thickness: string) => void }) => {
  const { act } = useSession();
  const narrow = useNarrow();
  const { side, large } = useBench((state) => state.kept.card);
  const [left, right, pieces] = [usePanelRef(), usePanelRef(), usePanelRef()];
  const looking = useBench((state) => insteadOfPieces(state) !== undefined);
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
      <Ledger onThickness={onThickness} />
    </Guarded>
  );
  const pieceList = <PiecesPlace job={job} />;
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
  if (narrow)
    return (
      <Group key="folded" orientation="horizontal" id="bench-folded" className="min-h-0 flex-1">
        <Panel id="left" panelRef={left} defaultSize="272px" minSize="264px" maxSize="560px" collapsible>
          <Group orientation="vertical" id="bench-left-folded" className="h-full">
            <Panel id="panels" minSize="120px">
              <Top>
                <PanelTabs panels={{ sketch, callouts, pieces: pieceList, selected, layers }} />
              </Top>
            </Panel>
            <Keys share="30%" />
          </Group>
        </Panel>
        <Middle />
      </Group>
    );
  return (
    <Group key="wide" orientation="horizontal" id="bench" className="min-h-0 flex-1">
      <Panel id="left" panelRef={left} defaultSize="272px" minSize="220px" maxSize="560px" collapsible>
        <Group orientation="vertical" id={`bench-left-${side}`} key={side} className="h-full">
          {side === "left" && <SketchPanel>{sketch}</SketchPanel>}
          <Panel id="ledger" defaultSize={side === "left" ? "42%" : "73%"} minSize="80px" collapsible>
            {side === "left" ? callouts : <Top>{callouts}</Top>}
          </Panel>
          <Keys share="27%" />
        </Group>
      </Panel>
      <Middle />
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
  );
};
