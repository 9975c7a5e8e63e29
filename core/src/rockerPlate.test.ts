import { describe, expect, it } from "vitest";
import { measureCallout } from "./callouts/index.ts";
import { planRelease } from "./checks/index.ts";
import { arcsByPicks, parallelsOf, tangentCircles, tangentLinesOfCircles } from "./construct/index.ts";
import {
  applyEdit,
  calloutsOf,
  curveAt,
  drawingText,
  entitiesOf,
  invertEdit,
  newDrawing,
  PROFILE_LAYER,
  LAYOUT_LAYER,
  type Drawing,
  type Edit,
} from "./drawing/index.ts";
import { clearLayout, draftEdit, joinPieces, planTrim } from "./edits/index.ts";
import { readDxf, writeDxf } from "./formats/dxf/index.ts";
import { carrierOf } from "./geometry/index.ts";
import { indexDrawing } from "./look/index.ts";
import { readTypedValue } from "./numeric/index.ts";
import { profileOf } from "./profile/index.ts";

const typed = (text: string): number => {
  const read = readTypedValue(text, { unit: "in", expects: "length", kinds: true });
  if (!read.ok) throw new Error(read.refusal.code);
  return read.value.value;
};

/**
 * The rocker plate of the demo: two bosses, an outer tangent line above, a full-bellied arc below that both lie inside.
 */
describe("the rocker plate, made with the core alone", () => {
  const centres = typed("6-5/8");
  const [big, small, belly] = [typed("2-1/4") / 2, typed("1-1/2") / 2, typed("14")];
  const edits: Edit[] = [];
  let drawing: Drawing = newDrawing("in", [{ kind: "centres", value: centres, name: "centres" }]);
  const start = drawingText(drawing);
  const make = (edit: Edit): void => {
    edits.push(edit);
    drawing = applyEdit(drawing, edit);
  };
  const addCircle = (x: number, radius: number): number => {
    const draft = draftEdit(drawing, "Circle", "circle");
    const id = draft.add({ kind: "circle", centre: { x, y: 0 }, radius }, PROFILE_LAYER);
    make(draft.finish());
    return id;
  };
  const trimAt = (id: number, x: number, y: number): void => {
    const plan = planTrim(indexDrawing(drawing), { id }, { x, y }, "cut");
    if (!plan.ok) throw new Error(plan.refusal.code);
    make(plan.value.edit);
  };

  it("comes out as one closed contour and two holes, true to closed formulas", () => {
    const upright = [...entitiesOf(drawing)].find((entity) => entity.kind === "endless" && entity.angle > 1)!;
    const parallel = parallelsOf(curveAt(drawing, { id: upright.id })!, { x: 3, y: 0 }, centres, 1);
    if (!parallel.ok) throw new Error();
    const draft = draftEdit(drawing, "Parallel", "parallel");
    const line = draft.add(parallel.value[0]!, LAYOUT_LAYER);
    draft.link(calloutsOf(drawing)[0]!.id, [{ id: upright.id }, { id: line }]);
    make(draft.finish());
    const [one, other] = [addCircle(0, big), addCircle(centres, small)];
    addCircle(0, typed("1-3/16d") / 2);
    addCircle(centres, typed("5/8") / 2);

    const above = tangentLinesOfCircles(
      { centre: { x: 0, y: 0 }, radius: big },
      { centre: { x: centres, y: 0 }, radius: small },
    );
    const [a, b] = [one, other].map((id) => carrierOf(curveAt(drawing, { id })!)) as [never, never];
    const below = tangentCircles(a, b, belly);
    if (!above.ok || !below.ok) throw new Error();
    const tangents = draftEdit(drawing, "Tangents", "tangent");
    tangents.add({ kind: "piece", a: above.value[0]!.from, b: above.value[0]!.to, bulge: 0 }, PROFILE_LAYER);
    tangents.add(
      { kind: "piece", ...arcsByPicks(below.value, { x: -0.3, y: -big }, { x: centres + 0.2, y: -small })[0]! },
      PROFILE_LAYER,
    );
    make(tangents.finish());
    trimAt(one, big, 0);
    trimAt(other, centres - small, 0);
    const cleared = clearLayout(drawing);
    if (!cleared.ok) throw new Error();
    make(cleared.value);
    const joined = joinPieces(drawing);
    if (!joined.ok) throw new Error();
    expect(joined.value).toMatchObject({ contours: 1, chains: 0, pieces: 4 });
    make(joined.value.edit);

    const profile = profileOf(drawing);
    expect(profile.open).toEqual([]);
    expect(profile.contours.map(({ role, lines, arcs }) => [role, lines, arcs])).toEqual([
      ["outside", 1, 3],
      ["inside", 0, 0],
      ["inside", 0, 0],
    ]);

    // Length by the open belt over two pulleys (Machinery's Handbook): the tangent is √(d² - (R - r)²), leaning by
    // asin((R - r) / d).
    // The belly's centre by distances 14 - R and 14 - r from the bosses' centres (cosine rule).
    const d = centres;
    const lean = Math.asin((big - small) / d);
    const tangent = Math.sqrt(d * d - (big - small) ** 2);
    const [p, q] = [belly - big, belly - small];
    const atBig = Math.acos((d * d + p * p - q * q) / (2 * d * p)); // angle at the big centre, from the centre line
    const atSmall = Math.acos((d * d + q * q - p * p) / (2 * d * q));
    const bellySweep = Math.PI - atBig - atSmall;
    // touching points: above along the common normal at 90° - lean; below on the far side of the belly's centre
    const bigSweep = Math.PI + atBig - (Math.PI / 2 - lean);
    const smallSweep = Math.PI / 2 - lean + atSmall;
    const length = tangent + belly * bellySweep + big * bigSweep + small * smallSweep;
    expect(profile.contours[0]!.length).toBeCloseTo(length, 11);

    // Area by sectors: trapezium under the tangent, the boss sectors, and the belly's sector less the triangle of
    // centres.
    const triangle = (p * q * Math.sin(bellySweep)) / 2;
    const area =
      ((big + small) / 2) * tangent +
      (big * big * bigSweep) / 2 +
      (small * small * smallSweep) / 2 +
      (belly * belly * bellySweep) / 2 -
      triangle;
    expect(profile.contours[0]!.area).toBeCloseTo(area, 10);

    // the distance was called between two layout lines; it now stands between the holes' centres
    expect(measureCallout(drawing, calloutsOf(drawing)[0]!)).toMatchObject({ state: "true" });
  });

  it("is undone to the first byte and redone to the last", () => {
    const end = drawingText(drawing);
    const states = [drawing];
    for (const edit of [...edits].reverse()) states.unshift(applyEdit(states[0]!, invertEdit(edit)));
    expect(drawingText(states[0]!)).toBe(start);
    expect(drawingText(edits.reduce(applyEdit, states[0]!))).toBe(end);
  });

  it("is released as DXF and read back number for number", () => {
    const plan = planRelease(drawing);
    expect(plan.faults.filter(({ severity }) => severity !== "info")).toEqual([]);
    const read = readDxf(writeDxf(plan.contours, plan.unit));
    if (!read.ok) throw new Error(read.refusal.code);
    expect(read.value.unit).toBe("in");
    expect(read.value.shapes.map(({ kind, layer }) => [kind, layer])).toEqual([
      ["circle", "INSIDE"],
      ["circle", "INSIDE"],
      ["chain", "OUTSIDE"],
    ]);
    const chain = read.value.shapes[2]!;
    const polyline = plan.contours[2]!;
    if (chain.kind !== "chain" || polyline.kind !== "polyline") throw new Error();
    expect(chain.pieces).toEqual(polyline.pieces.map(({ a, b, bulge }) => ({ a, b, bulge })));
  });
});
