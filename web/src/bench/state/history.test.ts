import { expect, it } from "vitest";
import { stepCount } from "../../store/index.ts";
import { benchOf, someDrawing } from "./benchForTests.ts";
import { isSaved } from "./history.ts";
import { circleEdit } from "../../store/harness/drawnJob.ts";

it("saved is said of what is shown, never of another step at a like position", () => {
  const bench = benchOf(someDrawing());
  const now = () => bench.getState().history;
  const draw = (radius: number): void => void bench.act.commit(circleEdit(now().drawing, radius));
  const at = (): readonly [number, boolean] => [now().steps.position, isSaved(now())];
  expect(at()).toEqual([0, true]);
  draw(1);
  expect(at()).toEqual([1, false]);
  bench.act.saved();
  expect(at()).toEqual([1, true]);
  bench.act.undo();
  expect(at()).toEqual([0, false]);
  // the same again as is stored, while the store is told of the step back first
  bench.act.redo();
  expect(at()).toEqual([1, false]);
  bench.act.saved();
  expect(at()).toEqual([1, false]);
  bench.act.saved();
  expect(at()).toEqual([1, true]);
  bench.act.undo();
  draw(2); // as many steps as are stored, but another one
  expect(at()).toEqual([1, false]);
  bench.act.saved();
  expect(at()).toEqual([1, false]);
  bench.act.saved();
  expect([...at(), stepCount(now().steps)]).toEqual([1, true, 1]);
});
