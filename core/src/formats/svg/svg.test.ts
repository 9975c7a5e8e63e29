import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { ReleasedContour } from "../../checks/releasePlan.ts";
import { enclosedArea } from "../../contour/chainMeasure.ts";
import { smoothOf } from "../../geometry/curve.ts";
import { pieceRadius, type Piece } from "../../geometry/piece.ts";
import type { Outcome } from "../../numeric/outcome.ts";
import { sayRefusal } from "../../say/say.ts";
import { releasedShapes, type ReadDrawing, type ReadShape } from "../readShapes.ts";
import { compareSvg, readSvg, writeSvg, type FoundShape, type FoundSvg } from "./index.ts";

const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(sayRefusal(outcome.refusal, "mm"));
  return outcome.value;
};
const svg = (body: string, head = 'width="100mm" height="100mm" viewBox="0 0 100 100"'): ReadDrawing =>
  value(readSvg(`<svg xmlns="http://www.w3.org/2000/svg" ${head}>${body}</svg>`));
const areaOf = (shape: ReadShape | undefined): number => {
  if (shape?.kind !== "chain") throw new Error(shape?.kind);
  return enclosedArea(shape.pieces);
};

describe("SVG", () => {
  it("y up here is y down there; sizes with their unit give the scale, a missing one is unknown", () => {
    expect(svg('<line x1="1" y1="2" x2="3" y2="4"/>').shapes).toEqual([
      { kind: "piece", layer: "0", a: { x: 1, y: -2 }, b: { x: 3, y: -4 }, bulge: 0 },
    ]);
    const inches = svg('<circle cx="50" cy="20" r="5"/>', 'width="10in" viewBox="0 0 100 100"');
    expect(inches).toMatchObject({ unit: "in", shapes: [{ centre: { x: 5, y: -2 }, radius: 0.5 }] });
    expect(svg('<circle r="5"/>', 'width="10cm" viewBox="0 0 200 200"')).toMatchObject({
      unit: "mm",
      shapes: [{ radius: 2.5 }],
    });
    expect(svg('<circle r="5"/>', 'width="300" height="300"').unit).toBeUndefined();
  });

  it("reads every command of a path: a rounded slot, closed, relative, with arcs as arcs", () => {
    const [slot] = svg('<path d="M10 10 h40 a5 5 0 0 1 0 10 H10 a5 5 0 0 1 0-10 z"/>').shapes;
    // drawn clockwise on the page, so clockwise here: its area without sign is 40 x 10 and a disc
    expect(Math.abs(areaOf(slot))).toBeCloseTo(400 + Math.PI * 25, 10);
    const { shapes } = svg('<path d="M0 0 C1 2 3 4 5 0 S9-2 10 0 Q12 5 14 0 T18 0 L20 0 v5"/>');
    expect(shapes.map(({ kind }) => kind)).toEqual(["free", "free", "free", "free", "chain"]);
    const [, smooth] = shapes as Extract<ReadShape, { kind: "free" }>[];
    expect(smooth!.points[1]).toEqual({ x: 7, y: 4 }); // mirrored on 5, 0
    const [large] = svg('<path d="M10 0 A10 10 0 1 0 0 10"/>').shapes as (ReadShape & Piece)[];
    expect([pieceRadius(large!), Math.abs(large!.bulge) > 1]).toEqual([expect.closeTo(10, 12), true]);
  });

  it("end point arcs of an ellipse are the ones whose points satisfy its equation (W3C SVG 1.1, F.6)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3, max: 30, noNaN: true }),
        fc.double({ min: 3, max: 30, noNaN: true }),
        fc.integer({ min: -90, max: 90 }),
        fc.constantFrom("0 0", "0 1", "1 0", "1 1"),
        (rx, ry, turn, flags) => {
          fc.pre(Math.abs(rx - ry) > 0.1);
          const [shape] = svg(`<path d="M1 2 A${rx} ${ry} ${turn} ${flags} 5 -1"/>`).shapes;
          if (shape?.kind !== "ellipse") throw new Error(shape?.kind);
          const { at } = smoothOf(shape);
          for (const [t, x, y] of [
            [0, 1, -2],
            [1, 5, 1],
          ] as const)
            // prettier-ignore
            expect(Math.hypot(at(t).x - x, at(t).y - y)).toBeLessThan(1e-9);
          const [large, sweeps] = flags.split(" ").map(Number);
          expect(Math.abs(shape.sweep) > Math.PI).toBe(large === 1);
          expect(shape.sweep < 0).toBe(sweeps === 1); // turned over with y
        },
      ),
    );
  });

  it("transforms nest, rectangles have rounded corners, uses are put in place, groups name layers", () => {
    const { shapes } = svg(
      '<g id="Cut" transform="translate(10 20) scale(2)"><rect width="20" height="10" rx="3"/>' +
        '<use href="#h" x="5" y="6"/></g><defs><circle id="h" r="1"/></defs>',
    );
    expect(shapes.map(({ kind, layer }) => `${kind} ${layer}`)).toEqual(["chain Cut", "circle Cut"]);
    expect(Math.abs(areaOf(shapes[0]))).toBeCloseTo(4 * (200 - (4 - Math.PI) * 9), 9);
    expect(shapes[1]).toMatchObject({ centre: { x: 20, y: -32 }, radius: 2 });
    const [turned] = svg('<circle cx="10" cy="0" r="2" transform="rotate(90 5 0)"/>').shapes as Extract<
      ReadShape,
      { kind: "circle" }
    >[];
    expect([turned!.centre.x, turned!.centre.y].map((n) => Number(n.toFixed(9)))).toEqual([5, -5]);
    expect(svg('<circle r="2" transform="scale(3 1)"/>').shapes).toMatchObject([
      { kind: "ellipse", ratio: expect.closeTo(1 / 3, 12) },
    ]);
    expect(svg('<polygon points="0,0 10,0 10,5"/><polyline points="0 0 4 4 9 1"/>').shapes).toMatchObject([
      { closed: true },
      { closed: false },
    ]);
  });

  it(
    "counts texts and what is not read, leaves out what is hidden, refuses entities, depth and damage in a " +
      "sentence",
    () => {
      const drawing = svg(
        '<text>R 5</text><image/><script>alert(1)</script><g display="none"><circle r="1"/></g><circle r="-1"/>',
      );
      expect(drawing).toMatchObject({
        texts: 1,
        aside: { image: 1, script: 1 },
        invisible: 1,
        leftOut: {},
        shapes: [],
      });
      expect(drawing.degenerate.map(({ type }) => type)).toEqual(["circle"]);
      for (const [source, code] of [
        ["", "dxf-empty"],
        ["hello", "svg-not-one"],
        ['<!DOCTYPE svg [<!ENTITY a "b">]><svg>&a;</svg>', "svg-entities"],
        [`<svg>${"<g>".repeat(5000)}${"</g>".repeat(5000)}</svg>`, "svg-too-deep"],
        ["<svg><g></svg", "svg-damaged"],
      ] as const) {
        const read = readSvg(source);
        expect(read.ok ? "read" : read.refusal.code, source.slice(0, 30)).toBe(code);
        if (!read.ok) expect(sayRefusal(read.refusal, "mm")).toMatch(/^[A-Z].*\.$/);
      }
      const cyclic = svg('<g id="a"><use href="#a"/><circle r="1"/></g>');
      expect(cyclic.shapes.length).toBeLessThan(5);
    },
  );

  // what a browser draws of over sixty files: e2e/tests/svgEngine.spec.ts
  it("tells what it does not do as the standard has it: points cut short, masks, transforms in percent, fonts", () => {
    const cut = svg('<polyline points="0 0 10 0 10 5 7"/><polygon points="1,1 5,1 x 9,9"/>');
    expect(cut.degenerate.map(({ type }) => type)).toEqual(["polyline", "polygon"]);
    expect(cut.shapes.map((shape) => (shape.kind === "chain" ? shape.pieces.length : 0))).toEqual([2, 2]);
    const masked = svg('<clipPath id="c"><circle r="5"/></clipPath><g clip-path="url(#c)"><circle r="9"/></g>');
    expect([masked.clips, masked.shapes.length]).toEqual([1, 1]);
    for (const [inside, type] of [
      ['<g style="transform-origin: center; transform: rotate(9deg)"><circle r="1"/></g>', "transform of g"],
      ['<g style="transform: translate(50%)"><circle r="1"/></g>', "transform of g"],
      ['<circle r="2em"/>', "circle"],
      ['<svg width="2em"><circle r="1"/></svg>', "svg"],
    ] as const) {
      const read = svg(inside);
      expect([read.shapes.length, read.degenerate.map((one) => one.type)]).toEqual([0, [type]]);
    }
    // a style sheet that is none hides nothing, and a rule of a state never holds
    const odd = svg("<style>}}{{ circle:hover{display:none} @import 'x'; .a{</style><circle r='1' class='a'/>");
    expect(odd.shapes).toHaveLength(1);
  });

  it("whatever the text, reading gives a drawing or a sentence, and no number that is none", () => {
    const part = fc.constantFrom(
      "<g>",
      "</g>",
      "<path d='",
      "M0 0",
      "L1e308 5",
      "A1 1 0 0 1 5 5",
      "A0 0 0 2 9",
      "z",
      "'/>",
      "<rect width='1e999' height='-2'/>",
      "<use href='#a'/>",
      "<circle id='a' r='nan'/>",
      " transform='scale(0)'",
      "<ellipse rx='5' ry='0'/>",
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 14 }), fc.string({ maxLength: 20 }), (parts, junk) => {
        for (const source of [`<svg>${parts.join(" ")}</svg>`, `<svg>${junk}</svg>`, junk]) {
          const read = readSvg(source);
          if (read.ok) expect(JSON.stringify(read.value.shapes)).not.toContain("null");
          else expect(sayRefusal(read.refusal, "mm")).toMatch(/\.$/);
        }
      }),
      { numRuns: 300 },
    );
  });

  it("what is written in true size is read back the same to 1e-9, arcs as arcs", () => {
    const number = fc.double({ min: -500, max: 500, noNaN: true }).map((n) => n + 0); // text has no -0
    const point = fc.record({ x: number, y: number });
    const bulge = fc.oneof(
      fc.constant(0),
      fc.double({ min: -3, max: 3, noNaN: true }).filter((b) => Math.abs(b) > 1e-3),
    );
    const chain = fc
      .tuple(fc.array(fc.tuple(point, bulge), { minLength: 3, maxLength: 8 }), fc.boolean())
      .map(([given, closed]): ReadShape => {
        // no two in one place
        const corners = given.map(([{ x, y }, own], i) => [{ x: x + 1100 * i, y: y + 0 }, own] as const);
        const pieces = corners.map(([a, own], i): Piece => ({
          a,
          b: corners[(i + 1) % corners.length]![0],
          bulge: own,
        }));
        return { kind: "chain", layer: "Cut & mark", closed, pieces: closed ? pieces : pieces.slice(0, -1) };
      });
    fc.assert(
      fc.property(
        fc.array(chain, { minLength: 1, maxLength: 3 }),
        fc.constantFrom("mm" as const, "in" as const),
        (shapes, unit) => {
          const read = value(readSvg(value(writeSvg(shapes, unit))));
          expect(read.unit).toBe(unit);
          expect(read.shapes).toHaveLength(shapes.length);
          read.shapes.forEach((shape, i) => {
            const own = shapes[i]!;
            if (shape.kind !== "chain" || own.kind !== "chain") throw new Error(shape.kind);
            expect([shape.closed, shape.layer, shape.pieces.length]).toEqual([
              own.closed,
              "Cut & mark",
              own.pieces.length,
            ]);
            shape.pieces.forEach(({ a, b, bulge: got }, k) => {
              const wanted = own.pieces[k]!;
              expect([a, b]).toEqual([wanted.a, wanted.b]);
              expect(Math.abs(got - wanted.bulge)).toBeLessThan(1e-6 * (1 + wanted.bulge ** 2));
            });
          });
        },
      ),
    );
    // half turns of any size come back as half turns
    fc.assert(
      fc.property(point, point, (a, b) => {
        const slot: ReadShape = {
          kind: "chain",
          layer: "0",
          closed: true,
          pieces: [
            { a, b, bulge: 1 },
            { a: b, b: a, bulge: 1 },
          ],
        };
        const [shape] = value(readSvg(value(writeSvg([slot], "mm")))).shapes;
        if (Math.hypot(a.x - b.x, a.y - b.y) > 1e-6) expect(shape).toEqual(slot);
      }),
    );
    const smooth: ReadShape[] = [
      {
        kind: "ellipse",
        layer: "0",
        centre: { x: 3, y: 4 },
        major: { x: 6, y: 2 },
        ratio: 0.5,
        from: 0,
        sweep: 2 * Math.PI,
      },
      { kind: "circle", layer: "0", centre: { x: 1, y: 2 }, radius: 0.1 },
      {
        kind: "free",
        layer: "0",
        degree: 3,
        knots: [0, 0, 0, 0, 1, 1, 1, 1],
        points: [
          { x: 0, y: 0 },
          { x: 1, y: 3 },
          { x: 4, y: 3 },
          { x: 5, y: 0 },
        ],
      },
    ];
    const back = value(readSvg(value(writeSvg(smooth, "mm")))).shapes;
    expect(back.map(({ kind }) => kind)).toEqual(["ellipse", "ellipse", "circle", "free"]);
    expect(back.slice(2)).toEqual(smooth.slice(1));
  });

  it("a file that reads differently is told: a size not true, a contour missing, moved, or of another length", () => {
    const square = [
      [0, 0],
      [9, 0],
      [9, 9],
      [0, 9],
    ].map(([x, y]) => ({ x: x!, y: y! }));
    const contours: ReleasedContour[] = [
      { kind: "circle", layer: "INSIDE", centre: { x: 5, y: 5 }, radius: 2 },
      {
        kind: "polyline",
        closed: true,
        layer: "OUTSIDE",
        pieces: square.map((a, i) => ({ a, b: square[(i + 1) % 4]!, bulge: 0 })),
      },
    ];
    const text = value(writeSvg(releasedShapes(contours), "mm"));
    const [, width, viewBox] = /width="([^"]+)".*viewBox="([^"]+)"/.exec(text)!;
    const found: FoundSvg = {
      width: width!,
      viewBox: viewBox!,
      shapes: [
        { layer: "INSIDE", kind: "circle", box: { minX: 3, minY: 3, maxX: 7, maxY: 7 } },
        { layer: "OUTSIDE", kind: "path", box: { minX: 0, minY: 0, maxX: 9, maxY: 9 }, length: 36 },
      ],
    };
    const told = (change: Partial<FoundSvg>, own = text): number =>
      compareSvg(releasedShapes(contours), "mm", { ...found, ...change }, value(readSvg(own))).length;
    expect(told({})).toBe(0);
    expect(told({ width: "9in" })).toBe(1);
    expect(told({ shapes: found.shapes.slice(1) })).toBe(2);
    const [circle, path] = found.shapes as [FoundShape, FoundShape];
    expect(told({ shapes: [circle, { ...path, length: 36.1 } as FoundShape] })).toBe(1);
    expect(told({ shapes: [{ ...circle, box: { ...circle.box, maxX: 7.01 } }, path] })).toBe(1);
    expect(told({ shapes: [{ ...path, layer: "INSIDE" }, path] })).toBe(1);
    expect(told({}, text.replace("L9 -9", "L9 -8.999999"))).toBe(1);
  });
});

it("a path of sixty thousand lines is read and closed", () => {
  const corners = Array.from({ length: 60_000 }, (_, i) => {
    const turn = (2 * Math.PI * i) / 60_000;
    return `${100 * Math.cos(turn)} ${100 * Math.sin(turn)}`;
  });
  const svg =
    `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200"><path ` +
    `d="M${corners.join("L")}Z"/></svg>`;
  const [outline] = value(readSvg(svg)).shapes;
  expect(outline).toMatchObject({ kind: "chain", closed: true });
});
