import "@fontsource-variable/commissioner/wght.css";
import "@fontsource/ibm-plex-mono/latin-400.css";
import "@fontsource/ibm-plex-mono/latin-600.css";
import "@fontsource/ibm-plex-mono/latin-ext-400.css";
import "@fontsource/ibm-plex-mono/cyrillic-400.css";
import "./app/style.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router/dom";
import { toast, Toaster } from "sonner";
import { router } from "./app/router.tsx";
import { standing } from "./ui/standingNotes.ts";
import { StoreProvider } from "./app/StoreProvider.tsx";
import "./ui/theme.ts"; // shown before anything else is
import { isInMemory, openStore, putBack, reserveFiles } from "./store/index.ts";

if (import.meta.env.DEV) void import("./app/checkEdits.ts").then(({ checkEveryEdit }) => checkEveryEdit());

if (import.meta.env.PROD) void import("./app/offline.ts").then(({ keepOffline }) => keepOffline());

// what is asked for is in this browser: being offline is no reason to wait
const queries = new QueryClient({
  defaultOptions: { queries: { retry: false, staleTime: Infinity, networkMode: "always" } },
});

const database = await openStore();

/** Nobody waits longer for this before the page is shown. */
const WAIT_MS = 3000;

// a browser that found its database damaged starts a new one: what the reserve has is put back before anything is shown
const files = reserveFiles(database);
const puttingBack = files ? putBack(database, files) : Promise.resolve([]);
await Promise.race([puttingBack.catch(() => []), new Promise((done) => setTimeout(done, WAIT_MS))]);

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <StoreProvider database={database}>
        <RouterProvider router={router} />
        <Toaster
          position="bottom-center"
          offset={52}
          toastOptions={{
            className: "said card !text-ink !bg-panel !border-hair !font-sans",
            actionButtonStyle: { background: "var(--ember)", color: "var(--panel)" },
          }}
        />
      </StoreProvider>
    </QueryClientProvider>
  </StrictMode>,
);

if (isInMemory(database))
  toast(
    "This browser gives the application no storage, as some private windows do. What you draw is in memory alone and " +
      "gone with this tab: save it to a file.",
    { id: standing("no storage"), duration: Infinity, closeButton: true },
  );

puttingBack.then(
  (back) =>
    back.length > 0 &&
    toast(
      `The browser had lost its data, as it can in a crash. Put back from the reserve, without history and releases: ` +
        `${back.join(", ")}.`,
      { id: standing("put back"), duration: Infinity, closeButton: true },
    ),
  (reason: unknown) => console.error(reason), // no storage, which every place says by itself
);
