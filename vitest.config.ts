import { defineConfig } from "vitest/config";

export default defineConfig({
  test: { include: ["{core,cli,server,web,scripts}/**/*.test.ts"], environment: "node", testTimeout: 20_000 },
});
