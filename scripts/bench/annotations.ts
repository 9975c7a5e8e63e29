import { displaysOf, unitsPerPaper } from "@ash-edge/core/annotate";
import { applyEdit, newDrawing, PROFILE_LAYER, styleOf, type Drawing } from "@ash-edge/core/drawing";
import { changeProperty, draftEdit } from "@ash-edge/core/edits";
import { race, say } from "./report.ts";

/** 20 000 circles and lines, and 2 000 dimensions on them. */
const dimensioned = (): { readonly drawing: Drawing; readonly ids: readonly number[] } => {
  const start = newDrawing("mm");
  const draft = draftEdit(start, "Draw", "draw");
  const ids = Array.from({ length: 20_000 }, (_, i) => {
    const [x, y] = [(i % 200) * 10, Math.floor(i / 200) * 10];
    return i % 2 === 0
      ? draft.add({ kind: "circle", centre: { x, y }, radius: 3 }, PROFILE_LAYER)
      : draft.add({ kind: "piece", a: { x, y }, b: { x: x + 7, y: y + 3 }, bulge: 0 }, PROFILE_LAYER);
  });
  const drawn = applyEdit(start, draft.finish());
  const notes = draftEdit(drawn, "Dimension", "dimension");
  for (let i = 0; i < 2000; i++) {
    const id = notes.newId();
    const of = ids[10 * i + (i % 2)]!;
    const kind = i % 2 === 0 ? "diameter" : "linear";
    notes.set("annotation", id, { id, kind, refs: [{ id: of }], at: { x: 0, y: 5 } });
  }
  return { drawing: applyEdit(drawn, notes.finish()), ids };
};

/** What an edit beside many dimensions costs: carrying them, and drawing anew what changed. */
export const annotations = (): void => {
  const { drawing, ids } = dimensioned();
  const style = styleOf(drawing);
  let now = drawing;
  let turn = 0;
  // one after the other: drawn at another zoom everything would be drawn anew for the edit, too
  const edited = race({
    "a size changed: carried, and what it touched drawn anew": () => {
      const made = changeProperty(now, [ids[20 * (turn % 1000)]!], "radius", 2 + (turn++ % 9) / 10);
      if (!made.ok) throw new Error(made.refusal.code);
      now = applyEdit(now, made.value);
      displaysOf(now, style, unitsPerPaper(now, style));
    },
  });
  const drawn = race({
    "all drawn anew, as at another zoom": () => displaysOf(now, style, 1 + (turn++ % 7) / 100),
  });
  say("\n## 2 000 dimensions on 20 000 curves\n\n| | median ms |\n| --- | ---: |");
  for (const [name, time] of Object.entries({ ...edited, ...drawn })) say(`| ${name} | ${time.toFixed(1)} |`);
};
