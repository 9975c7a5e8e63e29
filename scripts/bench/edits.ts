import {
  applyEdit,
  curveAt,
  drawingFromRows,
  entitiesOf,
  newDrawing,
  PROFILE_LAYER,
  type Edit,
  type Entity,
  type Ref,
} from "@ash-edge/core/drawing";
import {
  copyEntities,
  draftEdit,
  freeSide,
  mirrorEntities,
  planTrim,
  shiftPiece,
  stretch,
  reroundCorner,
  splitAt,
  takeApart,
  transformEntities,
} from "@ash-edge/core/edits";
import { curvePoint, moving } from "@ash-edge/core/geometry";
import { indexDrawing, picksAt, reindex, snapsAt } from "@ash-edge/core/look";
import type { Outcome } from "@ash-edge/core/numeric";
import { sheet } from "../../e2e/support/sheet.ts";
import { contours } from "./contours.ts";
import { race, say, table } from "./report.ts";

/** The first arc of a rounded rectangle. */
const roundedCorner = (entity: Entity): Ref => {
  if (entity.kind !== "chain") throw new Error("no chain");
  return { id: entity.id, vertex: entity.vertices.find(({ bulge }) => bulge !== 0)!.id };
};

/** Edits in great drawings, and finding things there. */
export const edits = (): void => {
  let drawing = newDrawing("mm");
  const draft = draftEdit(drawing, "Draw", "draw");
  for (const contour of contours)
    if (contour.kind === "circle")
      draft.add({ kind: "circle", centre: contour.centre, radius: contour.radius }, PROFILE_LAYER);
    else for (const { a, b, bulge } of contour.pieces) draft.add({ kind: "piece", a, b, bulge }, PROFILE_LAYER);
  drawing = applyEdit(drawing, draft.finish());
  const index = indexDrawing(drawing);
  const asMap = new Map([...Array(drawing.entity.size).keys()].map((id) => [id, id]));
  let place = 0;
  const one = (): void => {
    const edit = draftEdit(drawing, "One", "one");
    edit.add({ kind: "circle", centre: { x: 0, y: 0 }, radius: 1 }, PROFILE_LAYER);
    applyEdit(drawing, edit.finish());
  };
  say(`\nA drawing of ${drawing.entity.size} curves:`);
  table("One edit applied", race({ ours: one, "a fresh Map of as many": () => new Map(asMap) }));
  const at = (): { x: number; y: number } => ({ x: (place = (place + 37.7) % 5900), y: (place * 7.3) % 2900 });
  const times = race({
    "index built": () => indexDrawing(drawing),
    "snap answered (mean of 100)": () => Array.from({ length: 100 }, () => snapsAt(index, at(), 2)),
    "pick answered (mean of 100)": () => Array.from({ length: 100 }, () => picksAt(index, at(), 2)),
  });
  say("\n## Finding things\n\n| | median ms |\n| --- | ---: |");
  for (const [name, time] of Object.entries(times))
    say(`| ${name} | ${(name.includes("100") ? time / 100 : time).toFixed(3)} |`);

  // one edit each in a sheet of 20 000 curves: planned, applied, and the index brought up to it
  const small = sheet(20_000);
  const on = drawingFromRows(JSON.parse(small.text), small.nextId);
  const found = indexDrawing(on);
  const ids = [...entitiesOf(on)];
  const chain = ids.find((entity) => entity.kind === "chain")!;
  const ring = ids.find((entity) => entity.kind === "circle")!;
  const pieceRef = { id: chain.id, vertex: chain.kind === "chain" ? chain.vertices[0]!.id : 0 };
  const start = chain.kind === "chain" ? chain.vertices[0]!.at : { x: 0, y: 0 };
  const edited = (plan: () => Outcome<Edit | { readonly edit: Edit }>): (() => unknown) => {
    return () => {
      const made = plan();
      if (!made.ok) throw new Error(made.refusal.code);
      const edit = "edit" in made.value ? made.value.edit : made.value;
      return reindex(found, applyEdit(on, edit));
    };
  };
  const steps = race({
    Trim: edited(() => planTrim(found, pieceRef, curvePoint(curveAt(on, pieceRef)!, 0.5))),
    Split: edited(() => splitAt(on, pieceRef, curvePoint(curveAt(on, pieceRef)!, 0.5))),
    Sharpen: edited(() => reroundCorner(on, roundedCorner(chain), undefined)),
    "Change fillet": edited(() => reroundCorner(on, roundedCorner(chain), 2)),
    "Handle: shift a side": edited(() => shiftPiece(found, { id: chain.id, vertex: chain.vertices[0]!.id }, 0.5, true)),
    "Handle: stretch a corner": edited(() =>
      stretch(on, [{ id: chain.id, vertex: chain.vertices[0]!.id }], { x: start.x - 0.4, y: start.y - 0.3 }, true),
    ),
    "Corner side": () => freeSide(on, chain.id),
    Move: edited(() => transformEntities(on, [ring.id], moving({ x: 1, y: 1 }), "Move", "move")),
    Mirror: edited(() => mirrorEntities(on, [chain.id], { at: start, angle: 1 }, true)),
    "Copy 100 times": edited(() =>
      copyEntities(
        on,
        [ring.id],
        Array.from({ length: 100 }, (_, i) => moving({ x: i, y: 1 })),
        "Copy",
        "copy",
      ),
    ),
    "Take apart": edited(() => takeApart(on, [chain.id])),
  });
  say(
    `\n## One edit in ${small.curves} curves, planned, applied and indexed\n\n| | median ms (limit 50) |\n| --- ` +
      "| ---: |",
  );
  for (const [name, time] of Object.entries(steps)) say(`| ${name} | ${time.toFixed(2)} |`);
};
