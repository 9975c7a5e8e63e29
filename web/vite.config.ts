import tailwind from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwind()],
  build: { target: "es2023", sourcemap: false, chunkSizeWarningLimit: 1500 },
  worker: { format: "es" },
  server: { proxy: { "/api": "http://127.0.0.1:4173" } },
});
