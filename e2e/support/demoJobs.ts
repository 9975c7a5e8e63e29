// The demo's jobs drawn by mouse and keys: the same ways for the tests that hold them against closed forms and for the
// script that makes the states in which the demo opens.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect } from "@playwright/test";
import { homographyOf, throughHomography } from "@ash-edge/core/picture";
import { typeOver, type Bench, type Place } from "./bench.ts";
import { typePoint } from "./drawn.ts";
import { SketchPicture } from "./sketchPicture.ts";

export const polar = (r: number, degrees: number, about: Place = { x: 0, y: 0 }): Place => ({
  x: about.x + r * Math.cos((degrees * Math.PI) / 180),
  y: about.y + r * Math.sin((degrees * Math.PI) / 180),
});
/** The angle of a triangle opposite to side `c`, in degrees. */
export const angle = (a: number, b: number, c: number): number =>
  (Math.acos((a * a + b * b - c * c) / (2 * a * b)) * 180) / Math.PI;

const keys = async ({ page }: Bench, ...all: readonly string[]): Promise<void> => {
  for (const key of all) await page.keyboard.press(key);
};
export const fitView = (bench: Bench): Promise<void> => keys(bench, "KeyV", "KeyV");
/** Types into blanks, each with Enter. */
export const fill = async (bench: Bench, blanks: Readonly<Record<string, string>>): Promise<void> => {
  for (const [name, text] of Object.entries(blanks)) {
    await typeOver(bench.blank(name).first(), text);
    await bench.page.keyboard.press("Enter");
  }
};
export const clearAndJoin = async (bench: Bench, said: string): Promise<void> => {
  await keys(bench, "KeyQ", "KeyZ");
  await bench.tool("GG", "Join");
  await keys(bench, "Enter");
  await expect(bench.page.getByText(said)).toBeVisible();
  await keys(bench, "Escape");
};

/** 0412: its radii, how far out the bosses stand and where. */
export const COVER = { ring: 78, boss: 18, out: 95, fillet: 25, turns: [90, 210, 330] } as const;
/** Where the R 25 touch, as seen from the ring's centre and from the boss's; they stand 103 and 43 from these. */
export const COVER_TOUCH = {
  atRing: angle(COVER.ring + COVER.fillet, COVER.out, COVER.boss + COVER.fillet),
  atBoss: angle(COVER.out, COVER.boss + COVER.fillet, COVER.ring + COVER.fillet),
} as const;

/** 0412 from its empty board: one contour, the bore, the slot, three holes. */
export const drawCoverPlate = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  const [{ ring, boss, out, turns }, { atRing, atBoss }] = [COVER, COVER_TOUCH];
  await fitView(bench);
  await bench.tool("QS", "Layout circle");
  await bench.callout("Ø 190").click();
  await bench.click({ x: 0.4, y: 0.4 });
  await bench.tool("QE", "At an angle");
  for (const turn of ["30", "150"]) {
    await page.keyboard.press("Delete");
    await bench.type(turn);
    await bench.click({ x: 0.4, y: 0.4 });
  }
  await bench.tool("QQ", "Parallel");
  await bench.callout("69").click();
  await bench.click({ x: -100, y: 0 });
  await bench.click({ x: -100, y: 20 });
  await page.keyboard.press("Delete");
  await bench.type("30/2");
  for (const side of [20, -20]) {
    await bench.click({ x: 0, y: -100 });
    await bench.click({ x: side, y: -100 });
  }
  await bench.tool("EE", "Circle");
  await bench.callout("R 78").click();
  await bench.click({ x: 0.4, y: 0.4 });
  await bench.callout("R 18").click();
  for (const turn of turns) {
    const at = polar(out, turn);
    await bench.click({ x: at.x + 0.3, y: at.y + 0.3 });
  }
  await bench.tool("RQ", "Tangent arc");
  await bench.callout("R 25").click();
  for (const turn of turns)
    for (const side of [1, -1]) {
      await bench.click(polar(ring, turn + side * atRing));
      await bench.click(polar(boss, turn + 180 - side * atBoss, polar(out, turn)));
    }
  const [crossRing, crossBoss] = [angle(ring, out, boss), angle(out, boss, ring)];
  await bench.tool("AA", "Trim");
  await page.getByRole("radio", { name: "all but layout" }).click();
  for (const turn of turns)
    for (const part of [-1, 0, 1]) {
      await bench.click(polar(ring, turn + (part * (atRing + crossRing)) / 2));
      await bench.click(polar(boss, turn + 180 + (part * (atBoss + crossBoss)) / 2, polar(out, turn)));
    }
  await bench.tool("EE", "Circle");
  await bench.callout("Ø 120").click();
  await bench.click({ x: 0.4, y: 0.4 });
  await bench.tool("TW", "Slot");
  await bench.callout("8 slot width").click();
  await bench.click({ x: -15.3, y: 69.3 });
  await bench.click({ x: 15.3, y: 69.3 });
  await bench.tool("XE", "Bolt circle");
  await bench.type("3");
  await page.keyboard.press("Enter");
  await bench.blank("diameter").first().click();
  await bench.callout("Ø 14").click();
  await bench.blank("diameter").last().click();
  await bench.callout("Ø 190").click();
  await typeOver(page.getByRole("textbox", { name: "first at" }), "90");
  await page.keyboard.press("Enter");
  await bench.click({ x: 0.4, y: 0.4 });
  await clearAndJoin(bench, "Joined: 1 contour from 12 pieces.");
};

/** Where four of the hearth's numbers stand on the paper of its sketch, in the units it was drawn in. */
export const HEARTH_ON_PAPER: Readonly<Record<string, Place>> = {
  width: { x: 542.8, y: 603.2 },
  "depth at the sides": { x: 83, y: 352.6 },
  "front corners": { x: 840.6, y: 413.2 },
  "notch deep": { x: 1110.6, y: 234 },
};
/** A place of the hearth, in millimetres from its left back corner, on the paper of the sketch. */
export const hearthOnPaper = (x: number, y: number): Place => ({ x: 175 + 0.62 * x, y: 210 + 0.62 * y });
export const HEARTH_PHOTO = { width: 1200, height: 700 } as const;

/** The outer corners of the hearth's notches, and where its front corners begin, in the photo; by four known pins. */
export const hearthCorners = (): readonly Place[] => {
  const demo = JSON.parse(readFileSync(join(import.meta.dirname, "../../server/demo/jobs.json"), "utf8")) as {
    jobs: { id: string; callouts: { name: string; pin: Place }[] }[];
  };
  const { callouts } = demo.jobs.find(({ id }) => id === "demo-0413")!;
  const pins = Object.keys(HEARTH_ON_PAPER).map((name) => callouts.find((one) => one.name === name)!.pin);
  const { width, height } = HEARTH_PHOTO;
  const map = homographyOf(
    Object.values(HEARTH_ON_PAPER),
    pins.map(({ x, y }) => ({ x: x * width, y: y * height })),
  )!;
  const corners = [hearthOnPaper(0, 75), hearthOnPaper(1380, 75), hearthOnPaper(1380, 420), hearthOnPaper(0, 420)];
  return corners.map((p) => throughHomography(map, p));
};

/** Straighten in hand, with what the hearth's four corners are apart: 460 - 75 - 40 down. */
export const takeStraighten = async (bench: Bench): Promise<SketchPicture> => {
  const { page } = bench;
  await page.getByRole("button", { name: "Enlarge the sketch card" }).click();
  await bench.tool("BR", "Straighten the picture");
  await bench.type("1380");
  await page.keyboard.press("Tab");
  await page.keyboard.type("345");
  await page.keyboard.press("Enter");
  return new SketchPicture(page, HEARTH_PHOTO);
};

/** 0415: the places its opening goes through. */
export const BASIN = [
  [-210, 0],
  [-150, 120],
  [0, 165],
  [170, 130],
  [240, 10],
  [180, -110],
  [20, -150],
  [-140, -105],
].map(([x, y]): Place => ({ x: x!, y: y! }));

/** Layout points, so that a click takes their very places. */
export const layoutPoints = async (bench: Bench, places: readonly Place[]): Promise<void> => {
  await bench.tool("QD", "Point");
  for (const at of places) await typePoint(bench, "point", at);
  await keys(bench, "Escape", "Escape");
  await fitView(bench);
};

/** 0415's opening, a free curve through its points. */
export const drawOpening = async (bench: Bench): Promise<void> => {
  await layoutPoints(bench, BASIN);
  await bench.tool("WS", "Free curve");
  for (const at of [...BASIN, BASIN[0]!]) await bench.click(at);
  await keys(bench, "Escape", "Escape");
  await fitView(bench);
};

/** 0415's tap hole. */
export const drawTapHole = async (bench: Bench): Promise<void> => {
  await bench.tool("EE", "Circle");
  await bench.callout("Ø 35").click();
  await typePoint(bench, "centre", { x: 0, y: 235 });
  await keys(bench, "Escape", "Escape");
};

/** 0417's minute hand: hub, bore and counterweight, and a hand drawn with its widths. */
export const drawMinuteHand = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  await bench.tool("EE", "Circle");
  for (const [size, x] of [
    ["Ø 60", 0],
    ["Ø 24", 0],
    ["Ø 40", -90],
  ] as const) {
    await bench.callout(size).click();
    await typePoint(bench, "centre", { x, y: 0 });
  }
  await fitView(bench);
  await bench.tool("FA", "Outline with a width");
  await page.getByRole("radio", { name: "round" }).first().click();
  await typePoint(bench, "point or end", { x: -90, y: 0 });
  await fill(bench, { length: "90", angle: "0", width: "18" });
  await page.keyboard.press("Enter");
  await fill(bench, { angle: "0", width: "26", "width at the end": "10" });
  await bench.blank("length").focus();
  await bench.callout("300").click(); // the ledger's own value, which it then answers
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter"); // makes the contour
  await expect(page.getByText("The contour is made.")).toBeVisible();
};

/** 0417's hour hand: its middle line, then widths piece by piece. */
export const drawHourHand = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  await bench.tool("WW", "Outline");
  await typePoint(bench, "point or end", { x: -90, y: -120 });
  for (const length of ["90", "200"]) {
    await fill(bench, { length, angle: "0" });
    await page.keyboard.press("Enter");
  }
  await keys(bench, "Escape", "Escape");
  await fitView(bench);
  await bench.tool("FT", "Give width");
  await page.getByRole("radio", { name: "piece by piece" }).click();
  await page.getByRole("radio", { name: "round" }).first().click();
  await fill(bench, { width: "18" });
  await bench.click({ x: -60, y: -120 });
  await expect(page.getByText("Enter makes the contour, or click the next piece.")).toBeVisible();
  await fill(bench, { width: "34", "width at the end": "14" });
  await bench.click({ x: 120, y: -120 });
  await page.keyboard.press("Enter");
  await expect(page.getByText("The contour is made.")).toBeVisible();
};

/** 0417: the minute hand, the disc of its hub and its counterweight become one contour; the bore stays. */
export const uniteMinuteHand = async (bench: Bench): Promise<void> => {
  await keys(bench, "Escape", "Escape");
  await bench.tool("FW", "Unite");
  await bench.click({ x: 200, y: 13 - (8 / 300) * 200 });
  await bench.click({ x: 0, y: 30 });
  await expect(bench.page.getByText("1 contour made.")).toBeVisible();
  await bench.click({ x: -90, y: 20 });
};

/** 0418 whole: plate, opening, the disc in it, tapped holes, and the lines scribed on the layer of marks. */
export const drawNameplate = async (bench: Bench): Promise<void> => {
  const { page } = bench;
  await bench.tool("TT", "Rectangle");
  await bench.blank("width").click();
  await bench.callout("260 wide").click();
  await bench.blank("height").click();
  await bench.callout("140 high").click();
  await page.getByRole("radio", { name: "centre", exact: true }).click();
  await page.getByRole("radio", { name: "round" }).click();
  await bench.callout("R 12 corners").click();
  await typePoint(bench, "point", { x: 0, y: 0 });
  await fitView(bench);
  await bench.tool("TW", "Slot");
  await page.getByRole("radio", { name: "overall length" }).click();
  await bench.blank("width").click();
  await bench.callout("60 opening wide").click();
  await bench.blank("overall length").click();
  await bench.callout("120 opening long").click();
  await typePoint(bench, "middle", { x: 0, y: 0 });
  await bench.tool("EE", "Circle");
  await bench.callout("Ø 40 disc").click();
  await typePoint(bench, "centre", { x: 0, y: 0 });
  await bench.tool("XR", "Hole grid");
  await page.getByRole("radio", { name: "tapped" }).click();
  await bench.blank("thread").click();
  await bench.callout("8 × M6").click();
  await fill(bench, { columns: "4", rows: "2" });
  await bench.blank("apart across").click();
  await bench.callout("70 holes along").click();
  await bench.blank("apart up").click();
  await bench.callout("100 holes up").click();
  await typePoint(bench, "first hole", { x: -105, y: -50 });
  await keys(bench, "Escape", "Escape");
  await page.getByRole("radio", { name: "Draw on Marks" }).click();
  await bench.tool("WQ", "Line");
  for (const y of [62, -62]) {
    await typePoint(bench, "point", { x: -100, y });
    await bench.blank("length").click();
    await bench.callout("200 scribed line").click();
    await typeOver(bench.blank("angle"), "0");
    await keys(bench, "Enter", "Enter", "Escape");
  }
};
