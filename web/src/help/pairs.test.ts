import written from "../../../docs/pairs.md?raw";
import { describe, expect, it } from "vitest";
import { freeThrough } from "@ash-edge/core/construct";
import { curvesOf, entitiesOf, entityOf } from "@ash-edge/core/drawing";
import {
  arcBetween,
  curveEnds,
  curveNearest,
  directionAt,
  distance,
  turning,
  type Curve,
  type Point,
} from "@ash-edge/core/geometry";
import { transformShape, type Shape } from "@ash-edge/core/shape";
import type { Tool } from "@ash-edge/tools";
import { chamfer } from "@ash-edge/tools/corners/chamfer";
import { fillet } from "@ash-edge/tools/corners/fillet";
import { meet } from "@ash-edge/tools/corners/meet";
import { extend } from "@ash-edge/tools/cut/extend";
import { trim } from "@ash-edge/tools/cut/trim";
import { tangentArc } from "@ash-edge/tools/tangent/tangentArc";
import { carryOut, type Shown } from "@ash-edge/tools/example/carryOut";

const p = (x: number, y: number): Point => ({ x, y });
const chain = (...at: readonly Point[]): Shape => ({
  kind: "chain",
  closed: false,
  vertices: at.map((place, i) => ({ id: 900 + i, at: place, bulge: 0 })),
});
const line = (a: Point, b: Point): Shape => ({ kind: "piece", a, b, bulge: 0 });
/** On the circle of R 90 that touches the level line in the origin from below. */
const onArc = (degrees: number): Point =>
  p(90 * Math.sin((degrees * Math.PI) / 180), 90 * Math.cos((degrees * Math.PI) / 180) - 90);
const arc = (from: number, to: number): Shape => ({
  kind: "piece",
  ...arcBetween(onArc(from), onArc(to), p(0, -90), false),
});
const free = (...points: readonly Point[]): Shape => {
  const made = freeThrough(points);
  if (!made.ok) throw new Error(made.refusal.code);
  return { kind: "free", ...made.value };
};
const ellipse = (from: number, sweep: number): Shape => ({
  kind: "ellipse",
  centre: p(0, -20),
  major: p(40, 0),
  ratio: 0.5,
  from,
  sweep,
});

/** Each runs about level through the origin: whole, up to x = -20, and up to the origin. */
const KINDS: Readonly<Record<string, { whole: Shape; short?: Shape; half?: Shape }>> = {
  line: { whole: line(p(-60, 0), p(60, 0)), short: line(p(-60, 0), p(-20, 0)), half: line(p(-60, 0), p(0, 0)) },
  arc: { whole: arc(-35, 35), short: arc(-35, -13), half: arc(-35, 0) },
  circle: { whole: { kind: "circle", centre: p(0, -25), radius: 25 } },
  "chain edge": {
    whole: chain(p(-60, -50), p(-60, 0), p(60, 0), p(60, -50)),
    short: chain(p(-60, -50), p(-60, 0), p(-20, 0)),
    half: chain(p(-60, -50), p(-60, 0), p(0, 0)),
  },
  "layout line": { whole: { kind: "endless", through: p(0, 0), angle: 0 } },
  ellipse: { whole: ellipse(0, 2 * Math.PI), short: ellipse(2, 1), half: ellipse(Math.PI / 2, 1.4) },
  "free curve": {
    whole: free(p(-60, 4), p(-30, -3), p(0, 0), p(30, 3), p(60, -4)),
    short: free(p(-60, -6), p(-40, -3), p(-20, -1)),
    half: free(p(-60, 4), p(-30, -3), p(0, 0)),
  },
};
const NAMES = Object.keys(KINDS);
const upright = (shape: Shape): Shape => transformShape(turning(p(0, 0), Math.PI / 2), shape);

type Form = "whole" | "short" | "half";
type Pair = {
  readonly shown: Shown;
  readonly a: readonly Curve[];
  readonly b: readonly Curve[];
  readonly made: readonly Curve[];
};

/** A tool used on a level and an upright shape: what became of the two, and what else was made. */
const run = (
  tool: Tool,
  one: Shape,
  other: Shape,
  clicks: readonly Point[],
  typed: Record<string, string> = {},
): Pair => {
  const isLayout = ({ kind }: Shape): boolean => kind === "endless";
  const all = one === other ? [one] : [one, other];
  const cut = all.filter((shape) => !isLayout(shape));
  const layout = all.filter(isLayout);
  const shown = carryOut(tool, { cut, layout, typed, clicks: clicks.map(({ x, y }) => [x, y] as const) });
  const ids = [...entitiesOf(shown.before)].map(({ id }) => id);
  const curves = (id: number): readonly Curve[] => {
    const entity = entityOf(shown.after, id);
    return entity ? curvesOf(entity).map(({ curve }) => curve) : [];
  };
  const order = [...cut, ...layout];
  const [a, b] = [one, other].map((shape) => curves(ids[order.indexOf(shape)]!)) as [
    readonly Curve[],
    readonly Curve[],
  ];
  const made = [...entitiesOf(shown.after)].filter(({ id }) => !ids.includes(id)).flatMap(({ id }) => curves(id));
  return { shown, a, b, made };
};

const away = (curves: readonly Curve[], at: Point): number =>
  Math.min(...curves.map((curve) => curveNearest(curve, at).distance));
const on = (shape: Shape, at: Point): Point => {
  const places = curvesOf({ ...shape, id: 1, layer: 1 }).map(({ curve }) => curveNearest(curve, at));
  return places.sort((one, other) => one.distance - other.distance)[0]!.at;
};
const ends = (curves: readonly Curve[]): readonly Point[] => curves.flatMap(curveEnds);
const NEAR = 1e-7;

/** "yes" where it was made and `check` holds; else why not. */
const verdict = (pair: Pair, check: (pair: Pair) => void): string => {
  if (pair.shown.edits.length === 0) return (pair.shown.said ?? "not offered").replace("refused: ", "");
  check(pair);
  return "yes";
};

/** Touches both where it begins and ends, in their direction. */
const touches = (arcs: readonly Curve[], all: readonly Curve[]): void => {
  expect(arcs.length).toBeGreaterThan(0);
  const found = arcs.at(-1)!;
  for (const end of curveEnds(found)) {
    const [nearest] = all
      .filter((curve) => curve !== found)
      .map((curve) => ({ curve, ...curveNearest(curve, end) }))
      .sort((one, other) => one.distance - other.distance);
    expect(nearest!.distance).toBeLessThan(NEAR);
    const turn = directionAt(found, end) - directionAt(nearest!.curve, end);
    expect(Math.abs(Math.sin(turn))).toBeLessThan(1e-6);
  }
};

const corner = (name: string, other: string, form: Form): readonly [Shape, Shape] => {
  // edges of one chain are the corner that a chain edge is for
  if (name === "chain edge" && other === name) {
    const both = chain(p(-60, 0), p(0, 0), p(0, -60));
    return [both, both];
  }
  const shapeOf = (own: string): Shape =>
    own === "chain edge"
      ? chain(p(-60, -50), p(-60, 0), p(form === "half" ? 0 : 60, 0))
      : (KINDS[own]![form] ?? KINDS[own]!.whole);
  return [shapeOf(name), upright(shapeOf(other))];
};

type Check = (name: string, other: string) => string;
const OPERATIONS: Readonly<Record<string, Check>> = {
  "Trim, what is down the side cut by what is across": (name, other) => {
    const [one, cutter] = [KINDS[name]!.whole, upright(KINDS[other]!.whole)];
    const at = on(one, p(20, -4));
    return verdict(run(trim, one, cutter, [at]), ({ a, shown, made }) => {
      const left = a.length > 0 ? a : made;
      expect(away(left, at)).toBeGreaterThan(1);
      expect(shown.said ?? "").not.toContain("whole");
      expect(Math.min(...ends(left).map((end) => curvesAway(cutter, end)))).toBeLessThan(NEAR);
    });
  },
  "Extend, what is down the side to what is across": (name, other) => {
    const [one, to] = [KINDS[name]!.short ?? KINDS[name]!.whole, upright(KINDS[other]!.whole)];
    return verdict(run(extend, one, to, [on(one, p(-26, -2))]), ({ a }) => {
      expect(Math.min(...ends(a).map((end) => curvesAway(to, end)))).toBeLessThan(NEAR);
      expect(away(a, on(one, p(-40, -2)))).toBeLessThan(NEAR);
    });
  },
  Meet: (name, other) => {
    const [one, two] = corner(name, other, "whole");
    return verdict(run(meet, one, two, [on(one, p(-30, 0)), on(two, p(0, -30))]), ({ a, b }) => {
      // two pieces meet end to end; a circle or a layout line stays, and the other ends on it
      const stays = [name, other].some((kind) => kind === "circle" || kind === "layout line");
      const gaps = stays
        ? [...ends(a).map((end) => away(b, end)), ...ends(b).map((end) => away(a, end))]
        : ends(a).flatMap((end) => ends(b).map((place) => distance(end, place)));
      expect(Math.min(...gaps)).toBeLessThan(NEAR);
    });
  },
  "Fillet of R 5": (name, other) => {
    const [one, two] = corner(name, other, "whole");
    const used = run(fillet, one, two, [on(one, p(-30, 0)), on(two, p(0, -30))], { size: "5" });
    return verdict(used, ({ a, b, made }) => touches(made.length > 0 ? made : a.slice(1, 2), [...a, ...b]));
  },
  "Chamfer by 5": (name, other) => {
    const [one, two] = corner(name, other, "half");
    const used = run(chamfer, one, two, [on(one, p(-30, 0)), on(two, p(0, -30))], { a: "5" });
    return verdict(used, ({ a, made }) => {
      const cut = made[0] ?? a[1]!;
      for (const end of curveEnds(cut)) expect(distance(end, p(0, 0))).toBeCloseTo(5, 1);
    });
  },
  "Tangent arc of R 8": (name, other) => {
    const [one, two] = [KINDS[name]!.whole, upright(KINDS[other]!.whole)];
    const used = run(tangentArc, one, two, [on(one, p(-10, 0)), on(two, p(0, 10))], { size: "8" });
    return verdict(used, ({ a, b, made }) => touches(made, [...a, ...b]));
  },
};
const curvesAway = (shape: Shape, at: Point): number =>
  away(
    curvesOf({ ...shape, id: 1, layer: 1 }).map(({ curve }) => curve),
    at,
  );

/** For how many of the pairs each is made: fewer is a loss, more is to be looked at and written down. */
const HELD: Readonly<Record<string, number>> = {
  "Trim, what is down the side cut by what is across": 42,
  "Extend, what is down the side to what is across": 32,
  Meet: 21,
  "Fillet of R 5": 25,
  "Chamfer by 5": 9,
  "Tangent arc of R 8": 49,
};

describe("every kind of curve with every other", () => {
  const tables: string[] = [];
  it.each(Object.entries(OPERATIONS))("%s", (operation, check) => {
    const rows = NAMES.map((name) => [name, ...NAMES.map((other) => check(name, other))]);
    tables.push(
      [`## ${operation}`, "", row(["", ...NAMES]), row(["---", ...NAMES.map(() => "---")]), ...rows.map(row)].join(
        "\n",
      ),
    );
  });
  it.each(Object.entries(HELD))("%s holds for %i pairs", (operation, held) => {
    const table = tables.find((one) => one.startsWith(`## ${operation}\n`))!;
    expect(table.match(/(?<=\| )yes(?= \|)/g)?.length).toBe(held);
  });
  it("is written down as it is", () => {
    const head =
      "# Pairs of curves\n\nWhat each tool makes of each pair: `yes`, checked for what it made, or the code of its " +
      "refusal. Held against what the tools do by `web/src/help/pairs.test.ts`.\n";
    expect([head, ...tables].join("\n\n") + "\n").toBe(written);
  });
});

const row = (cells: readonly string[]): string => `| ${cells.join(" | ")} |`;
