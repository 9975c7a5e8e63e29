import type { Part, Tool } from "@ash-edge/tools";

const words = (part: Part): string => {
  switch (part.kind) {
    case "words":
      return part.text;
    case "pick":
      return part.silent ? "" : `‹${part.label}›`;
    case "thread":
    case "list":
    case "text":
      return `[${part.label}]`;
    case "layer":
      return "{one of the layers}";
    case "size":
      return "R or Ø [ ]";
    case "value":
      return `[${part.given === undefined ? part.label : part.given}]`;
    case "choice":
      return part.nine ? `{one of nine places}` : `{${part.options.map(([, option]) => option).join(" | ")}}`;
  }
};

/** A tool's sentence as text: ‹picks›, [values] and {choices}. */
export const sentenceOf = (tool: Tool): string => [tool.name, ...tool.parts.map(words)].filter(Boolean).join(" ");
