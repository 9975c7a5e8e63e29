import type { Callout } from "@ash-edge/core/drawing";
import { typedParts, isPlace, PLACE_PARTS, REGISTRY, type Typed, type ToolState, type Tool } from "@ash-edge/tools";

/** The blank that a digit goes into: the lit one, else the first that a value can be typed in. */
export const typingBlank = (tool: Tool, state: ToolState): string | undefined => {
  const place = state.placing ? PLACE_PARTS[state.placing.as] : [];
  const next = place.find(({ name }) => !(name in state.entries)) ?? place[0];
  if (next && (!state.lit || isPlace(state.lit)))
    return place.find(({ name }) => name === state.lit)?.name ?? next.name;
  const typed = typedParts(tool, state.choices);
  return (typed.find(({ name }) => name === state.lit) ?? typed[0])?.name;
};

/** True when a callout's kind of value can be typed in a blank. */
export const fitsBlank = (part: Typed, kind: Callout["kind"]): boolean => {
  switch (part.kind) {
    case "thread":
      return kind === "thread";
    case "size":
      return kind === "radius" || kind === "diameter";
    case "value":
      return part.expects === (kind === "centres" ? "length" : kind);
    case "list":
      return false;
  }
};

/** The blank of a tool that a callout of this kind fits; the lit one where it does. */
export const blankFor = (tool: Tool, { kind }: Callout, lit: string | undefined): string | undefined => {
  const fits = typedParts(tool).filter((part) => fitsBlank(part, kind));
  return (fits.find(({ name }) => name === lit) ?? fits[0])?.name;
};

/** The tools that can use a callout's kind, for a callout clicked with no tool active. */
export const toolsFor = (callout: Callout): readonly Tool[] =>
  REGISTRY.flatMap((one) => (one.kind === "tool" && blankFor(one, callout, undefined) !== undefined ? [one] : []));
