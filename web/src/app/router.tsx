import { createBrowserRouter, Navigate } from "react-router";
import { BenchPage } from "../bench/BenchPage.tsx";
import { Jobs } from "../jobs/Jobs.tsx";
import { Release } from "../release/Release.tsx";
import { NotFound } from "./NotFound.tsx";

export const router = createBrowserRouter([
  { path: "/", element: <Navigate to="/jobs" replace /> },
  { path: "/jobs", element: <Jobs /> },
  { path: "/jobs/:id", element: <BenchPage /> },
  { path: "/jobs/:id/release", element: <Release /> },
  { path: "*", element: <NotFound what="This page" /> },
]);
