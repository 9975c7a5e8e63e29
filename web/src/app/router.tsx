import type { ComponentType } from "react";
import { createBrowserRouter, Navigate } from "react-router";
import { PlaceFault } from "./Fault.tsx";
import { NotFound } from "./NotFound.tsx";

/**
 * Loads a place when it is gone to. One that can't be loaded fails where it would have been shown: the router shows
 * nothing at all for a lazy route that was refused.
 */
const place = (load: () => Promise<ComponentType>) => async (): Promise<{ Component: ComponentType }> => {
  try {
    return { Component: await load() };
  } catch (reason) {
    return {
      Component: () => {
        throw reason;
      },
    };
  }
};

/** Each place says in its own place what went wrong in it. */
export const router = createBrowserRouter([
  {
    errorElement: <PlaceFault />,
    hydrateFallbackElement: <p className="p-8 text-soft">Opening …</p>,
    children: [
      { path: "/", element: <Navigate to="/jobs" replace /> },
      { path: "/jobs", lazy: place(async () => (await import("../jobs/Jobs.tsx")).Jobs) },
      { path: "/jobs/:id", lazy: place(async () => (await import("../bench/BenchPage.tsx")).BenchPage) },
      { path: "/jobs/:id/prove", lazy: place(async () => (await import("../prove/Prove.tsx")).Prove) },
      { path: "/jobs/:id/compare", lazy: place(async () => (await import("../compare/Compare.tsx")).Compare) },
      { path: "/jobs/:id/release", lazy: place(async () => (await import("../release/Release.tsx")).Release) },
      { path: "/jobs/:id/sheet", lazy: place(async () => (await import("../sheet/Sheet.tsx")).SheetPlace) },
      { path: "/jobs/:id/run/:number", lazy: place(async () => (await import("../run/TestRun.tsx")).TestRun) },
      { path: "/inbox/:message?", lazy: place(async () => (await import("../inbox/Inbox.tsx")).Inbox) },
      { path: "/tables", lazy: place(async () => (await import("../tables/Tables.tsx")).Tables) },
      { path: "/settings", lazy: place(async () => (await import("../settings/Settings.tsx")).Settings) },
      { path: "/help", lazy: place(async () => (await import("../help/Help.tsx")).Help) },
      { path: "*", element: <NotFound what="This page" /> },
    ].map((one) => ({ ...one, errorElement: <PlaceFault /> })),
  },
]);
