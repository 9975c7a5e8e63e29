import { createBrowserRouter, Navigate } from "react-router";
import { NotFound } from "./NotFound.tsx";

/** Each place is loaded when it is gone to. */
export const router = createBrowserRouter([
  { path: "/", element: <Navigate to="/jobs" replace /> },
  { path: "/jobs", lazy: async () => ({ Component: (await import("../jobs/Jobs.tsx")).Jobs }) },
  { path: "/jobs/:id", lazy: async () => ({ Component: (await import("../bench/BenchPage.tsx")).BenchPage }) },
  { path: "/jobs/:id/release", lazy: async () => ({ Component: (await import("../release/Release.tsx")).Release }) },
  { path: "/tables", lazy: async () => ({ Component: (await import("../tables/Tables.tsx")).Tables }) },
  { path: "/settings", lazy: async () => ({ Component: (await import("../settings/Settings.tsx")).Settings }) },
  { path: "/help", lazy: async () => ({ Component: (await import("../help/Help.tsx")).Help }) },
  { path: "*", element: <NotFound what="This page" /> },
]);
