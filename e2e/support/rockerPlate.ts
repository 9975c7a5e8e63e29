import { expect } from "@playwright/test";
import type { Bench } from "./bench.ts";

/** The numbers of the rocker plate, in inches. */
export const D = 6.625;
export const BIG = 1.125;
export const SMALL = 0.75;
export const BELLY = 14;

/**
 * Draws the rocker plate from its layout lines, step by step, with mouse and keyboard; `between` runs after every step.
 */
export const drawRockerPlate = async (
  bench: Bench,
  between: () => Promise<void> = async () => undefined,
): Promise<void> => {
  const { page } = bench;
  // layout: an upright line 6-5/8 to the right of the one through the datum
  await bench.tool("QQ", "Parallel");
  await bench.callout("6 5/8 boss centres").click();
  await bench.click({ x: 0, y: 2 });
  await bench.click({ x: 2, y: 1 });
  await expect(bench.board).toHaveAttribute("data-revision", "1");
  await between();

  // circles at the crossings, their sizes typed with the mark, typed with Ø lit, or taken from the ledger
  await bench.tool("EE", "Circle");
  await bench.callout("Ø 2 1/4 big boss").click();
  await bench.click({ x: 0.02, y: 0.02 });
  await expect(bench.board).toHaveAttribute("data-revision", "2");
  await between();
  await bench.tool("EE", "Circle");
  await bench.type("1-3/16d");
  await bench.click({ x: 0.02, y: -0.02 });
  await between();
  await bench.tool("EE", "Circle");
  await bench.callout("Ø 1 1/2 small boss").click();
  await bench.click({ x: D + 0.02, y: 0.02 });
  await between();
  await bench.tool("EE", "Circle");
  await bench.type("5/8");
  await page.keyboard.press("Enter");
  await bench.click({ x: D - 0.02, y: 0.02 });
  await expect(bench.board).toHaveAttribute("data-revision", "5");
  await between();

  // the upper edge: the outer tangent line
  await bench.tool("RR", "Tangent line");
  await bench.click({ x: 0.4, y: 1.05 });
  await bench.click({ x: D + 0.2, y: 0.72 });
  await expect(bench.board).toHaveAttribute("data-revision", "6");
  await between();

  // the lower edge: R 14, both bosses inside it
  await bench.tool("RQ", "Tangent arc");
  await bench.callout("R 14 belly").click();
  await bench.click({ x: -0.3, y: -1.085 });
  await bench.click({ x: D + 0.25, y: -0.707 });
  await expect(bench.board).toHaveAttribute("data-revision", "7");
  await between();

  // what is too much of the bosses goes; layout does not count as a cutting edge here
  await bench.tool("AA", "Trim");
  await page.getByRole("radio", { name: "all but layout" }).click();
  await bench.click({ x: BIG * Math.cos(0.4), y: BIG * Math.sin(0.4) });
  await expect(bench.board).toHaveAttribute("data-revision", "8");
  await between();
  if (!(await bench.sentence("Trim").isVisible())) await bench.tool("AA", "Trim");
  await bench.click({ x: D - SMALL * Math.cos(0.4), y: SMALL * Math.sin(0.4) });
  await expect(bench.board).toHaveAttribute("data-revision", "9");
  await between();

  // the layout goes, the pieces are joined
  for (const key of ["KeyQ", "KeyZ"]) await page.keyboard.press(key);
  await expect(bench.board).toHaveAttribute("data-revision", "10");
  await between();
  await bench.tool("GG", "Join");
  await page.keyboard.press("Enter");
  await expect(bench.board).toHaveAttribute("data-revision", "11");
  await expect(page.getByText("Joined: 1 contour from 4 pieces.")).toBeVisible();
  await page.keyboard.press("Escape");
  await between();
};
