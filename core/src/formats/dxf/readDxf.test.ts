import DxfParser from "dxf-parser";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { annotationsOf } from "../../drawing/index.ts";
import { textPlace, tipOf } from "../../attach/frame.ts";
import { enclosedArea } from "../../contour/chainMeasure.ts";
import { smoothOf } from "../../geometry/curve.ts";
import { arcBetween, pieceCentre, pieceRadius, type Piece } from "../../geometry/piece.ts";
import type { Outcome } from "../../numeric/outcome.ts";
import { sayRefusal } from "../../say/say.ts";
import { importReport, openDrawing, type ReadDrawing, type ReadShape } from "../index.ts";
import { readDxf, writeShapes } from "./index.ts";
import { numberAt } from "./numbers.ts";

const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(sayRefusal(outcome.refusal, "mm"));
  return outcome.value;
};
type Groups = readonly (readonly [code: number, value: string | number])[];
const section = (name: string, groups: Groups): Groups => [[0, "SECTION"], [2, name], ...groups, [0, "ENDSEC"]];
const text = (...sections: readonly Groups[]): string =>
  [...sections.flat(), [0, "EOF"]].map(([code, own]) => `${code}\n${own}\n`).join("");
const entities = (groups: Groups, blocks: Groups = []): ReadDrawing =>
  value(readDxf(text(section("BLOCKS", blocks), section("ENTITIES", groups))));
const block = (name: string, groups: Groups, base: Groups = []): Groups => [
  [0, "BLOCK"],
  [2, name],
  ...base,
  ...groups,
  [0, "ENDBLK"],
];
const CIRCLE: Groups = [
  [0, "CIRCLE"],
  [8, "0"],
  [10, 10],
  [20, 0],
  [40, 2],
];
const ARC: Groups = [
  [0, "ARC"],
  [8, "0"],
  [10, 0],
  [20, 0],
  [40, 5],
  [50, 0],
  [51, 90],
];

describe("names", () => {
  // the bytes of these words in each code page, by the Encoding Standard's tables
  it.each([
    ["ANSI_1251", [0xca, 0xee, 0xed, 0xf2, 0xf3, 0xf0], "Контур"],
    ["ANSI_1250", [0xd8, 0x65, 0x7a], "Řez"],
    ["ANSI_932", [0x8a, 0x4f, 0x8c, 0x60], "外形"],
    ["ANSI_936", [0xc2, 0xd6, 0xc0, 0xaa], "轮廓"],
    ["DOS866", [0x8a, 0xae, 0xad, 0xe2, 0xe3, 0xe0], "Контур"],
    ["ANSI_1252", [0xe4, 0x75, 0xdf, 0x65, 0x6e], "äußen"],
    ["NONE_KNOWN", [0xe4, 0x75, 0xdf, 0x65, 0x6e], "äußen"],
  ])("are read by the file's own code page %s", (page, bytes, name) => {
    const header = section("HEADER", [
      [9, "$DWGCODEPAGE"],
      [3, page],
    ]);
    const whole = text(
      header,
      section("ENTITIES", [...CIRCLE.map(([code, own]) => [code, code === 8 ? "@" : own] as const)]),
    );
    const at = whole.indexOf("@");
    const source = Uint8Array.from([...Buffer.from(whole.slice(0, at)), ...bytes, ...Buffer.from(whole.slice(at + 1))]);
    expect(value(readDxf(source)).shapes[0]!.layer).toBe(name);
  });
});

// the DXF reference's numbers; 1200 / 3937 m a foot (Mendenhall Order, 1893)
it.each([
  [21, (10 * 1200) / 3.937],
  [22, 1000 / 3.937],
  [23, (10 * 3600) / 3.937],
  [24, (10 * 5280 * 1200) / 3.937],
  [15, 100_000],
])("the unit %d is converted exactly", (insunits, mm) => {
  const header = section("HEADER", [
    [9, "$INSUNITS"],
    [70, insunits],
  ]);
  const { shapes, unit } = value(readDxf(text(header, section("ENTITIES", CIRCLE))));
  const [disc] = shapes;
  if (disc?.kind !== "circle") throw new Error("no circle");
  expect(unit).toBe("mm");
  expect(Math.abs(disc.centre.x / mm - 1)).toBeLessThan(1e-15);
});

describe("leaders", () => {
  const leader = (words: string, ...points: readonly (readonly [number, number])[]): Groups => [
    [0, "LEADER"],
    [76, points.length],
    ...points.flatMap(([x, y]): Groups => [
      [10, x],
      [20, y],
    ]),
    [340, words],
  ];
  const words = (type: "TEXT" | "MTEXT", handle: string, ...parts: readonly string[]): Groups => [
    [0, type],
    [5, handle],
    ...parts.map((part, i) => [i < parts.length - 1 ? 3 : 1, part] as const),
  ];

  it("with their words are notes on what they point to, at any unit; the others are left out and told", () => {
    const header = section("HEADER", [
      [9, "$INSUNITS"],
      [70, 5],
    ]);
    // CIRCLE about (10, 0), R 2; ARC about the origin, R 5, from 0° to 90°
    const drawn = section("ENTITIES", [
      ...leader("a1", [8, 0], [3, 9], [2, 9]),
      ...words("MTEXT", "A1", "{\\fArial|b0;REAM}\\P%%c4", " \\S+0.1^-0.2;"),
      ...leader("b2", [3, 4], [20, 30]),
      ...words("TEXT", "B2", "sharp \\U+00B1 %%d"),
      ...leader("B2", [10, 0], [20, 30]),
      ...leader("C3", [40, 40], [50, 50]),
      ...words("TEXT", "C3", "points to nothing"),
      ...leader("D4", [8, 0], [50, 50]),
      ...leader("E5", [8, 0]),
      ...words("TEXT", "F6", "no leader's"),
      ...CIRCLE,
      ...ARC,
    ]);
    const read = value(readDxf(text(header, drawn)));
    expect(read).toMatchObject({ texts: 1, aside: { LEADER: 2 } });
    const opened = openDrawing(read, "mm");
    const notes = annotationsOf(opened);
    expect(notes.map((one) => [one.text, one.refs.map((ref) => tipOf(opened, ref))])).toEqual([
      ["REAM\nØ4+0.1/-0.2", [{ x: 100, y: 0 }]],
      [
        "sharp ± °",
        [
          { x: expect.closeTo(30, 9) as number, y: expect.closeTo(40, 9) as number },
          { x: 100, y: 0 },
        ],
      ],
    ]);
    expect(notes.map((one) => textPlace(opened, one))).toEqual([
      { x: 20, y: 90 },
      { x: expect.closeTo(200, 9) as number, y: expect.closeTo(300, 9) as number },
    ]);
    expect(importReport(read)).toEqual([
      "1 circle, 1 arc on 1 layer.",
      "Converted from cm to mm.",
      "2 notes on what their leaders point to.",
      "Left out: 1 note whose leaders point to nothing that was read, or whose words can’t be shown here.",
      "Left out: 1 text.",
      "Left out: 2 of LEADER, nothing that is cut.",
    ]);
  });
});

describe("blocks", () => {
  it("count what makes no shape where they are put: that of a dimension is none of the drawing", () => {
    const odd: Groups = [
      [0, "TEXT"],
      [1, "12.5"],
      [0, "3DFACE"],
      [0, "CIRCLE"],
      [40, -1],
    ];
    const unused = entities([[0, "DIMENSION"], [2, "*D1"], ...CIRCLE], block("*D1", odd));
    expect(unused).toMatchObject({ texts: 0, leftOut: {}, degenerate: [], aside: { DIMENSION: 1 } });
    const insert: Groups = [
      [0, "INSERT"],
      [2, "a"],
      [10, 0],
      [20, 0],
    ];
    const used = entities([...insert, ...insert, ...CIRCLE], block("a", odd));
    expect(used).toMatchObject({ texts: 2, leftOut: { "3DFACE": 2 } });
    expect(used.degenerate).toHaveLength(1);
  });
  it("are put in place turned, scaled, mirrored, in rows, nested; layer 0 and colour by block are the insert's", () => {
    const { shapes } = entities(
      [
        [0, "INSERT"],
        [8, "Holes"],
        [62, 3],
        [2, "b"],
        [10, 100],
        [20, 50],
        [41, 2],
        [42, 2],
        [50, 90],
        [70, 2],
        [71, 3],
        [44, 7],
        [45, 9],
      ],
      [
        ...block(
          "a",
          [...CIRCLE, [62, 0]],
          [
            [10, 1],
            [20, 1],
          ],
        ),
        ...block("b", [
          [0, "INSERT"],
          [8, "0"],
          [62, 0],
          [2, "A"],
          [10, 4],
          [20, 0],
        ]),
      ],
    );
    expect(shapes).toHaveLength(6);
    // 10, 0 off the base 1, 1 of a, at 4, 0 in b, twice as large, turned by a quarter, at 100, 50
    const first = shapes[0] as Extract<ReadShape, { kind: "circle" }>;
    expect(first).toMatchObject({ kind: "circle", layer: "Holes", colour: "3" });
    expect([first.centre.x, first.centre.y, first.radius].map((n) => Number(n.toFixed(9)))).toEqual([102, 76, 4]);
    const second = shapes[1] as Extract<ReadShape, { kind: "circle" }>;
    // a column on, turned
    expect([second.centre.x, second.centre.y].map((n) => Number(n.toFixed(9)))).toEqual([102, 83]);
    const mirrored = entities(
      [
        [0, "INSERT"],
        [8, "0"],
        [2, "a"],
        [10, 0],
        [20, 0],
        [41, -1],
      ],
      block("a", ARC),
    ).shapes[0];
    const arc = mirrored as ReadShape & Piece;
    expect([pieceRadius(arc), Math.sign(arc.bulge)]).toEqual([expect.closeTo(5, 12), -1]);
    expect(arc.a.x).toBeCloseTo(-5, 12);
    // "by block" outside any block is no colour of its own
    const chain = [
      [0, "LWPOLYLINE"],
      [8, "0"],
      [62, 0],
      [10, 0],
      [20, 0],
      [10, 1],
      [20, 0],
    ] as const;
    expect(entities(chain).shapes).toEqual([
      { kind: "chain", layer: "0", closed: false, pieces: [{ a: { x: 0, y: 0 }, b: { x: 1, y: 0 }, bulge: 0 }] },
    ]);
  });

  it("under unequal scales make ellipses whose points are the scaled ones", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 4, noNaN: true }),
        fc.double({ min: -4, max: -0.2, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        (sx, sy, turn) => {
          const inner = entities(CIRCLE).shapes[0] as Extract<ReadShape, { kind: "circle" }>;
          const made = entities(
            [
              [0, "INSERT"],
              [8, "0"],
              [2, "a"],
              [10, 3],
              [20, 4],
              [41, sx],
              [42, sy],
              [50, turn],
            ],
            block("a", [...CIRCLE, ...ARC]),
          ).shapes;
          const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
          const put = (x: number, y: number) => ({ x: 3 + c * sx * x - s * sy * y, y: 4 + s * sx * x + c * sy * y });
          const near = (p: { x: number; y: number }, q: { x: number; y: number }): number =>
            Math.hypot(p.x - q.x, p.y - q.y);
          const [whole, part] = made;
          // equal scales leave a circle and an arc, by whichever of them is mirrored
          const equal = Math.abs(Math.abs(sx) - Math.abs(sy)) <= 1e-9 * Math.abs(sx);
          expect([whole?.kind, part?.kind]).toEqual(equal ? ["circle", "piece"] : ["ellipse", "ellipse"]);
          if (whole?.kind !== "ellipse" || part?.kind !== "ellipse") return;
          const { at } = smoothOf(whole);
          // every point of the ellipse, put back, lies on the circle
          for (const t of [0, 0.13, 0.4, 0.71]) {
            const { x, y } = at(t);
            const [u, v] = [c * (x - 3) + s * (y - 4), -s * (x - 3) + c * (y - 4)];
            expect(Math.hypot(u / sx - inner.centre.x, v / sy - inner.centre.y)).toBeCloseTo(inner.radius, 8);
          }
          const ends = [smoothOf(part).at(0), smoothOf(part).at(1)];
          expect(Math.min(near(ends[0]!, put(5, 0)), near(ends[1]!, put(5, 0)))).toBeLessThan(1e-9);
          expect(Math.min(near(ends[0]!, put(0, 5)), near(ends[1]!, put(0, 5)))).toBeLessThan(1e-9);
        },
      ),
    );
  });

  it("that hold themselves, are missing or go on without end are told, the rest is kept", () => {
    const cyclic = entities(
      [[0, "INSERT"], [8, "0"], [2, "a"], [10, 0], [20, 0], ...CIRCLE],
      block("a", [...CIRCLE, [0, "INSERT"], [8, "0"], [2, "A"], [10, 1], [20, 0]]),
    );
    expect(cyclic.shapes).toHaveLength(2);
    expect(cyclic.degenerate.map(({ type }) => type)).toEqual(["INSERT"]);
    expect(
      entities([
        [0, "INSERT"],
        [8, "0"],
        [2, "none"],
        [10, 0],
        [20, 0],
      ]).degenerate,
    ).toHaveLength(1);
    const rows: Groups = [
      [0, "INSERT"],
      [8, "0"],
      [2, "a"],
      [10, 0],
      [20, 0],
      [70, 1500],
      [71, 1000],
    ];
    const huge = readDxf(text(section("BLOCKS", [...block("a", [...CIRCLE, ...CIRCLE])]), section("ENTITIES", rows)));
    expect(huge).toMatchObject({ refusal: { code: "file-too-many" } });
  });
});

describe("entities", () => {
  it("of the oldest kind: a polyline of vertices with bulges; seen from behind they are turned over", () => {
    const vertices: Groups = [
      [0, "VERTEX"],
      [10, 0],
      [20, 0],
      [42, 1],
      [0, "VERTEX"],
      [10, 10],
      [20, 0],
      [0, "VERTEX"],
      [10, 10],
      [20, 8],
      [0, "SEQEND"],
    ];
    const [chain] = entities([[0, "POLYLINE"], [8, "cut"], [66, 1], [70, 1], ...vertices]).shapes;
    if (chain?.kind !== "chain") throw new Error("no chain");
    expect(chain).toMatchObject({ closed: true, layer: "cut" });
    // a half disc below the triangle of 10 by 8
    expect(enclosedArea(chain.pieces)).toBeCloseTo((Math.PI * 25) / 2 + 40, 9);
    const [behind] = entities([[0, "POLYLINE"], [8, "cut"], [70, 1], [230, -1], ...vertices]).shapes;
    if (behind?.kind !== "chain") throw new Error("no chain");
    expect(enclosedArea(behind.pieces)).toBeCloseTo(-(Math.PI * 25) / 2 - 40, 9);
    expect(behind.pieces[1]!.a.x).toBe(-10);
    const [disc] = entities([...CIRCLE, [230, -1]]).shapes;
    expect(disc).toMatchObject({ centre: { x: -10, y: 0 } });
    expect(entities([...CIRCLE, [210, 0.5], [230, 0.8]])).toMatchObject({ shapes: [], leftOut: { CIRCLE: 1 } });
  });

  it(
    "texts, hatches and dimensions are counted; layers come with their state and colour; other units are " +
      "converted",
    () => {
      const drawing = value(
        readDxf(
          text(
            section("HEADER", [
              [9, "$INSUNITS"],
              [70, 5],
            ]),
            section("TABLES", [
              [0, "TABLE"],
              [2, "LAYER"],
              [0, "LAYER"],
              [2, "Off"],
              [70, 0],
              [62, -4],
              [0, "LAYER"],
              [2, "Cold"],
              [70, 5],
              [62, 2],
              [0, "ENDTAB"],
            ]),
            section("ENTITIES", [...CIRCLE, [0, "TEXT"], [1, "R 5"], [0, "HATCH"], [0, "DIMENSION"], [0, "HATCH"]]),
          ),
        ),
      );
      expect(drawing).toMatchObject({
        unit: "mm",
        convertedFrom: "cm",
        texts: 1,
        aside: { HATCH: 2, DIMENSION: 1 },
        leftOut: {},
      });
      expect(drawing.shapes).toMatchObject([{ centre: { x: 100, y: 0 }, radius: 20 }]);
      expect(drawing.layers).toEqual([
        { name: "Off", colour: "4", hidden: true, locked: false },
        { name: "Cold", colour: "2", hidden: true, locked: true },
      ]);
    },
  );

  it("a line style is an entity's own only where it is not its layer's, named or not", () => {
    const layers: Groups = [
      [0, "LAYER"],
      [2, "Cut"],
      [70, 0],
      [62, 7],
      [6, "Continuous"],
      [0, "LAYER"],
      [2, "Fold"],
      [70, 0],
      [62, 7],
      [6, "DASHED"],
    ];
    const styled = (layer: string, style?: string): Groups =>
      CIRCLE.map(([code, own]) => [code, code === 8 ? layer : own] as const).concat(style ? [[6, style]] : []);
    const drawn = [
      styled("Cut"),
      styled("CUT", "CONTINUOUS"),
      styled("Cut", "ByLayer"),
      styled("Cut", "Dashed"),
      styled("Fold", "DASHED"),
      styled("Fold", "Continuous"),
      styled("New", "continuous"),
    ];
    const { shapes } = value(readDxf(text(section("TABLES", layers), section("ENTITIES", drawn.flat()))));
    expect(shapes.map(({ line }) => line)).toEqual([
      undefined,
      undefined,
      undefined,
      "DASHED",
      undefined,
      "CONTINUOUS",
      undefined,
    ]);
  });

  it("ends where the last section is closed, also without its mark; cut off within it is refused with the line", () => {
    const whole = text(section("ENTITIES", CIRCLE));
    expect(value(readDxf(whole.replace("0\nEOF\n", ""))).shapes).toHaveLength(1);
    expect(readDxf(whole.slice(0, whole.indexOf("40")))).toMatchObject({ refusal: { code: "dxf-truncated" } });
    for (const [source, code] of [
      ["", "dxf-empty"],
      ["  \n", "dxf-empty"],
      ["hello\n", "dxf-bad-code"],
      ["0\nEOF\n", "dxf-no-entities"],
    ] as const)
      // prettier-ignore
      expect(readDxf(source)).toMatchObject({ refusal: { code } });
  });
});

/** The same groups as a binary file, by the types that the public reference gives their codes. */
const binaryOf = (groups: Groups): Uint8Array => {
  const parts: number[] = [...new TextEncoder().encode("Any Binary DXF\r\n\u001a\0")];
  const put = (size: number, write: (view: DataView) => void): void => {
    const body = new DataView(new ArrayBuffer(size));
    write(body);
    parts.push(...new Uint8Array(body.buffer));
  };
  for (const [code, own] of groups) {
    put(2, (view) => view.setInt16(0, code, true));
    if ((code >= 10 && code <= 59) || (code >= 210 && code <= 239))
      put(8, (view) => view.setFloat64(0, Number(own), true));
    else if (code >= 60 && code <= 79) put(2, (view) => view.setInt16(0, Number(own), true));
    else parts.push(...new TextEncoder().encode(`${own}\0`));
  }
  return Uint8Array.from(parts);
};

describe("bytes", () => {
  it("a binary file gives what the ASCII one gives, and is refused where it is cut", () => {
    const groups: Groups = [
      ...section("HEADER", [
        [9, "$INSUNITS"],
        [70, 1],
      ]),
      ...section("ENTITIES", [...CIRCLE, ...ARC]),
      [0, "EOF"],
    ];
    const binary = binaryOf(groups);
    const { degenerate: _, ...ascii } = value(readDxf(text(groups.slice(0, -1))));
    expect(value(readDxf(binary))).toMatchObject(ascii);
    expect(ascii.unit).toBe("in");
    fc.assert(
      fc.property(fc.nat(binary.length - 1), (cut) => {
        const read = readDxf(binary.subarray(0, cut));
        expect(read.ok || sayRefusal(read.refusal, "mm").length > 10).toBe(true);
      }),
    );
  });

  it("whatever they are, reading gives a drawing or a sentence", () => {
    const code = fc.constantFrom(0, 2, 8, 9, 10, 20, 11, 21, 40, 41, 42, 50, 62, 66, 70, 71, 230);
    const word = fc.constantFrom(
      "SECTION",
      "ENDSEC",
      "ENTITIES",
      "BLOCKS",
      "BLOCK",
      "ENDBLK",
      "INSERT",
      "POLYLINE",
      "VERTEX",
      "SEQEND",
      "SPLINE",
      "ELLIPSE",
      "LWPOLYLINE",
      "a",
      "1e308",
      "-1e308",
      "nan",
      "1",
      "0",
      "-3",
      "7.5",
      "99999999999",
    );
    fc.assert(
      fc.property(
        fc.array(fc.tuple(code, word), { maxLength: 60 }),
        fc.uint8Array({ maxLength: 40 }),
        (groups, junk) => {
          for (const source of [text(section("BLOCKS", groups), section("ENTITIES", groups)), text(groups), junk]) {
            const read = readDxf(source);
            if (!read.ok) expect(sayRefusal(read.refusal, "mm")).toMatch(/^[A-Z“].*\.$/);
            // no NaN, no infinity
            else for (const shape of read.value.shapes) expect(JSON.stringify(shape)).not.toContain("null");
          }
        },
      ),
      { numRuns: 400 },
    );
  });
});

describe("writing", () => {
  const shapes: readonly ReadShape[] = [
    { kind: "circle", layer: "INSIDE", centre: { x: 1.5, y: 0.1 }, radius: 0.3 },
    {
      kind: "chain",
      layer: "OUTSIDE",
      closed: true,
      pieces: [
        { a: { x: 0, y: 0 }, b: { x: 10, y: 0 }, bulge: 0.3 },
        { a: { x: 10, y: 0 }, b: { x: 0.1, y: 7 }, bulge: 0 },
        { a: { x: 0.1, y: 7 }, b: { x: 0, y: 0 }, bulge: -0.125 },
      ],
    },
    {
      kind: "chain",
      layer: "MARK",
      closed: false,
      pieces: [
        { a: { x: 0, y: 0 }, b: { x: 3, y: 1 / 3 }, bulge: 0 },
        { a: { x: 3, y: 1 / 3 }, b: { x: 4, y: 4 }, bulge: 1 },
      ],
    },
    { kind: "piece", layer: "0", colour: "3", a: { x: 1, y: 2 }, b: { x: 3, y: 4 }, bulge: 0 },
    { kind: "point", layer: "0", at: { x: 9, y: 9 } },
  ];
  it("every line style that is named is there, and comes back", () => {
    const styled = shapes.map((shape, i) => (i % 2 ? { ...shape, line: "DASHED" } : shape));
    const file = writeShapes(styled, "mm");
    expect(value(readDxf(file)).shapes).toEqual(styled);
    const { tables } = new DxfParser().parseSync(file)!;
    expect(Object.keys(tables.lineType.lineTypes)).toContain("DASHED");
    const lines = file.split(/\r?\n/);
    const handles = lines.filter((_, i) => i % 2 === 1 && lines[i - 1]!.trim() === "5");
    expect(new Set(handles).size).toBe(handles.length);
  });

  it("both versions give the same shapes back, number for number", () => {
    for (const version of ["R2000", "R12"] as const) {
      const read = value(readDxf(writeShapes(shapes, "in", { version })));
      expect([read.unit, read.shapes]).toEqual(["in", shapes]);
    }
  });

  it(
    "ellipses, splines and arcs come back; an independent reader (dxf-parser) finds them, and the old version's " +
      "vertices",
    () => {
      const smooth: readonly ReadShape[] = [
        { kind: "ellipse", layer: "0", centre: { x: 1, y: 2 }, major: { x: 5, y: 1 }, ratio: 0.4, from: 0.3, sweep: 2 },
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
      const written = writeShapes(smooth, "mm");
      const again = value(readDxf(written)).shapes;
      expect(again[1]).toEqual(smooth[1]);
      expect(again[0]).toMatchObject({ kind: "ellipse", major: { x: 5, y: 1 }, ratio: 0.4, from: 0.3 });
      const theirs = new DxfParser().parseSync(written)!.entities.map(({ type }) => type);
      expect(theirs).toEqual(["ELLIPSE", "SPLINE"]);
      const arc = {
        kind: "piece",
        layer: "0",
        ...arcBetween({ x: 5, y: 0 }, { x: 0, y: 5 }, { x: 0, y: 0 }, true),
      } as const;
      const back = value(readDxf(writeShapes([arc], "mm"))).shapes[0] as ReadShape & Piece;
      expect(pieceCentre(back)!.x).toBeCloseTo(0, 12);
      expect([back.a.x, back.b.y].map((n) => Number(n.toFixed(12)))).toEqual([5, 5]);
      const old = new DxfParser().parseSync(writeShapes(shapes, "mm", { version: "R12" }))!;
      expect(old.entities.map(({ type }) => type)).toEqual(["CIRCLE", "POLYLINE", "POLYLINE", "LINE", "POINT"]);
      const vertices = (old.entities[1] as unknown as { vertices: { x: number; y: number; bulge?: number }[] })
        .vertices;
      expect(vertices.map(({ x, y, bulge = 0 }) => [x, y, bulge])).toEqual([
        [0, 0, 0.3],
        [10, 0, 0],
        [0.1, 7, -0.125],
      ]);
    },
  );
});

describe("numbers", () => {
  it("are the same doubles that Number gives, whatever stands there", () => {
    // 16 to 19 digits, among them those in the middle of two doubles: (2m + 1) / 2 of the last place of numbers above
    // 2^53
    const long = fc.tuple(fc.bigInt({ min: 10n ** 15n, max: 10n ** 19n - 1n }), fc.nat(19)).map(([n, point]) => {
      const all = String(n);
      const place = Math.max(0, all.length - point);
      return `${all.slice(0, place)}.${all.slice(place)}`;
    });
    const middle = fc
      .tuple(fc.bigInt({ min: 2n ** 52n, max: 2n ** 53n }), fc.nat(8))
      .map(([m, shift]) => String((2n * m + 1n) << BigInt(shift)));
    const digits = fc.stringMatching(/^[-+]?[0-9]{0,19}(\.[0-9]{0,25})?([eE][-+]?[0-9]{1,3})?$/);
    fc.assert(
      fc.property(fc.oneof(fc.double().map(String), digits, long, middle, fc.string()), fc.nat(3), (written, pad) => {
        const padded = " ".repeat(pad) + written + "\r";
        const found = numberAt(padded, 0, padded.length);
        expect(Object.is(found, written.trim() === "" ? NaN : Number(written))).toBe(true);
      }),
      { numRuns: 5000 },
    );
  });

  it("and names of older files are read in the western code page", () => {
    const written = text(section("ENTITIES", [[0, "CIRCLE"], [8, "Maß"], ...CIRCLE.slice(2)]));
    const latin = Uint8Array.from(written, (letter) => letter.charCodeAt(0));
    expect(value(readDxf(latin)).shapes[0]!.layer).toBe("Maß");
  });
});
