import { displayOf } from "@ash-edge/core/annotate";
import { styleOf, type Drawing } from "@ash-edge/core/drawing";
import type { Id } from "@ash-edge/core/numeric";
import type { PreviewShape } from "@ash-edge/tools";
import type { BenchState } from "../state/index.ts";
import { perAt } from "../annotated.ts";
import { paintLit } from "./paintAnnotations.ts";
import { stroke, type Canvas } from "./paintMass.ts";
import type { Palette } from "./palette.ts";
import { traceShape } from "./trace.ts";
import { inSight } from "./view.ts";

/** The id of what is not made yet. */
const NEW: Id = 0;

/** What making numbers true would move: as it was, and as it would be. */
const movesIn = (numbers: BenchState["numbers"], drawing: Drawing): readonly PreviewShape[] | undefined => {
  const look = numbers?.of === drawing && numbers.asked.length > 0 ? numbers.found?.look : undefined;
  if (!look?.ok) return undefined;
  const { comes, goes } = look.shapes;
  return [...goes.map((shape) => ({ shape, goes: true })), ...comes.map((shape) => ({ shape }))];
};

export const paintPreview = (
  canvas: Canvas,
  { hand: { proposal }, view: { now: view, size }, tidying, numbers, history: { drawing } }: BenchState,
  palette: Palette,
): void => {
  const made = proposal?.ways[proposal.which]?.annotations;
  if (made) {
    const per = perAt(drawing, view.scale);
    const displays = made.map((one) => displayOf(drawing, { ...one, id: NEW }, styleOf(drawing), per));
    paintLit(canvas, displays, view, palette.ember, 1.4);
  }
  const preview = proposal?.ways[proposal.which]?.preview ?? tidying?.preview ?? movesIn(numbers, drawing);
  if (!preview) return;
  const box = inSight(view, size);
  const goes = preview.filter((one) => one.goes);
  if (goes.length > 0)
    for (const style of [
      { colour: palette.board, width: 4, dash: [] },
      { colour: palette.ember, width: 2.2, dash: [5, 4] },
    ])
      stroke(canvas, style, () => goes.forEach(({ shape }) => traceShape(canvas, view, shape, box)));
  canvas.beginPath();
  for (const { shape, fill } of preview) if (fill) traceShape(canvas, view, shape, box);
  canvas.globalAlpha = 0.18;
  canvas.fillStyle = palette.ember;
  canvas.fill("evenodd");
  canvas.globalAlpha = 1;
  stroke(canvas, { colour: palette.ember, width: 1.8, dash: [] }, () =>
    preview.forEach(({ shape, goes: gone }) => !gone && traceShape(canvas, view, shape, box)),
  );
};
