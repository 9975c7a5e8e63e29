import { expect, test, type Page } from "@playwright/test";
import { Bench } from "../support/bench.ts";

const view = (page: Page, subject: string) => page.getByRole("article", { name: subject });
const form = (page: Page) => page.getByRole("dialog", { name: "A job of this message" });
const choose = (page: Page, subject: string): Promise<void> =>
  page.getByRole("region", { name: "Messages" }).getByRole("link", { name: subject }).click();
const open = async (page: Page, subject: string): Promise<void> => {
  await choose(page, subject);
  await view(page, subject)
    .getByRole("button", { name: /^Make a/ })
    .click();
};

test("jobs are made of a photo, a page of a PDF, a file and a question, with the numbers of their words", async ({
  page,
}) => {
  await page.goto("/jobs");
  const inbox = page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: /^Inbox/ });
  await expect(inbox).toHaveText("Inbox4 new");
  await inbox.click();
  const bench = new Bench(page);
  const card = page.getByRole("region", { name: "Sketch card" });
  const ledger = page.getByRole("region", { name: "Ledger" });

  // a photo
  await choose(page, "Sight glass flange");
  await expect(view(page, "Sight glass flange").locator("mark")).toHaveCount(5);
  await expect(inbox).toHaveText("Inbox3 new");
  await open(page, "Sight glass flange");
  await expect(form(page).getByLabel("Thickness")).toHaveValue("10 mm");
  await expect(form(page).getByLabel("Line 4")).toHaveValue("Ø 122 circle");
  await form(page).getByLabel("Line 1").click();
  await page.keyboard.press("End");
  await page.keyboard.type(" edge");
  await form(page).getByRole("button", { name: "Make the job" }).click();
  await bench.ready();
  await expect(card.getByRole("img")).toBeVisible();
  for (const row of ["Ø 150 outside edge", "Ø 62 bore", "6 × Ø 11 holes", "Ø 122 circle"])
    await expect(bench.callout(row)).toContainText("not placed");

  // the second page of a PDF; a number taken out, one that can't be read left out
  await page.goto("/inbox");
  await expect(inbox).toHaveText("Inbox3 new");
  await open(page, "Goods office sill");
  const pages = page.getByRole("dialog", { name: "Pages of goods-office-sill.pdf" });
  await pages.getByRole("button", { name: "page 1" }).click();
  await pages.getByRole("button", { name: "page 2" }).click();
  await pages.getByRole("button", { name: "Take the page" }).click();
  await expect(form(page)).toContainText("goods-office-sill page 2.png");
  for (const [line, text] of [
    ["Line 4", ""],
    ["Line 5", "wide"],
  ] as const) {
    await form(page).getByLabel(line).click();
    await page.keyboard.press("Control+A");
    await page.keyboard.press("Delete");
    await page.keyboard.type(text);
  }
  await expect(form(page)).toContainText("1 can’t be read and would be left out");
  await form(page).getByRole("button", { name: "Make the job" }).click();
  await bench.ready();
  await expect(card.getByRole("img")).toBeVisible();
  await expect(ledger.getByRole("button", { name: /not placed/ })).toHaveCount(3);

  // a drawing, in the file's unit
  await page.goto("/inbox");
  await open(page, "Fan bracket, file attached");
  await expect(form(page)).toContainText("Unit: the file’s, mm");
  await form(page).getByRole("button", { name: "Make the job" }).click();
  await bench.ready();
  await expect(ledger.getByRole("button", { name: /not placed/ })).toHaveCount(4);
  await page.getByRole("navigation", { name: "Steps" }).getByRole("button", { name: /^Tidy/ }).click();
  await expect(page.getByRole("article", { name: /^duplicate/ })).toHaveCount(1);

  // a question with nothing attached, in inches; the job is found again from the message
  await page.goto("/inbox");
  await open(page, "Can you cut a lever?");
  await expect(form(page)).toContainText("Nothing came with it");
  // another unit than the words': it is said; what was changed is not thrown away at once
  await form(page).getByRole("radio", { name: "mm" }).click();
  await expect(form(page)).toContainText("Numbers without a unit are read as mm, the job’s unit.");
  await form(page).getByRole("radio", { name: "in", exact: true }).click();
  await form(page).getByLabel("Line 1").click();
  await page.keyboard.type(" ");
  await page.keyboard.press("Escape");
  await form(page).getByRole("button", { name: "Go on with it" }).click();
  await expect(form(page).getByLabel("Thickness")).toHaveValue("5/8 in");
  await form(page).getByLabel("Job number").click();
  await page.keyboard.press("Control+A");
  await page.keyboard.type("0412");
  await form(page).getByRole("button", { name: "Make the job" }).click();
  await expect(form(page).getByRole("alert")).toContainText("There is a job 0412 already.");
  await form(page).getByLabel("Job number").click();
  await page.keyboard.press("Control+A");
  await page.keyboard.type("0999");
  await form(page).getByRole("button", { name: "Make the job" }).click();
  await bench.ready();
  await expect(bench.callout("14 1/2")).toContainText("not placed");
  await expect(bench.callout("3/8-16")).toContainText("not placed");
  await page.goto("/inbox/lever");
  await expect(inbox).toHaveText("Inbox");
  await expect(
    view(page, "Can you cut a lever?").getByRole("link", { name: "0999 Can you cut a lever?" }),
  ).toBeVisible();
});

test("without a server the inbox says so; what can't be fetched is said, and the job is made without it", async ({
  page,
}) => {
  await page.route("**/api/inbox", (route) => route.abort());
  await page.goto("/inbox");
  await expect(page.getByRole("main")).toContainText("No server is there, so there is no inbox.");
  await page.getByRole("button", { name: "Open a file" }).click();
  await expect(page.getByRole("dialog", { name: "Open a file" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.unroute("**/api/inbox");
  await page.route("**/api/inbox", (route) => route.fulfill({ json: { messages: [{ id: "../x" }] } }));
  await page.getByRole("button", { name: "Ask again" }).click();
  await expect(page.getByRole("alert")).toContainText("What the server gave is no inbox that can be read.");
  await page.unroute("**/api/inbox");
  await page.route("**/flange.jpg", (route) => route.abort());
  await page.getByRole("button", { name: "Ask again" }).click();
  await open(page, "Sight glass flange");
  await expect(form(page).getByRole("alert")).toContainText("flange.jpg could not be fetched.");
  await page.unroute("**/flange.jpg");
  await page.route("**/flange.jpg", (route) => route.fulfill({ contentType: "image/jpeg", body: "no picture" }));
  await form(page).getByRole("button", { name: "Ask again" }).click();
  await expect(form(page).getByRole("alert")).toContainText("flange.jpg is no picture that can be shown.");
  await form(page).getByRole("button", { name: "Make the job" }).click();
  const bench = new Bench(page);
  await bench.ready();
  await expect(bench.callout("Ø 62 bore")).toContainText("not placed");
  await page.goto("/inbox/gone");
  await expect(page.getByRole("main")).toContainText("This message is not there any more.");
});
