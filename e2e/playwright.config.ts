import { defineConfig } from "@playwright/test";

const PORT = Number(process.env.E2E_PORT ?? 4319);

export default defineConfig({
  testDir: "tests",
  // guards against what never ends, not measures: a busy machine may take its time
  timeout: 240_000,
  expect: { timeout: 20_000 },
  fullyParallel: true,
  workers: 2,
  reporter: [["list"]],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // what is kept for offline would be fetched anew in every test; those of it allow it
    serviceWorkers: "block",
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  webServer: {
    command: "npx tsx ../server/src/main.ts --demo",
    env: { PORT: String(PORT) },
    url: `http://localhost:${PORT}/jobs`,
    reuseExistingServer: false,
  },
});
