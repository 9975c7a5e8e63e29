import { SNAP_WORDS, type SnapKind } from "@ash-edge/core/look";
import type { Action } from "./tool.ts";

/** What is done at once. The bench carries them out by their ids. */
export const clearLayoutAction: Action = {
  kind: "action",
  id: "clear-layout",
  name: "Clear layout",
  bank: "KeyQ",
  help: "Removes all layout lines, circles and points in one step. Undo brings them back.",
  drawing: ["M5 19 L19 5", "M4 8 L20 8 M4 16 L20 16"],
};

export const fitAction: Action = {
  kind: "action",
  id: "fit",
  name: "Fit",
  bank: "KeyV",
  help: "Shows the whole drawing.",
  drawing: ["M4 9 L4 4 L9 4 M15 4 L20 4 L20 9 M20 15 L20 20 L15 20 M9 20 L4 20 L4 15", "M8 12 L16 12"],
};

export const writeCalloutsAction: Action = {
  kind: "action",
  id: "write-callouts",
  name: "Write callouts",
  bank: "KeyB",
  help: "Goes to the ledger's line, where the numbers of the sketch are written down one after another: 26 d bore, Enter. A click on the sketch pins the one being written.",
  drawing: ["M4 18 L4 20 L6 20 L18 8 L16 6 Z", "M4 6 L12 6 M4 11 L9 11"],
};

export const releaseAction: Action = {
  kind: "action",
  id: "release",
  name: "Release",
  bank: "KeyB",
  help: "Opens the release of this job: layers, checks, and the file for the machine.",
  drawing: ["M5 14 L5 20 L19 20 L19 14 M12 4 L12 15 M8 8 L12 4 L16 8"],
};

const view = (id: string, name: string, help: string, drawing: Action["drawing"]): Action => ({
  kind: "action",
  id,
  name,
  bank: "KeyV",
  help,
  drawing,
});
export const fitSelectionAction = view(
  "fit-selection",
  "Fit selection",
  "Shows what is selected, as large as it goes.",
  [
    "M4 9 L4 4 L9 4 M15 4 L20 4 L20 9 M20 15 L20 20 L15 20 M9 20 L4 20 L4 15",
    "M12 12 m-3 0 a3 3 0 1 0 6 0 a3 3 0 1 0 -6 0",
  ],
);
export const viewBeforeAction = view("view-before", "View before", "Goes back to the view before this one.", [
  "M5 12 L19 12 M10 7 L5 12 L10 17",
  "M4 4 L20 4 M4 20 L20 20",
]);
export const magnifierAction = view(
  "magnifier",
  "Magnifier",
  "Shows what is under the pointer six times as large in a corner of the board. Again puts it away.",
  ["M10 10 m-6 0 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0 M14.5 14.5 L20 20", "M8 10 L12 10 M10 8 L10 12"],
);
export const layersAction = view(
  "layers",
  "Layers",
  "Goes to the Layers panel: shown, hidden, locked, the working one.",
  ["M4 9 L12 5 L20 9 L12 13 Z", "M4 13 L12 17 L20 13 M4 17 L12 21 L20 17"],
);
export const marksAction = view(
  "marks-shown",
  "Marks shown",
  "Hides the marks on the board (open ends, the datum, layout), or shows them again, in one step.",
  ["M2 12 Q12 4 22 12 Q12 20 2 12 Z", "M12 12 m-3 0 a3 3 0 1 0 6 0 a3 3 0 1 0 -6 0"],
);

export const tidyAction: Action = {
  kind: "action",
  id: "tidy",
  name: "Tidy",
  bank: "KeyB",
  help: "Looks the drawing over for duplicates, overlaps, gaps, tails and edges that two outlines share, and lists them as findings: mended one by one, by kind, or all, or left as they are. The tolerance within which is mended stands above them.",
  drawing: ["M4 17 L9 17 M9 17 L9 9 L15 9 L15 17 M15 17 L20 17", "M4 19 L11 19 M13 19 L20 19"],
};

export const handlesAction: Action = {
  kind: "action",
  id: "handles-shown",
  name: "Handles shown",
  short: "Handles",
  bank: "KeyG",
  help: "Shows handles on what is selected, by which it is stretched, shifted, bowed, or puts them away.",
  drawing: ["M5 18 L19 6", "M5 18 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0 M19 6 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0"],
};

/** The snaps that can be asked for by themselves, for one click. */
const ASKED: readonly SnapKind[] = [
  "end",
  "crossing",
  "centre",
  "middle",
  "quarter",
  "perpendicular",
  "tangent",
  "extended",
  "area",
];
export const snapOnceActions: readonly Action[] = ASKED.map((kind) => ({
  ...view(
    `snap-${kind}`,
    `Snap once: ${SNAP_WORDS[kind]}`,
    `The next click takes a ${SNAP_WORDS[kind]} and nothing else; with none in reach it makes nothing and says so.`,
    ["M12 12 m-5 0 a5 5 0 1 0 10 0 a5 5 0 1 0 -10 0", "M3 12 L7 12 M17 12 L21 12 M12 3 L12 7 M12 17 L12 21"],
  ),
  short: SNAP_WORDS[kind],
}));

const HOLDS = [
  ["level", "Hold level", "Keeps the direction from the start point level until it is let go."],
  ["upright", "Hold upright", "Keeps the direction from the start point upright until it is let go."],
  ["along", "Hold along an edge", "The next click picks an edge; the direction then stays along it."],
  ["square", "Hold square to an edge", "The next click picks an edge; the direction then stays square to it."],
  ["none", "Let the direction go", "Directions are free again."],
] as const;
/** Directions that are held until they are let go; Shift holds the nearest one for a moment. */
export const holdActions: readonly Action[] = HOLDS.map(([id, name, help]) => ({
  kind: "action",
  id: `hold-${id}`,
  name,
  bank: "KeyB",
  help,
  drawing: ["M4 18 L20 18", id === "upright" || id === "square" ? "M12 18 L12 5" : "M6 12 L18 12"],
}));
