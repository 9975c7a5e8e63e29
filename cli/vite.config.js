// The command line as one file, so that it starts at once and runs at full speed; made after an install and by a build.
import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

export default defineConfig({
  root: fileURLToPath(new URL(".", import.meta.url)),
  logLevel: "warn",
  // in one file with what they use, but for the threads' package, which looks for files of its own
  ssr: { noExternal: true, external: ["piscina"] },
  build: {
    ssr: true,
    target: "node20",
    emptyOutDir: true,
    rollupOptions: {
      input: ["src/main.ts", "src/work.ts"].map((file) => fileURLToPath(new URL(file, import.meta.url))),
      output: { entryFileNames: "[name].js", chunkFileNames: "[name]-[hash].js" },
    },
  },
});
