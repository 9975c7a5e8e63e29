// @vitest-environment jsdom
import { act as settle, cleanup, render } from "@testing-library/react";
import { Profiler, type ReactElement } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { KeyGrid } from "../KeyGrid.tsx";
import { Layers } from "../Layers.tsx";
import { Ledger } from "../Ledger.tsx";
import { ReadOut } from "../ReadOut.tsx";
import { Said } from "../Said.tsx";
import { Selected } from "../Selected.tsx";
import { Sentence } from "../Sentence.tsx";
import { SessionContext } from "../SessionContext.tsx";
import { NO_MODIFIERS } from "./index.ts";
import { benchOf, someDrawing } from "./benchForTests.ts";

vi.stubGlobal(
  "ResizeObserver",
  class {
    observe(): void {}
    disconnect(): void {}
    unobserve(): void {}
  },
);
afterEach(cleanup);

const PANELS: Readonly<Record<string, ReactElement>> = {
  Ledger: <Ledger onThickness={() => undefined} />,
  Layers: <Layers />,
  "Key grid": <KeyGrid />,
  Selected: <Selected />,
  Sentence: <Sentence />,
  Said: <Said />,
  "Read-out": <ReadOut />,
};

/** All panels of one bench, and the names of those that were shown anew by what is done. */
const shownBench = () => {
  const session = benchOf(someDrawing());
  const woken = new Set<string>();
  render(
    <SessionContext value={session}>
      {Object.entries(PANELS).map(([name, panel]) => (
        <Profiler key={name} id={name} onRender={(id) => woken.add(id)}>
          {panel}
        </Profiler>
      ))}
    </SessionContext>,
  );
  return {
    act: session.act,
    wokenBy: (does: () => void): string[] => {
      woken.clear();
      settle(does);
      return [...woken].sort();
    },
  };
};

describe("what is shown anew", () => {
  it("a pointer that moves wakes the read-out alone, and the sentence where a tool shows what it would make", () => {
    const { act, wokenBy } = shownBench();
    const moves = (): void => {
      for (let x = 0; x < 30; x++) act.move({ x: 100 + 3 * x, y: 150 + x }, NO_MODIFIERS);
    };
    expect(wokenBy(moves)).toEqual(["Read-out"]);
    expect(wokenBy(() => act.take("circle"))).toContain("Sentence");
    expect(wokenBy(() => act.click({ x: 20, y: 20 }, NO_MODIFIERS))).toContain("Sentence");
    expect(wokenBy(moves)).toEqual(["Read-out", "Sentence"]);
  });

  it("typing, selecting and an edit wake what shows them", () => {
    const { act, wokenBy } = shownBench();
    expect(wokenBy(() => act.setBank("KeyQ"))).toEqual(["Key grid"]);
    settle(() => act.take("circle"));
    expect(wokenBy(() => act.toolEvent({ type: "type", blank: "size", text: "2" }))).toEqual(["Said", "Sentence"]);
    settle(() => {
      act.escape();
      act.escape();
    });
    const selects = wokenBy(() => act.selectAll());
    expect(selects).toContain("Selected");
    expect(selects).not.toContain("Key grid");
    expect(selects).not.toContain("Layers");
    expect(wokenBy(() => act.remove())).toEqual(expect.arrayContaining(["Ledger", "Selected"]));
  });
});
