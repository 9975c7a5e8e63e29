import { Check, TriangleAlert, X } from "lucide-react";

/** The sign and the tone of each verdict; its words stand with it, or are its name. */
export const VERDICT_SIGNS = {
  ready: [Check, "text-moss"],
  "but for": [TriangleAlert, "text-caution"],
  "not ready": [X, "text-fault"],
} as const;
