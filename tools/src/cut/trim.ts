import { exampleCircle, exampleLine } from "../example/exampleShapes.ts";
import { planTrim, trimAlong, type Cutters } from "@ash-edge/core/edits";
import { done, refuse } from "@ash-edge/core/numeric";
import { nothing, refused, type Part, type ToolContext, type Tool, type Proposal } from "../tool.ts";

/** What cuts, or bounds: whatever is there, all but layout, or just what is selected. */
export const cutterChoice = (name: string, label: string, first: string): Part => ({
  kind: "choice",
  name,
  label,
  options: [
    ["all", first],
    ["cut", "all but layout"],
    ["selected", "what is selected"],
  ],
});
/** What cuts, as chosen: everything, or what is selected. */
export const cuttersOf = (choice: string, { selection }: ToolContext): Cutters =>
  choice === "selected" ? selection : choice === "cut" ? "cut" : "all";

/** Only what is selected cuts, and nothing is. */
export const cutsNothing = (choice: string, { selection }: ToolContext): boolean =>
  choice === "selected" && selection.size === 0;

export const trim: Tool = {
  kind: "tool",
  id: "trim",
  name: "Trim",
  help:
    "Click the piece that is too much: it goes, back to what crosses it on both sides. What would go is shown " +
    "first. A drag takes every piece that it crosses. Everything cuts, unless just what is selected should.",
  drawing: ["M4 12 L9 12 M12 4 L12 20", "M14 12 L20 12"],
  example: { cut: [exampleCircle(0, 0, 25), exampleLine([-40, 0], [40, 0])], clicks: [[0, 25]] },
  parts: [
    { kind: "pick", name: "piece", label: "piece", takes: "curve" },
    { kind: "words", text: "back to" },
    cutterChoice("cutters", "cutting edges", "whatever crosses"),
  ],
  propose: (given, context) => {
    const { piece } = given.picks;
    if (!piece?.ref) return nothing;
    if (cutsNothing(given.choice("cutters"), context)) return refused(refuse("cutters-none"));
    const plan = planTrim(context.index, piece.ref, piece.at, cuttersOf(given.choice("cutters"), context));
    if (!plan.ok) return refused(plan);
    const { removed, whole, edit } = plan.value;
    const preview = removed.map((shape) => ({ shape, goes: true }));
    return {
      ways: [
        {
          preview,
          edit: () => done(edit),
          ...(whole ? { said: "Nothing crossed it, so the whole piece was removed." } : {}),
        },
      ],
      ...(whole ? { note: "Nothing crosses this piece: all of it goes" } : {}),
    };
  },
  drag: "path",
  dragged: (given, context, path): Proposal => {
    if (cutsNothing(given.choice("cutters"), context)) return refused(refuse("cutters-none"));
    const swept = trimAlong(context.index, path, cuttersOf(given.choice("cutters"), context));
    if (!swept.ok) return refused(swept);
    const { edit, goes, count, whole } = swept.value;
    const cut = count - whole;
    const words = [cut > 0 ? `${cut} trimmed` : "", whole > 0 ? `${whole} removed whole: nothing crossed them` : ""];
    return {
      ways: [
        {
          preview: goes.map((shape) => ({ shape, goes: true })),
          edit: () => done(edit),
          said: `${words.filter(Boolean).join(", ")}.`,
        },
      ],
      note: `${count} would go`,
    };
  },
};
