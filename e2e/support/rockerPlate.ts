import { expect } from "@playwright/test";
import { calloutText } from "@ash-edge/core/callouts";
import type { Callout } from "@ash-edge/core/drawing";
import { REGISTRY } from "@ash-edge/tools";
import { ROCKER, ROCKER_PLATE } from "@ash-edge/tools/worked/rockerPlate";
import type { Gesture, WorkedStep } from "@ash-edge/tools/worked/scenario";
import demo from "../../server/demo/jobs.json" with { type: "json" };
import type { Bench } from "./bench.ts";

/** The numbers of the rocker plate, in inches. */
export const { centres: D, big: BIG, small: SMALL, belly: BELLY } = ROCKER;
/** How many steps of its way make something. */
export const MADE = ROCKER_PLATE.steps.filter(({ isMade }) => isMade).length;

const callouts = demo.jobs.find(({ id }) => id === "demo-0414")!.callouts as readonly Callout[];

const carryOut = async (bench: Bench, gesture: Gesture): Promise<void> => {
  if ("callout" in gesture) {
    const { kind, name } = gesture.callout;
    const callout = callouts.find((one) => one.kind === kind && one.name === name)!;
    await bench.callout(`${calloutText(callout, "in")} ${name}`).click();
  } else if ("type" in gesture) await bench.type(gesture.type);
  else if ("click" in gesture) await bench.click(gesture.click);
  else await bench.page.keyboard.press("Enter");
};

/** One step of the way, with mouse and keys; its tool is taken where it is not in hand. */
export const carryOutStep = async (bench: Bench, { take, gestures }: WorkedStep): Promise<void> => {
  const one = REGISTRY.find(({ id }) => id === take)!;
  const keys = `${one.bank.slice(3)}${one.place.slice(3)}`;
  if (one.kind === "action") for (const key of keys) await bench.page.keyboard.press(`Key${key}`);
  else if (!(await bench.sentence(one.name).isVisible())) await bench.tool(keys, one.name);
  for (const gesture of gestures) await carryOut(bench, gesture);
};

/** Draws the rocker plate as its worked example goes, with mouse and keys; `between` runs after what each step made. */
export const drawRockerPlate = async (
  bench: Bench,
  between: () => Promise<void> = async () => undefined,
): Promise<void> => {
  let made = 0;
  for (const step of ROCKER_PLATE.steps) {
    await carryOutStep(bench, step);
    if (!step.isMade) continue;
    await expect(bench.board).toHaveAttribute("data-revision", String(++made));
    if (made === MADE) await expect(bench.page.getByText("Joined: 1 contour from 4 pieces.")).toBeVisible();
    await between();
  }
  await bench.page.keyboard.press("Escape");
};
