import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  applyEdit,
  calloutsOf,
  drawingText,
  fromPicture,
  invertEdit,
  newDrawing,
  ontoPicture,
} from "../drawing/index.ts";
import { distance, type Point } from "../geometry/point.ts";
import { between, points } from "../testing/placements.ts";
import {
  changePicture,
  dropPlan,
  homographyOf,
  invertHomography,
  levelPicture,
  markPlan,
  movePicture,
  pictureOf,
  planLineAt,
  planStraighten,
  scalePicture,
  straightenedPicture,
  straightenRows,
  throughHomography,
} from "./index.ts";

const photo = { blob: "photo", width: 4000, height: 3000 };
const angleIn = (drawing: Parameters<typeof pictureOf>[0], p: Point, q: Point): number => {
  const picture = pictureOf(drawing, "photo")!;
  const [a, b] = [fromPicture(picture, p), fromPicture(picture, q)];
  return Math.atan2(b.y - a.y, b.x - a.x);
};
/**
 * A camera: the plane turned about both axes and seen from `away`, in pixels of a 4000 by 3000 photo (pinhole
 * projection).
 */
const camera = (tilt: number, turn: number, away: number) => {
  return ({ x, y }: Point): Point => {
    const [cx, sx, cy, sy] = [Math.cos(tilt), Math.sin(tilt), Math.cos(turn), Math.sin(turn)];
    const [px, py, pz] = [x * cy, y * cx + x * sy * sx, away + y * sx - x * sy * cx];
    return { x: 2000 + (3000 * px) / pz, y: 1500 + (3000 * py) / pz };
  };
};
const views = fc.record({ tilt: between(-0.6, 0.6), turn: between(-0.6, 0.6), away: between(2600, 5000) });

describe("a perspective map", () => {
  it("takes four points to four others, back again, and keeps cross ratios (projective invariant)", () => {
    fc.assert(
      fc.property(views, points(600), points(600), ({ tilt, turn, away }, p, step) => {
        const see = camera(tilt, turn, away);
        const corners = [
          { x: -500, y: -400 },
          { x: 500, y: -400 },
          { x: 500, y: 400 },
          { x: -500, y: 400 },
        ];
        const h = homographyOf(corners.map(see), corners)!;
        corners.forEach((corner) => expect(distance(throughHomography(h, see(corner)), corner)).toBeLessThan(1e-7));
        expect(distance(throughHomography(h, see(p)), p)).toBeLessThan(1e-6);
        expect(distance(throughHomography(invertHomography(h)!, p), see(p))).toBeLessThan(1e-6);
        fc.pre(Math.hypot(step.x, step.y) > 50);
        const [a, b, c, d] = [0, 0.2, 0.5, 1].map((t) =>
          throughHomography(h, { x: 1500 + t * step.x, y: 1400 + t * step.y }),
        );
        const ratio = (distance(a!, c!) * distance(b!, d!)) / (distance(b!, c!) * distance(a!, d!));
        expect(ratio).toBeCloseTo((0.5 * 0.8) / (0.3 * 1), 6);
      }),
    );
  });
});

describe("straightening a photo", () => {
  it("gives true lengths on the plane, however the corners are clicked round it", () => {
    fc.assert(
      fc.property(
        views,
        fc.nat(3),
        fc.boolean(),
        points(350),
        points(350),
        ({ tilt, turn, away }, first, back, p, q) => {
          const see = camera(tilt, turn, away);
          const ring = [
            { x: -500, y: -400 },
            { x: 500, y: -400 },
            { x: 500, y: 400 },
            { x: -500, y: 400 },
          ];
          const order = [0, 1, 2, 3].map((i) => ring[(first + (back ? 4 - i : i)) % 4]!);
          const [width, height] = [distance(order[0]!, order[1]!), distance(order[1]!, order[2]!)];
          const corners = order.map(see) as [Point, Point, Point, Point];
          const plan = planStraighten(corners, width, height, photo);
          if (!plan.ok) throw new Error(plan.refusal.code);
          const [a, b] = [p, q].map((one) => throughHomography(plan.value.fromPhoto, see(one)));
          expect(Math.abs(distance(a!, b!) * plan.value.scale - distance(p, q))).toBeLessThan(1e-6);
          expect(distance(throughHomography(plan.value.toPhoto, a!), see(p))).toBeLessThan(1e-6);
          // the picture keeps the way the photo was held: right stays right to within an eighth of a turn, and nothing
          // is mirrored
          const east = throughHomography(plan.value.fromPhoto, see({ x: 100, y: 0 }));
          const north = throughHomography(plan.value.fromPhoto, see({ x: 0, y: 100 }));
          const middle = throughHomography(plan.value.fromPhoto, see({ x: 0, y: 0 }));
          expect(east.x - middle.x).toBeGreaterThan(Math.abs(east.y - middle.y));
          expect(north.y - middle.y).toBeGreaterThan(0);
          expect(Math.max(plan.value.width, plan.value.height)).toBeLessThanOrEqual(6001);
        },
      ),
    );
  });

  it.each([
    [
      "three in a line",
      [
        [0, 0],
        [1000, 0],
        [2000, 1],
        [0, 1000],
      ],
      "corners-in-line",
    ],
    [
      "two together",
      [
        [0, 0],
        [5, 5],
        [2000, 1500],
        [0, 1000],
      ],
      "corners-in-line",
    ],
    [
      "crossing over",
      [
        [0, 0],
        [2000, 1500],
        [2000, 0],
        [0, 1500],
      ],
      "corners-crossed",
    ],
  ] as const)("refuses corners %s", (_, corners, code) => {
    const places = corners.map(([x, y]) => ({ x, y })) as unknown as [Point, Point, Point, Point];
    const plan = planStraighten(places, 100, 80, photo);
    expect(plan.ok ? "planned" : plan.refusal.code).toBe(code);
  });
  it("refuses sides without length", () => {
    const corners = [
      { x: 0, y: 0 },
      { x: 900, y: 0 },
      { x: 900, y: 900 },
      { x: 0, y: 900 },
    ] as [Point, Point, Point, Point];
    for (const [w, h] of [
      [0, 5],
      [5, -1],
      [NaN, 5],
    ] as const)
      expect(planStraighten(corners, w, h, photo).ok).toBe(false);
  });

  it("moves pixels where they belong: a bright spot is bright at its place in the straight picture", () => {
    const small = { width: 400, height: 300, data: new Uint8ClampedArray(400 * 300 * 4).fill(30) };
    const corners = [
      { x: 80, y: 60 },
      { x: 330, y: 40 },
      { x: 360, y: 250 },
      { x: 50, y: 220 },
    ] as [Point, Point, Point, Point];
    const plan = planStraighten(corners, 200, 120, { width: 400, height: 300 });
    if (!plan.ok) throw new Error(plan.refusal.code);
    const spot = { x: 200, y: 140 };
    for (let x = -3; x <= 3; x++)
      for (let y = -3; y <= 3; y++)
        small.data.fill(250, 4 * ((spot.y + y) * 400 + spot.x + x), 4 * ((spot.y + y) * 400 + spot.x + x) + 4);
    const { width, height } = plan.value;
    const target = { width, height, data: new Uint8ClampedArray(width * height * 4) };
    straightenRows(small, plan.value, target, 0, height);
    const at = throughHomography(plan.value.fromPhoto, { x: spot.x + 0.5, y: spot.y + 0.5 });
    expect(target.data[4 * (Math.floor(at.y) * width + Math.floor(at.x))]).toBeGreaterThan(240);
    expect(target.data[4 * (Math.floor(at.y + 20) * width + Math.floor(at.x))]).toBeLessThan(60);
  });
});

describe("a picture under the drawing", () => {
  it("is scaled by a length about its first place, levelled by two, and every step can be taken back", () => {
    fc.assert(
      fc.property(points(1500), points(1500), between(1, 5000), between(0.01, 3), (p, q, length, turn) => {
        fc.pre(distance(p, q) > 10);
        const empty = newDrawing("mm");
        const scaled = scalePicture(empty, photo, p, q, length);
        if (!scaled.ok) throw new Error(scaled.refusal.code);
        const one = applyEdit(empty, scaled.value);
        const lies = pictureOf(one, "photo")!;
        expect(fromPicture(lies, p)).toMatchObject({
          x: expect.closeTo(0, 6) as number,
          y: expect.closeTo(0, 6) as number,
        });
        expect(Math.abs(distance(fromPicture(lies, p), fromPicture(lies, q)) - length)).toBeLessThan(
          1e-9 * length + 1e-9,
        );
        const levelled = levelPicture(one, photo, p, q, turn > 1.5 ? "level" : "upright");
        if (!levelled.ok) throw new Error(levelled.refusal.code);
        const two = applyEdit(one, levelled.value);
        expect(Math.abs(turn > 1.5 ? Math.sin(angleIn(two, p, q)) : Math.cos(angleIn(two, p, q)))).toBeLessThan(1e-9);
        expect(Math.cos(angleIn(two, p, q) - angleIn(one, p, q))).toBeGreaterThan(-1e-9); // by the smaller turn
        const moved = applyEdit(two, movePicture(two, photo, q, { x: 7, y: -3 }));
        expect(ontoPicture(pictureOf(moved, "photo")!, { x: 7, y: -3 }).x).toBeCloseTo(q.x, 6);
        expect(drawingText(applyEdit(two, invertEdit(levelled.value)))).toBe(drawingText(one));
        expect(drawingText(applyEdit(one, invertEdit(scaled.value)))).toBe(drawingText(empty));
      }),
      { numRuns: 50 },
    );
  });

  it("refuses places that are too near, and lengths that are none", () => {
    const empty = newDrawing("mm");
    expect(scalePicture(empty, photo, { x: 1, y: 1 }, { x: 3, y: 2 }, 50)).toMatchObject({
      refusal: { code: "picture-points-near" },
    });
    expect(scalePicture(empty, photo, { x: 1, y: 1 }, { x: 300, y: 2 }, 0)).toMatchObject({
      refusal: { code: "value-not-positive" },
    });
    expect(levelPicture(empty, photo, { x: 1, y: 1 }, { x: 3, y: 2 }, "level")).toMatchObject({ ok: false });
  });

  it("straightened takes the photo's place and its pins, and undo gives both back", () => {
    const callouts = [{ kind: "length" as const, value: 9, name: "slot", pin: { sketch: "photo", x: 0.25, y: 0.5 } }];
    const start = applyEdit(
      newDrawing("mm", callouts),
      changePicture(newDrawing("mm", callouts), photo, { shown: true }),
    );
    const corners = [
      { x: 500, y: 500 },
      { x: 3500, y: 700 },
      { x: 3300, y: 2500 },
      { x: 700, y: 2600 },
    ] as [Point, Point, Point, Point];
    const plan = planStraighten(corners, 300, 200, photo);
    if (!plan.ok) throw new Error(plan.refusal.code);
    const edit = straightenedPicture(start, photo, "straight", plan.value, corners[0]);
    const after = applyEdit(start, edit);
    const { pin } = calloutsOf(after)[0]!;
    const back = throughHomography(plan.value.toPhoto, { x: pin!.x * plan.value.width, y: pin!.y * plan.value.height });
    expect(pin!.sketch).toBe("straight");
    expect(distance(back, { x: 1000, y: 1500 })).toBeLessThan(1e-6);
    expect(pictureOf(after, "straight")).toMatchObject({
      scaled: true,
      shown: true,
      from: "photo",
      scale: plan.value.scale,
    });
    expect(pictureOf(after, "photo")!.shown).toBe(false);
    expect(drawingText(applyEdit(after, invertEdit(edit)))).toBe(drawingText(start));
  });
  it("plan lines are marked on a sketch, taken off where they lie, and go on to the straightened one", () => {
    const line = { a: { x: 100, y: 200 }, b: { x: 900, y: 200 } };
    const start = newDrawing("mm");
    const marked = markPlan(start, photo, line.a, line.b);
    if (!marked.ok) throw new Error(marked.refusal.code);
    const after = applyEdit(start, marked.value);
    expect(pictureOf(after, "photo")).toMatchObject({ plan: [line], scaled: false, shown: false });
    expect(drawingText(applyEdit(after, invertEdit(marked.value)))).toBe(drawingText(start));
    const short = markPlan(start, photo, line.a, { x: 101, y: 200 });
    expect(!short.ok && short.refusal.code).toBe("picture-points-near");
    const picture = pictureOf(after, "photo")!;
    expect([planLineAt(picture, { x: 500, y: 230 }, 40), planLineAt(picture, { x: 950, y: 230 }, 40)]).toEqual([0, -1]);
    const dropped = dropPlan(after, "photo", 0);
    expect(dropped.ok && pictureOf(applyEdit(after, dropped.value), "photo")!.plan).toBeUndefined();
    const none = dropPlan(after, "photo", 1);
    expect(!none.ok && none.refusal.code).toBe("plan-not-here");
    const corners = [
      { x: 100, y: 200 },
      { x: 900, y: 200 },
      { x: 900, y: 700 },
      { x: 100, y: 700 },
    ] as [Point, Point, Point, Point];
    const plan = planStraighten(corners, 400, 250, photo);
    if (!plan.ok) throw new Error(plan.refusal.code);
    const straight = applyEdit(after, straightenedPicture(after, photo, "straight", plan.value, corners[0]));
    const [moved] = pictureOf(straight, "straight")!.plan!;
    for (const end of ["a", "b"] as const)
      expect(distance(throughHomography(plan.value.toPhoto, moved![end]), line[end])).toBeLessThan(1e-6);
  });
});
