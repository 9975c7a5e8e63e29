import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test, type Page } from "@playwright/test";
import { noDemo } from "../support/demo.ts";
import { Bench, typeOver } from "../support/bench.ts";
import { contoursOf, newJob, rowsOf, typePoint } from "../support/drawn.ts";

type Pair = readonly [x: number, y: number];
const openFile = async (page: Page, name: string, text: string): Promise<void> => {
  await noDemo(page);
  await page.goto("/jobs");
  await page.getByRole("button", { name: "Open a file" }).click();
  const dialog = page.getByRole("dialog", { name: "Open a file" });
  await dialog
    .locator("input[type=file]")
    .setInputFiles({ name, mimeType: "application/dxf", buffer: Buffer.from(text) });
};
const dxf = (
  lines: readonly (readonly [Pair, Pair])[],
  header = "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n",
): string =>
  `${header}0\nSECTION\n2\nENTITIES\n${lines
    .map(([[x, y], [u, v]]) => `0\nLINE\n8\n0\n10\n${x}\n20\n${y}\n11\n${u}\n21\n${v}\n`)
    .join("")}0\nTEXT\n8\n0\n1\nR 5\n0\nENDSEC\n0\nEOF\n`;
const lines = async (bench: Bench, all: readonly (readonly [Pair, Pair])[]): Promise<void> => {
  const { page } = bench;
  await bench.tool("WQ", "Line");
  for (const [[x, y], [u, v]] of all) {
    await typePoint(bench, "point", { x, y });
    await typePoint(bench, "end", { x: u, y: v });
    await page.keyboard.press("Escape");
  }
  await page.keyboard.press("Escape");
};
const findings = (page: Page) => page.getByRole("region", { name: "Findings" });
const tidyStep = (page: Page) => page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: /^Tidy/ });

test(
  "a customer's file: opened with a report, its findings counted, mended one, by kind and all, undone; then " +
    "one contour",
  async ({ page }) => {
    const box: readonly (readonly [Pair, Pair])[] = [
      [
        [0, 0],
        [60, 0],
      ],
      [
        [60, 0.03],
        [60, 40],
      ],
      [
        [60, 40],
        [0, 40],
      ],
      [
        [0, 40],
        [0, 0],
      ],
    ];
    await openFile(
      page,
      "valve.dxf",
      dxf([
        ...box,
        [
          [60, 0],
          [0, 0],
        ],
        [
          [0, 40],
          [60, 40],
        ],
        [
          [20, 40],
          [45, 40],
        ],
      ]),
    );
    const dialog = page.getByRole("dialog", { name: "Open a file" });
    await expect(dialog.getByRole("list", { name: "What came" })).toContainText("7 lines on 1 layer.");
    await expect(dialog).toContainText("Left out: 1 text.");
    await dialog.getByRole("button", { name: "Make the job" }).click();
    const bench = new Bench(page);
    await bench.ready();
    await tidyStep(page).click();
    await expect(findings(page)).toContainText("2 duplicate, 1 overlap, 1 gap");
    await expect(page.getByRole("button", { name: "Mend all 4" })).toBeVisible();
    const card = findings(page).getByRole("article", { name: /^duplicate at 30, 0/ });
    await card.getByRole("button", { name: "Mend", exact: true }).click();
    await expect(findings(page)).toContainText("1 duplicate, 1 overlap, 1 gap");
    await findings(page)
      .getByRole("article", { name: /^duplicate/ })
      .getByRole("button", { name: "All like this" })
      .click();
    await expect(findings(page)).toContainText("1 overlap, 1 gap");
    await page.getByRole("button", { name: /^Mend all/ }).click();
    await expect(findings(page)).toContainText("nothing found");
    const [contour] = contoursOf(await rowsOf(bench));
    expect(contour!.row.vertices).toHaveLength(4);
    expect(contour!.area).toBeCloseTo(2400, 9); // the gap closed at the true corner 60, 0
    await page.keyboard.press("Control+z");
    await expect(findings(page)).toContainText("1 gap");
    await page.keyboard.press("Control+y");
    await expect(findings(page)).toContainText("nothing found");
  },
);

test("job 0416: a customer's file with its faults as the demo counts them, tidied and released", async ({ page }) => {
  const demo = join(import.meta.dirname, "../../server/demo");
  const { faults, contours } = JSON.parse(readFileSync(join(demo, "0416-faults.json"), "utf8")) as {
    faults: Record<string, number>;
    contours: number;
  };
  await openFile(page, "0416-valve-chest-joint.dxf", readFileSync(join(demo, "0416-valve-chest-joint.dxf"), "utf8"));
  const dialog = page.getByRole("dialog", { name: "Open a file" });
  await typeOver(dialog.getByLabel("Job number"), "0416");
  await dialog.getByRole("button", { name: "Make the job" }).click();
  const bench = new Bench(page);
  await bench.ready();
  await tidyStep(page).click();
  const { duplicate, overlap, fragment, gap, tail, doubledLayer } = faults;
  await expect(findings(page)).toContainText(`${duplicate} duplicate`);
  for (const [code, n] of Object.entries({ overlap, fragment, gap, tail }))
    await expect(findings(page)).toContainText(`${n} ${code}`);
  // the doubled layer shows once copies on other layers count
  await findings(page).getByLabel("copies on other layers too").check();
  await expect(findings(page)).toContainText(`${duplicate! + doubledLayer!} duplicate`);
  await page.getByRole("button", { name: /^Mend all/ }).click();
  await expect(findings(page)).toContainText("nothing found");
  const rows = await rowsOf(bench);
  const closed = rows.filter(({ kind, closed: own }) => kind === "circle" || (kind === "chain" && own));
  expect(closed).toHaveLength(contours);
  // 180 by 120 with corners R 16; ports 56 by 70 with R 10; a slot 12 wide with 48 between its centres
  const areas = contoursOf(rows).map(({ area }) => area);
  const corner = 4 - Math.PI;
  [180 * 120 - corner * 256, 56 * 70 - corner * 100, 56 * 70 - corner * 100, 12 * 48 + Math.PI * 36, 18 * 14].forEach(
    (area, i) => expect(areas[i]!).toBeCloseTo(area, 6),
  );
  await bench.saved();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  await page.getByRole("combobox", { name: "Machine" }).selectOption("R12, for old machines");
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the DXF" }).click(),
  ]);
  await expect(page.getByText("holds the same geometry")).toBeVisible();
  expect(readFileSync((await download.path())!, "utf8")).toContain("AC1009");

  // the same in true size as an SVG, read back by the browser's own engine, and its contours as a table
  await page.getByRole("combobox", { name: "Machine" }).selectOption("SVG in true size");
  const [picture] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the SVG" }).click(),
  ]);
  await expect(page.getByText(/\.svg was written, read back .* holds the same geometry/)).toBeVisible();
  expect(readFileSync((await picture.path())!, "utf8").match(/<(path|circle) /g)).toHaveLength(contours);
  const [table] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save the table (CSV)" }).click(),
  ]);
  const [head, ...lines] = readFileSync((await table.path())!, "utf8")
    .trim()
    .split("\r\n");
  expect(lines).toHaveLength(contours);
  const area = head!.split(",").indexOf("area mm2");
  expect(Math.max(...lines.map((line) => Number(line.split(",")[area])))).toBeCloseTo(180 * 120 - corner * 256, 6);
});

test("a finding is left as it is, and stays left; another tolerance finds more; a callout's copy stays", async ({
  page,
}) => {
  const bench = new Bench(page);
  await newJob(bench, "0730");
  await lines(bench, [
    [
      [0, 0],
      [60, 0],
    ],
    [
      [60.2, 0],
      [60.2, 40],
    ],
    [
      [60, 40],
      [0, 40],
    ],
    [
      [0, 40],
      [0, 0],
    ],
    [
      [0, 0],
      [0, 40],
    ],
  ]);
  await page.keyboard.press("Escape");
  await tidyStep(page).click();
  await expect(findings(page)).toContainText("1 duplicate");
  await expect(findings(page)).not.toContainText("gap");
  await typeOver(findings(page).getByLabel("within"), "1/4");
  await page.keyboard.press("Enter");
  await expect(findings(page)).toContainText("1 duplicate, 2 gap");
  await typeOver(findings(page).getByLabel("within"), "-1");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("more than 0");
  await page.keyboard.press("Escape");
  const duplicate = findings(page).getByRole("article", { name: /^duplicate/ });
  await duplicate.getByRole("button", { name: "Leave" }).click();
  await expect(findings(page)).toContainText("1 left");
  await page.getByRole("button", { name: /^Mend all/ }).click();
  await expect(findings(page)).toContainText("1 left");
  await bench.saved();
  await page.reload();
  await bench.ready();
  await tidyStep(page).click();
  await expect(findings(page).getByRole("button", { name: "Left · look again" })).toBeVisible();
  expect((await rowsOf(bench)).filter(({ kind }) => kind === "piece" || kind === "chain").length).toBeGreaterThan(1);
  await findings(page).getByRole("button", { name: "Left · look again" }).click();
  await page.getByRole("button", { name: /^Mend all/ }).click();
  await expect(findings(page)).toContainText("nothing found");
  expect(contoursOf(await rowsOf(bench))).toHaveLength(1);
});

test("a file that says no unit is asked for it; what is no drawing is refused in a sentence", async ({ page }) => {
  const square: readonly (readonly [Pair, Pair])[] = [
    [
      [0, 0],
      [4, 0],
    ],
    [
      [4, 0],
      [4, 4],
    ],
    [
      [4, 4],
      [0, 4],
    ],
    [
      [0, 4],
      [0, 0],
    ],
  ];
  await openFile(page, "square.dxf", dxf(square, ""));
  const dialog = page.getByRole("dialog", { name: "Open a file" });
  await dialog.getByRole("button", { name: "Make the job" }).click();
  await expect(dialog.getByRole("alert")).toContainText("Choose mm or in");
  await dialog.getByRole("radio", { name: "in" }).click();
  await dialog.getByRole("button", { name: "Make the job" }).click();
  await expect(page.getByRole("navigation", { name: "Place" })).toContainText("· in ·");
  await openFile(page, "broken.dxf", "0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n");
  await expect(dialog.getByRole("alert")).toContainText("Line 7: the file ends in the middle.");
  await openFile(page, "notes.txt", "hello");
  await expect(dialog.getByRole("alert")).toContainText("is no DXF, SVG or job file");
});

test("a job file saved on the bench opens again as it was", async ({ page }) => {
  const bench = new Bench(page);
  await newJob(bench, "0731", "in");
  await lines(bench, [
    [
      [0, 0],
      [3, 0.1],
    ],
    [
      [3, 0.1],
      [1, 2],
    ],
  ]);
  await page.keyboard.press("Escape");
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const chunks: Buffer[] = [];
  for await (const chunk of await download.createReadStream()) chunks.push(chunk as Buffer);
  const text = Buffer.concat(chunks).toString("utf8");
  await openFile(page, "0731.ashedge.json", text);
  const dialog = page.getByRole("dialog", { name: "Open a file" });
  await expect(dialog.getByRole("list", { name: "What came" })).toContainText("Job 0731, Part 0731");
  await dialog.getByRole("button", { name: "Make the job" }).click();
  await bench.ready();
  expect(JSON.parse(await bench.content())).toEqual((JSON.parse(text) as { drawing: unknown }).drawing);
});

test("colours and line styles of a customer's file are kept, shown, let go, and written back as drawn", async ({
  page,
}) => {
  const circle = (x: number, radius: number, ...look: readonly (string | number)[]): string =>
    ["0", "CIRCLE", "8", "plate", ...look, "10", x, "20", 0, "40", radius, ""].join("\n");
  const header = "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n";
  const given = circle(0, 40, 62, 1) + circle(0, 10, 420, 0x1e90ff, 6, "CENTER2") + circle(100, 30);
  await openFile(page, "coloured.dxf", `${header}0\nSECTION\n2\nENTITIES\n${given}0\nENDSEC\n0\nEOF\n`);
  await page.getByRole("dialog", { name: "Open a file" }).getByRole("button", { name: "Make the job" }).click();
  const bench = new Bench(page);
  await bench.ready();
  const selected = page.getByRole("region", { name: "Selected" });
  await bench.click({ x: 40, y: 0 });
  await expect(selected).toContainText("colour1");
  await bench.click({ x: 10, y: 0 });
  await expect(selected).toContainText("#1e90ff");
  await expect(selected.getByRole("combobox", { name: "line" })).toHaveValue("CENTER2");
  await selected.getByRole("button", { name: "as its role" }).click();
  await expect(selected).not.toContainText("#1e90ff");
  await page.keyboard.press("Control+z");
  await bench.click({ x: 10, y: 0 });
  await expect(selected).toContainText("#1e90ff");
  await page.keyboard.press("Escape");
  await bench.saved();
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: "Release" }).click();
  await page.getByRole("combobox", { name: "Machine" }).selectOption("Layers as drawn");
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Write the DXF" }).click(),
  ]);
  const lines = readFileSync(await file.path(), "utf8")
    .split("\n")
    .map((one) => one.trim());
  const found: Record<string, string>[] = [];
  for (let i = 0; i + 1 < lines.length; i += 2)
    if (lines[i] === "0") found.push({ 0: lines[i + 1]! });
    else if (found.length > 0) found.at(-1)![lines[i]!] = lines[i + 1]!;
  const circles = found.filter((one) => one[0] === "CIRCLE");
  expect(circles.map((one) => [Number(one[40]), one[62], one[420], one[6]])).toEqual([
    [10, undefined, String(0x1e90ff), "CENTER2"],
    [40, "1", undefined, undefined],
    [30, undefined, undefined, undefined],
  ]);
});
