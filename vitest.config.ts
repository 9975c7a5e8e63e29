import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["{core,tools,cli,server,web,scripts}/**/*.test.{ts,tsx}"],
    environment: "node",
    // what each file needs of the application is read once, not 73 times: no test changes what it imports
    isolate: false,
    maxWorkers: 2,
    // a guard against what never ends, not a measure: a busy machine may take its time
    testTimeout: 120_000,
    setupFiles: ["core/src/testing/checkEdits.ts"],
  },
});
