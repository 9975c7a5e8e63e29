import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["{core,tools,cli,server,web,scripts}/**/*.test.{ts,tsx}"],
    environment: "node",
    testTimeout: 20_000,
    setupFiles: ["core/src/testing/checkEdits.ts"],
  },
});
