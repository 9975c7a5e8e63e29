import type { Action } from "../tool.ts";

export const traceThePictureAction: Action = {
  kind: "action",
  id: "trace-picture",
  name: "Trace the picture",
  help:
    "Follows the strokes of the sketch that lies under the drawing and proposes what they were meant to be: the " +
    "outline, thin lines, and what is doubtful; words are left alone. What you accept becomes lines, arcs and " +
    "circles where the sketch has them. Their sizes are no numbers: callouts give those, and Make true puts them in.",
  drawing: ["M7 16 L7 11 C8 7 16 7 17 11 L17 16 Z", "M3 4 L21 4 L21 20 L3 20 Z"],
};
