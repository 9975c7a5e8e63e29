// A server with the demo data and a page on it, for scripts; both are ended when the work is done.
import { spawn } from "node:child_process";
import { chromium, type Page } from "@playwright/test";

export const withBrowser = async (port: number, work: (page: Page) => Promise<void>): Promise<void> => {
  const server = spawn("npx", ["tsx", "server/src/main.ts", "--demo"], {
    env: { ...process.env, PORT: String(port) },
    stdio: ["ignore", "pipe", "inherit"],
    detached: true,
  });
  try {
    await new Promise((ready) => server.stdout.once("data", ready));
    const browser = await chromium.launch({
      executablePath: "/usr/bin/chromium",
      args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
    });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: `http://localhost:${port}` });
    await page.addInitScript("globalThis.__name = (named) => named"); // what tsx puts round functions sent to the page
    await work(page);
    await browser.close();
  } finally {
    process.kill(-server.pid!);
  }
};
