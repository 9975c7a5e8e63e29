import tailwind from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

export default defineConfig({
  plugins: [
    react(),
    tailwind(),
    VitePWA({
      injectRegister: null, // app/offline.ts does it
      registerType: "prompt",
      manifest: {
        name: "Ash Edge",
        short_name: "Ash Edge",
        description: "From a sketch to an exact cut profile",
        display: "standalone",
        start_url: "/jobs",
        icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml" }],
      },
      workbox: {
        globPatterns: ["**/*.{js,css,html,svg,woff2,ttf}"],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//],
        maximumFileSizeToCacheInBytes: 8e6,
        cleanupOutdatedCaches: true,
      },
    }),
  ],
  build: {
    target: "es2023",
    sourcemap: false,
    chunkSizeWarningLimit: 1500,
    // few files, fetched as they are asked for: preloading dozens of small ones costs more than it saves
    modulePreload: false,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: "parts", test: /lucide-react|@radix-ui|radix-ui|@floating-ui|[\\/]web[\\/]src[\\/]ui[\\/]/ },
            { name: "core", test: /[\\/](core|tools)[\\/]src[\\/]/, minShareCount: 2 },
          ],
        },
      },
    },
  },
  worker: { format: "es" },
  server: { proxy: { "/api": "http://127.0.0.1:4173" } },
});
