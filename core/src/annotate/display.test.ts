import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FIRST_STYLE, type Annotation, type AnnotationStyle } from "../drawing/annotation.ts";
import type { Callout } from "../drawing/callout.ts";
import { annotationsOf, calloutsOf, layerOf, newDrawing, type Drawing } from "../drawing/drawing.ts";
import { applyEdit } from "../drawing/edit.ts";
import { LAYOUT_LAYER, PROFILE_LAYER } from "../drawing/layer.ts";
import { DATUM, type Ref } from "../drawing/ref.ts";
import { copyEntities, draftEdit, mirrorEntities } from "../edits/index.ts";
import { boundsMeet, boundsOf, type Bounds } from "../geometry/bounds.ts";
import { cross, distance, dot, leftOf, subtract, type Point } from "../geometry/point.ts";
import { mirroring, moving, scaling, turning } from "../geometry/transform.ts";
import { signedAngle, toRadians, unitAt } from "../numeric/angle.ts";
import type { Shape } from "../shape/shape.ts";
import { givingWay } from "./declutter.ts";
import { dimensionOfCallout } from "./dimensionAll.ts";
import { displayOf, type Display } from "./display.ts";
import { addAnnotations, type NewAnnotation } from "./editAnnotations.ts";
import { textWidth } from "./letters.ts";
import { measureAnnotation } from "./measure.ts";
import { annotationsLike } from "./picking.ts";
import { displaysOf } from "./shown.ts";
import { calledAt, placedAt, runOf, withCallout } from "./placing.ts";
import { lineEnds } from "./straight.ts";
import { textCorners, type Drawn, type DrawnText } from "./pen.ts";

/** One drawing unit is one millimetre of paper here. */
const PER = 1;

/** A drawing of shapes on the profile layer, with the ids that they have. */
const drawn = (...shapes: readonly Shape[]): readonly [Drawing, readonly number[]] => {
  const start = newDrawing("mm");
  const draft = draftEdit(start, "Draw", "draw");
  const ids = shapes.map((shape) => draft.add(shape, PROFILE_LAYER));
  return [applyEdit(start, draft.finish()), ids];
};
const line = (ax: number, ay: number, bx: number, by: number): Shape => ({
  kind: "piece",
  a: { x: ax, y: ay },
  b: { x: bx, y: by },
  bulge: 0,
});
const circle = (x: number, y: number, radius: number): Shape => ({ kind: "circle", centre: { x, y }, radius });

const added = (drawing: Drawing, ...all: readonly NewAnnotation[]): Drawing => {
  const edit = addAnnotations(drawing, all, "Dimension", "dimension");
  if (!edit.ok) throw new Error(edit.refusal.code);
  return applyEdit(drawing, edit.value);
};
const shown = (drawing: Drawing, style: Partial<AnnotationStyle> = {}, which = 0): Display =>
  displayOf(drawing, annotationsOf(drawing)[which]!, { ...FIRST_STYLE, ...style }, PER);
const textsOf = ({ drawn: all }: Display): readonly DrawnText[] => all.filter((one) => one.kind === "text");
const strokesOf = ({ drawn: all }: Display): readonly (readonly [Point, Point])[] =>
  all.flatMap((one) => (one.kind === "stroke" ? one.pieces.map(({ a, b }) => [a, b] as const) : []));
const headsOf = ({ drawn: all }: Display): readonly Extract<Drawn, { kind: "terminator" }>[] =>
  all.filter((one) => one.kind === "terminator");

const linear = (refs: readonly Ref[], y: number, rest: Partial<NewAnnotation> = {}): NewAnnotation => ({
  kind: "linear",
  refs,
  at: { x: 0, y },
  ...rest,
});

describe("what a dimension shows", () => {
  // closed forms: lengths by Pythagoras, angles by the arc tangent, arcs by radius and sweep
  const [drawing, ids] = drawn(
    line(0, 0, 120, 0),
    line(0, 0, 30, 40),
    line(10, 50, 90, 50),
    circle(200, 0, 7),
    circle(260, 80, 7),
    { kind: "piece", a: { x: 300, y: 0 }, b: { x: 340, y: 0 }, bulge: 1 },
  );
  const [level, slope, above, hole, other, half] = ids.map((id): Ref => ({ id })) as [Ref, Ref, Ref, Ref, Ref, Ref];
  const end = (ref: Ref, place: "start" | "end" | "centre"): Ref => ({ ...ref, place });
  it.each<readonly [string, NewAnnotation, string]>([
    ["an edge", linear([slope], 10), "50"],
    ["an edge, level", linear([slope], 10, { angle: 0 }), "30"],
    ["an edge, upright", linear([slope], 10, { angle: Math.PI / 2 }), "40"],
    ["an edge, at 45°", linear([slope], 10, { angle: Math.PI / 4 }), "~49.497"], // 70 / √2
    ["two places", linear([end(level, "end"), end(slope, "end")], 10), "~98.489"], // √(90² + 40²)
    ["two parallel edges", linear([level, above], 10), "50"],
    ["a place and an edge", linear([end(slope, "end"), level], 10), "40"],
    ["centres", linear([end(hole, "centre"), end(other, "centre")], 10), "100"],
    ["centres, upright", linear([end(hole, "centre"), end(other, "centre")], 10, { angle: Math.PI / 2 }), "80"],
    ["an angle", { kind: "angle", refs: [level, slope], at: { x: 20, y: 10 } }, "~53.13°"], // atan(4/3)
    ["its supplement", { kind: "angle", refs: [level, slope], at: { x: -20, y: 10 } }, "~126.87°"],
    ["across from it", { kind: "angle", refs: [level, slope], at: { x: -20, y: -10 } }, "~53.13°"],
    ["the fourth", { kind: "angle", refs: [level, slope], at: { x: 20, y: -10 } }, "~126.87°"],
    [
      "three places",
      { kind: "angle", refs: [end(level, "start"), end(level, "end"), end(slope, "end")], at: { x: 10, y: 5 } },
      "~53.13°",
    ],
    [
      "three places, the other way round",
      { kind: "angle", refs: [end(level, "start"), end(level, "end"), end(slope, "end")], at: { x: -10, y: -5 } },
      "~306.87°",
    ],
    ["a radius", { kind: "radius", refs: [half], at: { x: 0, y: -40 } }, "R 20"],
    ["a diameter", { kind: "diameter", refs: [hole], at: { x: 20, y: 20 } }, "Ø 14"],
    ["several", { kind: "diameter", refs: [hole, other], at: { x: 20, y: 20 } }, "2 × Ø 14"],
    ["an arc", { kind: "arc length", refs: [half], at: { x: 0, y: -30 } }, "~62.832"], // 20 π
    ["an x", { kind: "ordinate", refs: [DATUM, end(other, "centre")], at: { x: 0, y: 30 } }, "260"],
    ["a y", { kind: "ordinate", refs: [DATUM, end(other, "centre")], at: { x: 30, y: 0 }, angle: Math.PI / 2 }, "80"],
  ])("%s", (_, annotation, text) => {
    const made = added(drawing, annotation);
    expect(textsOf(shown(made)).map((one) => one.text)).toEqual([text]);
    expect(shown(made).standing).toBe("plain");
  });

  it("writes numbers as the style says", () => {
    const [inches, [id]] = drawn(line(0, 0, 1.1875, 0));
    const inch = added({ ...inches, settings: newDrawing("in").settings }, linear([{ id: id! }], 1));
    const text = (style: Partial<AnnotationStyle>): string => textsOf(shown(inch, style))[0]!.text;
    expect(text({ decimals: 3 })).toBe("1.1875");
    expect(text({ decimals: 1 })).toBe("~1.19");
    expect(text({ denominator: 16 })).toBe("1 3/16");
    expect(text({ denominator: 8 })).toBe("~1 1/4");
    expect(text({ denominator: 64, dual: true, unit: true, decimals: 4 })).toBe("1 3/16 in [30.1625 mm]"); // × 25.4
    expect(text({ decimals: 4, zeros: true })).toBe("1.18750");
  });

  it.each<readonly [string, NewAnnotation, string]>([
    ["two equal places", linear([end(level, "start"), end(slope, "start")], 10), "same-point"],
    ["centres of concentric circles", linear([end(hole, "centre"), end(hole, "centre")], 10), "same-point"],
    ["edges that are not parallel", linear([level, slope], 10), "lines-not-parallel"],
    ["nothing that way", linear([level], 10, { angle: Math.PI / 2 }), "measures-nothing"],
    ["an angle of parallels", { kind: "angle", refs: [level, above], at: { x: 1, y: 1 } }, "lines-parallel"],
    ["a radius of a line", { kind: "radius", refs: [level], at: { x: 1, y: 1 } }, "not-round"],
    ["an arc length of a circle", { kind: "arc length", refs: [hole], at: { x: 1, y: 1 } }, "not-an-arc"],
    ["a note without words", { kind: "note", refs: [level], at: { x: 1, y: 1 }, text: " \n" }, "note-empty"],
    ["too many words", { kind: "note", refs: [], at: { x: 1, y: 1 }, text: "x".repeat(2001) }, "note-too-long"],
    ["a letter that is lacking", { kind: "note", refs: [], at: { x: 1, y: 1 }, text: "≥ 3" }, "letter-missing"],
    ["no bolt circle", { kind: "centre line", refs: [level, slope, above], at: { x: 0, y: 0 } }, "not-on-a-circle"],
  ])("refuses %s", (_, annotation, code) => {
    const edit = addAnnotations(drawing, [annotation], "Dimension", "dimension");
    expect(edit.ok ? "made" : edit.refusal.code).toBe(code);
  });
});

describe("what is called and shown", () => {
  it("an angle stands by the number that it shows, and is placed in the sector that its callout speaks of", () => {
    const [edges, ids] = drawn(line(0, 0, 100, 0), line(0, 0, 60, 80));
    const refs = ids.map((id): Ref => ({ id }));
    const start = draftEdit(edges, "Call", "call");
    const id = start.newId();
    const value = (Math.atan2(80, 60) * 180) / Math.PI;
    start.set("callout", id, { id, kind: "angle", value, name: "", links: refs });
    const drawing = applyEdit(edges, start.finish());
    const callout = calloutsOf(drawing)[0]!;
    const bare = dimensionOfCallout(drawing, callout);
    if (!bare.ok) throw new Error(bare.refusal.code);
    for (const place of [
      { x: 40, y: 20 },
      { x: -30, y: 25 },
      { x: -20, y: -9 },
      { x: 9, y: -30 },
    ]) {
      // the drafter's own choice of the sector is shown as it is, and takes the callout only where that speaks of it
      const own = withCallout(drawing, placedAt(drawing, { kind: "angle", refs, at: { x: 0, y: 0 } }, place));
      const shows = measureAnnotation(drawing, { ...own, id: 0 })!.most;
      expect(own.callout).toBe(Math.abs(shows - value) < 1e-6 ? id : undefined);
      const called = shown(added(drawing, calledAt(drawing, bare.value, callout, place)));
      expect([textsOf(called)[0]!.text, called.standing]).toEqual(["~53.13°", "true"]);
      // forced into the other sector it is off, whatever the ledger says of the edges
      const forced = shown(added(drawing, { ...bare.value, at: { x: -20, y: 20 } }));
      expect([textsOf(forced)[0]!.text, forced.standing]).toEqual(["~126.87°", "off"]);
    }
  });
});

describe("what a number may be off", () => {
  it("stands behind it: one text, or two stacked in smaller letters, neither over the other", () => {
    const [edge, [id]] = drawn(line(0, 0, 120, 0));
    const refs = [{ id: id! }];
    const called = (rest: Partial<Callout>): Display => {
      const draft = draftEdit(edge, "Call", "call");
      const callout = draft.newId();
      draft.set("callout", callout, { id: callout, kind: "length", value: 120, name: "", links: refs, ...rest });
      const drawing = applyEdit(edge, draft.finish());
      return shown(added(drawing, withCallout(drawing, linear(refs, 20))));
    };
    const words = (display: Display): readonly string[] => textsOf(display).map(({ text }) => text);
    expect(words(called({}))).toEqual(["120"]);
    expect(words(called({ tolerance: 0.1 }))).toEqual(["120", "±0.1"]);
    expect(words(called({ limits: { low: 0, high: 0.2 } }))).toEqual(["120", "+0.2", "0"]);
    expect(words(called({ limits: { low: -0.15, high: -0.05 }, reference: true }))).toEqual([
      "(120)",
      "−0.05",
      "−0.15",
    ]);
    expect(called({ value: 119.95, tolerance: 0.1 }).standing).toBe("within");
    expect(called({ value: 119 }).standing).toBe("off");
    for (const display of [called({ tolerance: 0.1 }), called({ limits: { low: -0.1, high: 0.2 } })]) {
      const boxes = textsOf(display).map(({ text, middle, height }) => {
        const half = textWidth(text, height) / 2;
        return {
          low: middle.x - half,
          high: middle.x + half,
          under: middle.y - height / 2,
          over: middle.y + height / 2,
        };
      });
      boxes.forEach((p, i) =>
        boxes.slice(i + 1).forEach((q) => {
          expect(p.high <= q.low || q.high <= p.low || p.under >= q.over || q.under >= p.over).toBe(true);
        }),
      );
    }
  });
});

describe("zoomed out", () => {
  it("no text is written over another: the graver of two stays, and all that have room", () => {
    const [holes, ids] = drawn(
      ...Array.from({ length: 60 }, (_, i) => circle((i % 10) * 9, Math.floor(i / 10) * 9, 2)),
    );
    const all = ids.map((id): NewAnnotation => ({ kind: "diameter", refs: [{ id }], at: { x: 3, y: 3 } }));
    const drawing = added(holes, ...all);
    for (const per of [0.05, 0.3, 1, 4]) {
      const displays = annotationsOf(drawing).map((one, i) => {
        const display = displayOf(drawing, one, FIRST_STYLE, per);
        return i === 47 ? { ...display, standing: "off" as const } : display;
      });
      const gone = givingWay(displays);
      const box = (display: Display): Bounds => boundsOf(textsOf(display).flatMap(textCorners));
      const kept = displays.filter(({ id }) => !gone.has(id));
      expect(gone.has(displays[47]!.id)).toBe(false);
      kept.forEach((p, i) => kept.slice(i + 1).forEach((q) => expect(boundsMeet(box(p), box(q))).toBe(false)));
      // what gave way had no room
      for (const one of displays.filter(({ id }) => gone.has(id)))
        expect(kept.some((other) => boundsMeet(box(one), box(other)))).toBe(true);
      if (per === 0.05) expect(gone.size).toBe(0);
      if (per === 4) expect(kept.length).toBeLessThan(20);
    }
  });
});

describe("a run of dimensions", () => {
  it("goes one after another on one line, or all from the first, line above line, each place once", () => {
    const [holes, ids] = drawn(circle(0, 0, 3), circle(50, 4, 3), circle(20, -2, 3), circle(20, 9, 3));
    const refs = ids.map((id): Ref => ({ id, place: "centre" }));
    const run = (kind: "chain" | "baseline", side: 1 | -1): readonly (readonly [number, number])[] =>
      runOf(holes, refs, kind, 0, { x: 7, y: side * 30 }, 8).map((one) => {
        const made = { ...one, id: 0 };
        return [measureAnnotation(holes, made)!.most, lineEnds(holes, made)![0].y] as const;
      });
    const near = (...rows: readonly (readonly [number, number])[]): unknown =>
      rows.map((row) => row.map((value) => expect.closeTo(value, 9) as unknown));
    expect(run("chain", 1)).toEqual(near([20, 30], [30, 30]));
    expect(run("baseline", 1)).toEqual(near([20, 30], [50, 38]));
    expect(run("baseline", -1)).toEqual(near([20, -30], [50, -38]));
  });
});

describe("how a dimension is drawn (ISO 129-1; its clauses from memory)", () => {
  const [drawing, [edge]] = drawn(line(0, 0, 120, 0));
  const dimensioned = added(drawing, linear([{ id: edge! }], 20));

  it("extension lines leave a gap at what is measured and pass the dimension line (5.4)", () => {
    for (const [gap, overhang] of [
      [1, 2],
      [0, 3],
    ] as const) {
      const uprights = strokesOf(shown(dimensioned, { gap, overhang })).filter(([a, b]) => a.x === b.x);
      expect(uprights).toEqual(
        [0, 120].map((x) => [
          { x, y: gap },
          { x, y: 20 + overhang },
        ]),
      );
    }
  });

  it("no extension line runs along an edge that the line reaches itself; past its end one starts there (5.4)", () => {
    const [edges, [low, high]] = drawn(line(0, 0, 60, 0), line(0, 40, 100, 40));
    const between = (x: number): readonly (readonly [Point, Point])[] => {
      const placed = placedAt(edges, linear([{ id: low! }, { id: high! }], 0), { x, y: 20 });
      return strokesOf(shown(added(edges, placed))).filter(([a, b]) => a.x !== b.x);
    };
    expect(between(20)).toEqual([]);
    const [{ gap, overhang }] = [FIRST_STYLE];
    expect(between(80)).toEqual([
      [
        { x: 60 + gap, y: 0 },
        { x: 80 + overhang, y: 0 },
      ],
    ]);
    expect(between(-10)).toHaveLength(2);
  });

  it("arrows are closed, filled, 15° wide, as long as lettering is high, and touch their lines (5.5)", () => {
    const heads = headsOf(shown(dimensioned));
    expect(heads.map(({ closed, filled }) => closed && filled)).toEqual([true, true]);
    const tips = heads.map(({ points }) => points[1]!);
    expect(tips).toEqual(
      [
        { x: 0, y: 20 },
        { x: 120, y: 20 },
      ].map(({ x, y }) => ({ x: expect.closeTo(x), y })),
    );
    for (const { points } of heads) {
      const [a, tip, b] = points as [Point, Point, Point];
      const [u, v] = [subtract(a, tip), subtract(b, tip)];
      expect(Math.acos(dot(u, v) / distance(a, tip) / distance(b, tip))).toBeCloseTo(toRadians(15), 9);
      expect(Math.abs((u.x + v.x) / 2)).toBeCloseTo(FIRST_STYLE.height, 9);
    }
    expect(headsOf(shown(dimensioned, { arrow: "open" })).every(({ closed }) => !closed)).toBe(true);
    expect(headsOf(shown(dimensioned, { arrow: "tick" })).every(({ points }) => points.length === 2)).toBe(true);
  });

  it("text stands above its line, in the middle, and is read from below or from the right (7.1)", () => {
    const [text] = textsOf(shown(dimensioned));
    expect(text).toMatchObject({ angle: 0, height: 3.5, middle: { x: 60 } });
    expect(text!.middle.y - text!.height / 2).toBeGreaterThan(20);
    expect(text!.middle.y - text!.height / 2).toBeLessThan(20 + text!.height);
    for (let degrees = -180; degrees <= 360; degrees += 7.5) {
      const { x, y } = unitAt(toRadians(degrees));
      const [turned, [id]] = drawn(line(0, 0, 120 * x, 120 * y));
      for (const off of [20, -20]) {
        const [one] = textsOf(shown(added(turned, linear([{ id: id! }], off))));
        expect(one!.angle).toBeGreaterThan(-Math.PI / 2 + 1e-9);
        expect(one!.angle).toBeLessThanOrEqual(Math.PI / 2 + 1e-9);
        expect(Math.sin(one!.angle - toRadians(degrees))).toBeCloseTo(0, 9);
        // above the line as it is read
        const middle = { x: 60 * x - off * y, y: 60 * y + off * x };
        expect(dot(subtract(one!.middle, middle), leftOf(unitAt(one!.angle)))).toBeGreaterThan(one!.height / 2);
      }
    }
  });

  it("where there is no room arrows go outside, then the text, and neither covers the other (5.5, 7.2)", () => {
    const at = (length: number): Display => {
      const [short, [id]] = drawn(line(0, 0, length, 0));
      return shown(added(short, linear([{ id: id! }], 20)));
    };
    const inside = (display: Display): boolean => headsOf(display)[0]!.points[0]!.x > headsOf(display)[0]!.points[1]!.x;
    expect([120, 14, 11, 2].map((length) => inside(at(length)))).toEqual([true, true, false, false]);
    expect(textsOf(at(11))[0]!.middle.x).toBe(5.5);
    expect(textsOf(at(2))[0]!.middle.x).toBeGreaterThan(2);
    for (const length of [200, 60, 20, 12.5, 11, 8, 4, 1, 0.1]) {
      const display = at(length);
      const [text] = textsOf(display);
      const box = textCorners(text!);
      for (const { points } of headsOf(display))
        for (const { x, y } of points)
          expect(x > box[0]!.x && x < box[2]!.x && y > text!.middle.y - text!.height / 2 && y < box[2]!.y).toBe(false);
      // the line runs under all of the text
      const level = strokesOf(display).filter(([a, b]) => a.y === 20 && b.y === 20);
      expect(Math.max(...level.map(([, b]) => b.x))).toBeGreaterThanOrEqual(
        text!.middle.x + textWidth(text!.text, text!.height) / 2 - 1e-9,
      );
    }
  });

  it("an angle's arrows lie on its arc, R points to the centre, a leader touches the edge of a hole", () => {
    const [made, [a, b, hole]] = drawn(line(0, 0, 100, 0), line(0, 0, 60, 80), circle(200, 50, 10));
    const angle = shown(added(made, { kind: "angle", refs: [{ id: a! }, { id: b! }], at: { x: 45, y: 20 } }));
    for (const { points } of headsOf(angle))
      expect(Math.hypot(points[1]!.x, points[1]!.y)).toBeCloseTo(Math.hypot(45, 20), 9);
    const size = shown(added(made, { kind: "diameter", refs: [{ id: hole! }], at: { x: 30, y: 40 } }));
    const [tip] = headsOf(size).map(({ points }) => points);
    expect(tip![1]).toEqual({ x: expect.closeTo(206, 9), y: expect.closeTo(58, 9) }); // 3 : 4 : 5
    const back = subtract({ x: (tip![0]!.x + tip![2]!.x) / 2, y: (tip![0]!.y + tip![2]!.y) / 2 }, tip![1]!);
    expect(cross(back, { x: 3, y: 4 })).toBeCloseTo(0, 9);
    const note = shown(added(made, { kind: "note", refs: [{ id: hole! }], at: { x: 60, y: 0 }, text: "ream" }));
    expect(distance(headsOf(note)[0]!.points[1]!, { x: 200, y: 50 })).toBeCloseTo(10, 9);
  });
});

/** A layer of it hidden. */
const hidden = (drawing: Drawing, id: number): Drawing => {
  const draft = draftEdit(drawing, "Hide", "layers");
  draft.set("layer", id, { ...layerOf(drawing, id)!, shown: false });
  return applyEdit(drawing, draft.finish());
};

describe("what hangs on hidden layers", () => {
  it("is hidden with them, and selected with nothing; not what hangs on something else as well, or on nothing", () => {
    const [bare, [edge, hole]] = drawn(line(0, 0, 40, 0), circle(20, 20, 5));
    const draft = draftEdit(bare, "Draw", "draw");
    const aside = draft.add(line(0, 40, 40, 40), LAYOUT_LAYER);
    const drawing = added(
      applyEdit(bare, draft.finish()),
      linear([{ id: edge! }], 10),
      { kind: "diameter", refs: [{ id: hole! }], at: { x: 20, y: 10 } },
      { kind: "ordinate", refs: [DATUM, { id: hole!, place: "centre" }], at: { x: 0, y: 40 } },
      linear([{ id: aside }], 10),
      linear([{ id: edge! }, { id: aside }], 10),
      { kind: "note", refs: [], at: { x: 80, y: 0 }, text: "free" },
    );
    const [first, ...rest] = annotationsOf(drawing).map(({ id }) => id);
    const seen = (one: Drawing): readonly number[] => displaysOf(one, FIRST_STYLE, PER).map(({ id }) => id);
    expect(seen(drawing)).toEqual([first, ...rest]);
    const without = hidden(drawing, PROFILE_LAYER);
    expect(seen(without)).toEqual(rest.slice(2));
    expect(annotationsLike(without, rest[4]!, "layer")).toEqual(rest.slice(2));
    expect(seen(hidden(without, LAYOUT_LAYER))).toEqual([rest[4]]);
  });
});

describe("what goes with its geometry", () => {
  const [plate, ids] = drawn(line(0, 0, 80, 60), line(80, 60, 80, 0), circle(30, -20, 6), {
    kind: "piece",
    a: { x: 0, y: 0 },
    b: { x: 40, y: 0 },
    bulge: 0.4,
  });
  const [slope, upright, hole, arc] = ids.map((id): Ref => ({ id })) as [Ref, Ref, Ref, Ref];
  const all: readonly NewAnnotation[] = [
    linear([slope], 15),
    linear([slope], -15, { angle: 0, at: { x: 9, y: -15 } }),
    linear([{ ...hole, place: "centre" }, upright], 12),
    { kind: "angle", refs: [slope, upright], at: { x: -20, y: 6 } },
    { kind: "radius", refs: [arc], at: { x: 3, y: -50 } },
    { kind: "diameter", refs: [hole], at: { x: 14, y: 9 } },
    { kind: "arc length", refs: [arc], at: { x: 2, y: -60 } },
    { kind: "note", refs: [{ ...slope, place: "end" }], at: { x: 20, y: 12 }, text: "sharp\nedge" },
    { kind: "centre mark", refs: [hole], at: { x: 0, y: 0 } },
    { kind: "centre line", refs: [slope, upright], at: { x: 0, y: 0 } },
    { kind: "thread mark", refs: [hole], at: { x: 0, y: 0 }, size: 16 },
  ];
  const start = added(plate, ...all);
  const measured = (drawing: Drawing, one: Annotation): number | undefined => measureAnnotation(drawing, one)?.most;

  it("copied by any similarity it measures the copy, times its scale, and reads as before", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          moving({ x: 1e5, y: 7 }),
          turning({ x: 3, y: 4 }, 2.1),
          mirroring({ x: 5, y: 0 }, 0.7),
          scaling({ x: 1, y: 1 }, 0.01),
          mirroring({ x: 100, y: 0 }, Math.PI / 2),
        ),
        (by) => {
          const copied = copyEntities(start, ids, [by], "Copy", "copy");
          const after = copied.ok ? applyEdit(start, copied.value) : start;
          const [was, made] = [annotationsOf(start), annotationsOf(after).slice(all.length)];
          expect(made.map(({ kind }) => kind)).toEqual(all.map(({ kind }) => kind));
          const scale = Math.hypot(by.a, by.b);
          made.forEach((one, i) => {
            const [own, now] = [measured(start, was[i]!), measured(after, one)];
            const factor = one.kind === "angle" ? 1 : scale;
            if (own === undefined) expect(now).toBeUndefined();
            else expect(now).toBeCloseTo(own * factor, 6);
            for (const { angle } of textsOf(displayOf(after, one, FIRST_STYLE, PER)))
              expect(Math.abs(signedAngle(angle))).toBeLessThanOrEqual(Math.PI / 2 + 1e-9);
          });
        },
      ),
    );
  });

  it("mirrored and mirrored back it is drawn as it was", () => {
    const axis = { at: { x: 11, y: -3 }, angle: 0.4 };
    const flip = (drawing: Drawing): Drawing => {
      const made = mirrorEntities(drawing, ids, axis, false);
      return made.ok ? applyEdit(drawing, made.value.edit) : drawing;
    };
    const there = flip(start);
    const back = flip(there);
    annotationsOf(start).forEach((one, i) => {
      const [was, is] = [one, annotationsOf(back)[i]!].map((own, k) =>
        displayOf(k === 0 ? start : back, own, FIRST_STYLE, PER),
      );
      textsOf(was!).forEach((text, k) => expect(distance(text.middle, textsOf(is!)[k]!.middle)).toBeLessThan(1e-6));
      expect(displayOf(there, annotationsOf(there)[i]!, FIRST_STYLE, PER).standing).toBe("plain");
    });
  });
});
