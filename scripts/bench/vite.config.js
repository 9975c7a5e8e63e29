// The benchmark as one file, built like the product, so that what it measures is what ships.
import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const here = (file) => fileURLToPath(new URL(file, import.meta.url));

export default defineConfig({
  root: here("."),
  logLevel: "warn",
  ssr: { noExternal: [/^@ash-edge\//] },
  build: {
    ssr: true,
    target: "node20",
    emptyOutDir: true,
    rollupOptions: {
      input: ["main.ts", "great.ts"].map(here),
      output: { entryFileNames: "[name].js", chunkFileNames: "[name]-[hash].js" },
    },
  },
});
