import { Helper } from "dxf";
import DxfParser from "dxf-parser";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { ReleasedContour } from "../checks/index.ts";
import { drawingFromRows, drawingText, newDrawing } from "../drawing/index.ts";
import { circleHalves } from "../geometry/circle.ts";
import { sayRefusal } from "../say/say.ts";
import { dxfNumber } from "./dxf/groups.ts";
import { releasedShapes } from "./readShapes.ts";
import { compareRead, readDxf, writeDxf, type FoundFile } from "./dxf/index.ts";
import { readJobFile, writeJobFile } from "./job/index.ts";

const doubles = fc.double({ min: -1e9, max: 1e9, noNaN: true });
const contours: fc.Arbitrary<ReleasedContour> = fc.oneof(
  fc
    .record({ x: doubles, y: doubles, radius: fc.double({ min: 1e-9, max: 1e9, noNaN: true }) })
    .map(({ x, y, radius }): ReleasedContour => ({ kind: "circle", layer: "INSIDE", centre: { x, y }, radius })),
  fc
    .record({
      closed: fc.boolean(),
      corners: fc.array(
        fc.record({
          x: doubles,
          y: doubles,
          bulge: fc.oneof(fc.constant(0), fc.double({ min: -40, max: 40, noNaN: true })),
        }),
        { minLength: 2, maxLength: 8 },
      ),
    })
    .map(({ corners, closed }): ReleasedContour => ({
      kind: "polyline",
      closed,
      layer: closed ? "OUTSIDE" : "MARK",
      pieces: corners.slice(0, closed ? undefined : -1).map(({ x, y, bulge }, i) => ({
        a: { x, y },
        b: { x: corners[(i + 1) % corners.length]!.x, y: corners[(i + 1) % corners.length]!.y },
        bulge,
      })),
    })),
);

/** What `dxf-parser`, which is not ours, finds. */
const found = (text: string): FoundFile => {
  const read = new DxfParser().parseSync(text)!;
  const entities = read.entities as unknown as {
    type: string;
    layer: string;
    center: { x: number; y: number };
    radius: number;
    shape?: boolean;
    vertices: { x: number; y: number; bulge?: number }[];
  }[];
  return {
    insunits: read.header.$INSUNITS as number,
    entities: entities.map((e) =>
      e.type === "CIRCLE"
        ? { kind: "circle", layer: e.layer, x: e.center.x, y: e.center.y, radius: e.radius }
        : {
            kind: "polyline",
            layer: e.layer,
            closed: e.shape === true,
            vertices: e.vertices.map(({ x, y, bulge }) => ({ x, y, bulge: bulge ?? 0 })),
          },
    ),
  };
};

/** What `dxf`, another reader that is not ours, finds. */
const foundToo = (text: string): FoundFile => {
  const { header, entities } = new Helper(text).parsed as unknown as {
    header: { insUnits: number };
    entities: {
      type: string;
      layer: string;
      x: number;
      y: number;
      r: number;
      closed?: boolean;
      vertices: { x: number; y: number; bulge?: number }[];
    }[];
  };
  return {
    insunits: header.insUnits,
    entities: entities.map((e) =>
      e.type === "CIRCLE"
        ? { kind: "circle", layer: e.layer, x: e.x, y: e.y, radius: e.r }
        : {
            kind: "polyline",
            layer: e.layer,
            closed: e.closed === true,
            vertices: e.vertices.map(({ x, y, bulge }) => ({ x, y, bulge: bulge ?? 0 })),
          },
    ),
  };
};

// -0 is written as 0
const tidyZero = (contour: ReleasedContour): ReleasedContour => JSON.parse(JSON.stringify(contour)) as ReleasedContour;

describe("DXF", () => {
  it("numbers are the shortest text that reads back to the same double, without an exponent", () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (value) => {
        const text = dxfNumber(value);
        expect(text).not.toMatch(/e/i);
        expect(Number(text)).toBe(value === 0 ? 0 : value);
      }),
    );
    expect([1.1875, 14, 1e-7, 1.5e21, -0].map(dxfNumber)).toEqual([
      "1.1875",
      "14.0",
      "0.0000001",
      "1500000000000000000000.0",
      "0.0",
    ]);
  });

  it("reads back bit for bit, by two independent readers (dxf-parser, dxf) and by our own", () => {
    fc.assert(
      fc.property(fc.array(contours, { maxLength: 6 }), fc.constantFrom("mm" as const, "in" as const), (raw, unit) => {
        const all = raw.map(tidyZero);
        for (const version of ["R12", "R2000"] as const)
          for (const reader of [found, foundToo])
            expect(compareRead(releasedShapes(all), unit, reader(writeDxf(all, unit, version)))).toEqual([]);
        const text = writeDxf(all, unit);
        const ours = readDxf(text);
        if (!ours.ok) throw new Error(ours.refusal.code);
        expect(ours.value).toMatchObject({ unit, leftOut: {}, degenerate: [] });
        ours.value.shapes.forEach((shape, i) => {
          const contour = all[i]!;
          if (shape.kind === "circle" && contour.kind === "circle")
            expect([shape.centre, shape.radius]).toEqual([contour.centre, contour.radius]);
          else if (shape.kind === "chain" && contour.kind === "polyline")
            expect([shape.closed, shape.pieces]).toEqual([contour.closed, contour.pieces]);
          else if (shape.kind === "piece" && contour.kind === "polyline" && !contour.closed)
            expect([{ a: shape.a, b: shape.b, bulge: shape.bulge }]).toEqual(contour.pieces);
          else throw new Error(shape.kind);
        });
      }),
      { numRuns: 60 },
    );
  });

  it("a difference of one bit, a missing contour or another unit is told", () => {
    const circle: ReleasedContour = { kind: "circle", layer: "INSIDE", centre: { x: 1, y: 2 }, radius: 3 };
    const file = found(writeDxf([circle], "mm"));
    expect(compareRead([{ ...circle, radius: 3 + 2 ** -51 }], "mm", file)).toHaveLength(1);
    expect(compareRead([{ ...circle, layer: "OUTSIDE" }], "mm", file)).toHaveLength(1);
    expect(compareRead([circle, circle], "mm", file)).toHaveLength(2);
    expect(compareRead([circle], "in", file)).toHaveLength(1);
  });

  it("whatever the bytes, reading is a result or a refusal, never a throw; cut short it is said", () => {
    const whole = writeDxf(
      [
        {
          kind: "polyline",
          closed: true,
          layer: "OUTSIDE",
          pieces: circleHalves({ centre: { x: 0, y: 0 }, radius: 2 }),
        },
      ],
      "mm",
    );
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.string(), (cut, junk) => {
        for (const text of [whole.slice(0, cut) + junk, junk]) {
          const read = readDxf(text);
          expect(read.ok || sayRefusal(read.refusal, "mm").length > 10).toBe(true);
        }
      }),
    );
    const cut = readDxf(whole.slice(0, whole.indexOf("LWPOLYLINE") + 20));
    expect(cut).toMatchObject({ refusal: { code: "dxf-truncated" } });
    const odd = readDxf(
      "0 SECTION 2 ENTITIES 0 CIRCLE 10 nan 20 0 40 1 0 CIRCLE 10 0 20 0 40 -1 0 SPLINE 0 ENDSEC 0 EOF "
        .split(" ")
        .join("\n"),
    );
    expect(odd.ok && odd.value).toMatchObject({
      unit: undefined,
      shapes: [],
      degenerate: [
        { type: "CIRCLE", line: 5 },
        { type: "CIRCLE", line: 13 },
        { type: "SPLINE", line: 21 },
      ],
    });
  });
});

describe("the job file", () => {
  const head = { number: "0500", name: "Washer", customer: "", material: "", thickness: "", quantity: 1, due: "" };

  it("gives the same drawing back", () => {
    const drawing = newDrawing("in", [{ kind: "diameter", value: 1.1875, name: "hole", tolerance: 0.01 }]);
    const text = writeJobFile(head, drawing, [{ name: "a.png", type: "image/png", base64: "AAAA" }]);
    const read = readJobFile(text);
    if (!read.ok) throw new Error(JSON.stringify(read.refusal));
    const again = drawingFromRows(read.value.drawing as never, read.value.nextId);
    expect(drawingText(again)).toBe(drawingText(drawing));
    expect(writeJobFile(read.value.head, again, read.value.sketches)).toBe(text);
  });

  it.each([
    "",
    "{",
    "[]",
    '{"format":"ash-edge-job","version":2}',
    JSON.stringify({
      format: "ash-edge-job",
      version: 1,
      head,
      nextId: 5,
      drawing: {
        entity: [{ id: 1, layer: 1, kind: "circle", centre: { x: 0, y: 0 }, radius: -1 }],
        layer: [],
        callout: [],
        settings: [],
      },
      sketches: [],
    }),
  ])("refuses what is none: %s", (text) =>
    expect(readJobFile(text)).toMatchObject({ ok: false, refusal: { code: "file-not-readable" } }),
  );
});
