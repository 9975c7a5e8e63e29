import { joinPieces } from "@ash-edge/core/drawing";
import { sayJoined } from "@ash-edge/core/say";
import { refused, type Tool } from "./tool.ts";

export const join: Tool = {
  kind: "tool",
  id: "join",
  name: "Join",
  bank: "KeyG",
  help: "Press Enter or click on the board: pieces whose ends meet become chains, and chains that close become contours.",
  drawing: ["M3 16 L10 8 L21 8", "M10 8 m-2.5 0 a2.5 2.5 0 1 0 5 0 a2.5 2.5 0 1 0 -5 0"],
  parts: [
    {
      kind: "choice",
      name: "what",
      label: "what",
      options: [
        ["all", "everything that meets"],
        ["selected", "what is selected"],
      ],
    },
  ],
  propose: (given, { drawing, selection }) => {
    const joined = joinPieces(drawing, given.choice("what") === "selected" ? selection : undefined);
    if (!joined.ok) return refused(joined);
    const said = sayJoined(joined.value);
    return { ways: [{ preview: [], edit: () => joined.value.edit, said: `Joined: ${said}.` }], note: said };
  },
};
