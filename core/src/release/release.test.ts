import { Helper } from "dxf";
import { describe, expect, it } from "vitest";
import { planRelease, releasedArea, type ReleasePlan } from "../checks/index.ts";
import { enclosedArea } from "../contour/chainMeasure.ts";
import { joinRuns, runPieces } from "../contour/joining.ts";
import { applyEdit, MARK_LAYER, newDrawing, PROFILE_LAYER, type Drawing } from "../drawing/index.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { compareRead, readDxf, type FoundEntity, type FoundFile } from "../formats/dxf/index.ts";
import type { ReadShape } from "../formats/index.ts";
import { readSvg } from "../formats/svg/index.ts";
import { pieceNearest, piecePoint, type Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";
import type { Unit } from "../numeric/units.ts";
import { sayRefusal } from "../say/say.ts";
import { randomFrom, roundedCorners } from "../testing/contours.ts";
import {
  compareDxf,
  FIRST_PROFILES,
  fileUnit,
  lettersOf,
  machineFile,
  machineText,
  PLAIN_PROFILE,
  readProfileFile,
  unsoundProfile,
  wrongParts,
  writeProfileFile,
  type MachineFile,
  type MachineProfile,
} from "./index.ts";

const DATUM = { x: 3.7, y: -11.3 };

/** A rounded plate turned by an odd angle with a plain and a tapped hole, and an open mark. */
const drawing = (unit: Unit): Drawing => {
  const size = unit === "mm" ? 1 : 1 / 16;
  const turned = ([x, y]: readonly [number, number]): { x: number; y: number } => ({
    x: size * (x * Math.cos(0.3) - y * Math.sin(0.3)),
    y: size * (x * Math.sin(0.3) + y * Math.cos(0.3)),
  });
  const start = newDrawing(unit);
  const draft = draftEdit(start, "Draw", "draw");
  const pieces = roundedCorners(
    (
      [
        [0, 0],
        [120, 0],
        [120, 70],
        [0, 70],
      ] as const
    ).map(([x, y]) => ({ x, y })),
    0.25,
  );
  const vertices = pieces.map(({ a, bulge }) => ({ id: draft.newId(), at: turned([a.x, a.y]), bulge }));
  draft.add({ kind: "chain", closed: true, vertices }, PROFILE_LAYER);
  draft.add({ kind: "circle", centre: turned([30, 30]), radius: 8 * size }, PROFILE_LAYER);
  const tapped = draft.add({ kind: "circle", centre: turned([80, 40]), radius: 2.5 * size }, PROFILE_LAYER);
  draft.add({ kind: "piece", a: turned([20, 60]), b: turned([60, 60]), bulge: 0.2 }, MARK_LAYER);
  const id = draft.newId();
  draft.set("annotation", id, { id, kind: "thread mark", refs: [{ id: tapped }], at: { x: 0, y: 0 }, size: 6 * size });
  return applyEdit(start, draft.finish());
};

const planFor = (of: Drawing, { layersBy, format, tapped }: MachineProfile): ReleasePlan =>
  planRelease(of, { layers: layersBy, letters: lettersOf(format), tappedApart: tapped !== "cut" });

const made = (
  plan: Parameters<typeof machineFile>[0],
  profile: MachineProfile,
): { file: MachineFile; text: string } => {
  const file = machineFile(plan, profile, DATUM);
  if (!file.ok) throw new Error(sayRefusal(file.refusal, plan.unit));
  const text = machineText(file.value);
  if (!text.ok) throw new Error(sayRefusal(text.refusal, plan.unit));
  return { file: file.value, text: text.value };
};

/** What `dxf`, a second reader that is not ours, finds. */
const foundToo = (text: string): FoundFile => {
  type Found = {
    type: string;
    layer: string;
    x: number;
    y: number;
    r: number;
    startAngle: number;
    endAngle: number;
    start: { x: number; y: number };
    end: { x: number; y: number };
    closed?: boolean;
    vertices: { x: number; y: number; bulge?: number }[];
  };
  const { header, entities } = new Helper(text).parsed as unknown as {
    header: { insUnits: number };
    entities: Found[];
  };
  const plain = ({ x, y }: { x: number; y: number }): { x: number; y: number } => ({ x, y });
  return {
    insunits: header.insUnits,
    entities: entities.map((e): FoundEntity => {
      const { layer, x, y } = e;
      if (e.type === "CIRCLE") return { kind: "circle", layer, x, y, radius: e.r };
      if (e.type === "ARC") return { kind: "arc", layer, x, y, radius: e.r, from: e.startAngle, to: e.endAngle };
      if (e.type === "LINE") return { kind: "line", layer, a: plain(e.start), b: plain(e.end) };
      if (e.type === "POINT") return { kind: "point", layer, x, y };
      const vertices = e.vertices.map((at) => ({ ...plain(at), bulge: at.bulge ?? 0 }));
      return { kind: "polyline", layer, closed: e.closed === true, vertices };
    }),
  };
};

/** The areas of all that closes among shapes that were read, in any order of their pieces. */
const areasOf = (shapes: readonly ReadShape[], within: number): readonly number[] => {
  const round = shapes.flatMap((shape) => (shape.kind === "circle" ? Math.PI * shape.radius ** 2 : []));
  const runs = shapes.flatMap((shape): (readonly Piece[])[] =>
    shape.kind === "chain" ? [shape.pieces] : shape.kind === "piece" ? [[shape]] : [],
  );
  const parts = runs.map((pieces) => ({ pieces, a: pieces[0]!.a, b: pieces.at(-1)!.b }));
  const joined = joinRuns(parts, within).filter(({ closed }) => closed);
  const whole = joined.map((run) => Math.abs(enclosedArea(runPieces(run, (part) => runs[part]!))));
  return [...round, ...whole].sort((p, q) => p - q);
};

const PRODUCT = ["mm", "in"].flatMap((job) =>
  (["R2000", "R12", "R2010"] as const).flatMap((format) =>
    (["cut", "layer", "point"] as const).flatMap((tapped) =>
      (["job", "mm", "in"] as const).flatMap((unit) =>
        (["exact", 4] as const).flatMap((decimals) =>
          (["bulges", "entities"] as const).flatMap((arcs) =>
            (["one", "loose"] as const).flatMap((chains) =>
              (["datum", "corner"] as const).flatMap((origin) =>
                (["role", "own"] as const).map(
                  (layersBy) =>
                    [
                      job as Unit,
                      { ...PLAIN_PROFILE, format, tapped, unit, decimals, arcs, chains, origin, layersBy },
                    ] as const,
                ),
              ),
            ),
          ),
        ),
      ),
    ),
  ),
);

describe("a machine's file", () => {
  it("is what the drawing is, in every combination of what a profile can ask: by three readers, two not ours", () => {
    const drawings = { mm: drawing("mm"), in: drawing("in") };
    expect(PRODUCT).toHaveLength(2 * 3 * 3 * 3 * 2 * 2 * 2 * 2 * 2);
    for (const [job, profile] of PRODUCT) {
      const told = JSON.stringify([job, profile]);
      const plan = planFor(drawings[job], profile);
      const { file, text } = made(plan, profile);
      expect(compareDxf(file, text).differences, told).toEqual([]);
      expect(compareRead(file.shapes, file.unit, foundToo(text), file.decimals), told).toEqual([]);
      // the areas of the drawing, in the file's unit: 1 in = 25.4 mm exactly (ISO 80000-3)
      const read = readDxf(new TextEncoder().encode(text));
      if (!read.ok) throw new Error(told);
      const unit = fileUnit(profile, job);
      expect(read.value.unit, told).toBe(unit);
      const scale = job === unit ? 1 : job === "in" ? 25.4 : 1 / 25.4;
      const isPoint = profile.tapped === "point";
      const expected = plan.contours
        .flatMap((one) => (one.tapped && isPoint ? [] : (releasedArea(one) ?? [])))
        .map((area) => area * scale ** 2)
        .sort((p, q) => p - q);
      const step = profile.decimals === "exact" ? 1e-12 : 1e-4;
      const found = areasOf(read.value.shapes, 4 * step + 1e-9);
      expect(found, told).toHaveLength(expected.length);
      found.forEach((area, i) => {
        // the boundary moves by no more than a step: of these parts, whose length is under 16 of their area's root
        const allowed = 16 * Math.sqrt(expected[i]!) * step + 1e-10 * expected[i]!;
        expect(Math.abs(area - expected[i]!), told).toBeLessThanOrEqual(allowed);
      });
      const points = read.value.shapes.filter(({ kind }) => kind === "point");
      expect(points, told).toHaveLength(isPoint ? 1 : 0);
      const onTapped = read.value.shapes.filter(({ layer }) => layer === "TAPPED");
      expect(onTapped, told).toHaveLength(profile.tapped === "cut" ? 0 : 1);
      if (profile.chains === "loose")
        expect(read.value.shapes.every((one) => one.kind !== "chain" || one.pieces.length === 1)).toBe(true);
      if (profile.decimals === 4) {
        // every coordinate and radius has no more decimals than were asked for
        const numbers = text.split(/\s*\n\s*/);
        const at = numbers.indexOf("ENTITIES");
        for (let i = at + 1; i + 1 < numbers.length; i += 2)
          if (["10", "20", "11", "21", "40"].includes(numbers[i]!.trim()))
            expect(numbers[i + 1]!.split(".")[1]!.length, told).toBeLessThanOrEqual(4);
      }
    }
  });

  it("lies where its origin is asked for", () => {
    const plan = planFor(drawing("mm"), PLAIN_PROFILE);
    const least = (profile: MachineProfile): readonly number[] => {
      const { text } = made(plan, profile);
      const found = /\$EXTMIN\s+10\s+(\S+)\s+20\s+(\S+)/.exec(text)!;
      return [Number(found[1]), Number(found[2])];
    };
    for (const at of least({ ...PLAIN_PROFILE, origin: "corner" })) expect(at).toBeCloseTo(0, 12);
    const [x, y] = least({ ...PLAIN_PROFILE, origin: "datum" }) as [number, number];
    const corner = machineFile(plan, { ...PLAIN_PROFILE, origin: "datum" }, { x: 0, y: 0 });
    const [own] = corner.ok ? corner.value.shapes : [];
    const [moved] = made(plan, PLAIN_PROFILE).file.shapes;
    const first = (shape: ReadShape | undefined): number => (shape?.kind === "circle" ? shape.centre.x : NaN);
    expect(first(own) - first(moved)).toBeCloseTo(DATUM.x, 12);
    expect([x, y].every(Number.isFinite)).toBe(true);
  });

  it("an inch is 25.4 mm: whole numbers of them come out without a tail", () => {
    const start = newDrawing("in");
    const draft = draftEdit(start, "Draw", "draw");
    draft.add({ kind: "circle", centre: { x: 3, y: 7 }, radius: 0.5 }, PROFILE_LAYER);
    const plan = planFor(applyEdit(start, draft.finish()), PLAIN_PROFILE);
    const file = machineFile(plan, { ...PLAIN_PROFILE, unit: "mm" }, { x: 0, y: 0 });
    expect(file.ok && file.value.shapes[0]).toMatchObject({ centre: { x: 76.2, y: 177.8 }, radius: 12.7 });
  });

  it("what would be nothing with so few decimals is refused, not left out", () => {
    const start = newDrawing("mm");
    const draft = draftEdit(start, "Draw", "draw");
    draft.add({ kind: "circle", centre: { x: 0, y: 0 }, radius: 0.4 }, PROFILE_LAYER);
    const plan = planFor(applyEdit(start, draft.finish()), PLAIN_PROFILE);
    const file = machineFile(plan, { ...PLAIN_PROFILE, decimals: 0 }, { x: 0, y: 0 });
    expect(file.ok).toBe(false);
    if (!file.ok) expect(sayRefusal(file.refusal, "mm")).toMatch(/^With 0 decimals something .* would be nothing/);
  });

  it("with decimals nothing lies farther off than these round, keyholes and nearly whole arcs too", () => {
    const random = randomFrom(7);
    for (let trial = 0; trial < 300; trial++) {
      const decimals = trial % 4;
      const step = 10 ** -decimals;
      const [radius, neck, long] = [20 * step * (1 + 5 * random()), step * (1.2 + 6 * random()), 60 * step];
      // a hole with a slot that leads to it: its arc turns by nearly all of a turn over a chord of a few steps
      const turn = random() * 6;
      const half = Math.asin(Math.min(1, neck / 2 / radius));
      const at = (x: number, y: number): Point => ({
        x: x * Math.cos(turn) - y * Math.sin(turn) + 7.1237,
        y: x * Math.sin(turn) + y * Math.cos(turn) - 3.3391,
      });
      const [x, y] = [radius * Math.cos(half), neck / 2];
      const corners = [at(x, y), at(x, -y), at(x + long, -y), at(x + long, y)];
      const bulges = [Math.tan((2 * Math.PI - 2 * half) / 4), 0, 0.3 * (random() - 0.5), 0];
      const pieces = corners.map((a, i): Piece => ({ a, b: corners[(i + 1) % 4]!, bulge: bulges[i]! }));
      const contour = { kind: "polyline", layer: "0", role: "outside", pieces, closed: true } as const;
      const plan = { contours: [contour], unit: "mm", layers: [] } as const;
      const arcs = trial % 3 === 0 ? "entities" : "bulges";
      const { file, text } = made(plan, { ...PLAIN_PROFILE, decimals, arcs, chains: trial % 2 ? "one" : "loose" });
      expect(compareDxf(file, text).differences).toEqual([]);
      const read = readDxf(new TextEncoder().encode(text));
      const written = (read.ok ? read.value.shapes : []).flatMap((one) =>
        one.kind === "chain" ? one.pieces : one.kind === "piece" ? [one] : [],
      );
      const moved = ({ x, y }: Point): Point => ({ x: x - DATUM.x, y: y - DATUM.y });
      const meant = pieces.map(({ a, b, bulge }): Piece => ({ a: moved(a), b: moved(b), bulge }));
      const off = (from: readonly Piece[], to: readonly Piece[]): number =>
        Math.max(
          ...from.flatMap((piece) =>
            Array.from({ length: 40 }, (_, k) => piecePoint(piece, k / 39)).map((p) =>
              Math.min(...to.map((one) => pieceNearest(one, p).distance)),
            ),
          ),
        );
      expect(Math.max(off(meant, written), off(written, meant)) / step, `${trial}`).toBeLessThan(2);
    }
  });

  it("contours that rounding makes cross are refused, and a layer that tapped holes would share", () => {
    const start = newDrawing("mm");
    const draft = draftEdit(start, "Draw", "draw");
    for (const [x, radius] of [
      [0, 20.4],
      [13.6, 6.7],
    ] as const)
      draft.add({ kind: "circle", centre: { x, y: 0 }, radius }, PROFILE_LAYER);
    const plan = planFor(applyEdit(start, draft.finish()), PLAIN_PROFILE);
    const said = (of: Parameters<typeof machineFile>[0], profile: Partial<MachineProfile>): string => {
      const file = machineFile(of, { ...PLAIN_PROFILE, ...profile }, { x: 0, y: 0 });
      return file.ok ? "" : sayRefusal(file.refusal, "mm");
    };
    // 13.6 + 6.7 lies within 20.4; with whole numbers 14 + 7 does not within 20
    expect(said(plan, { decimals: 1 })).toBe("");
    expect(said(plan, { decimals: 0 })).toMatch(/^With 0 decimals contours would cross/);
    const shared = drawing("mm");
    const own = planFor(shared, { ...PLAIN_PROFILE, layersBy: "own" });
    const layers = { ...PLAIN_PROFILE.layers, tapped: { name: "PROFILE", colour: 4 } };
    expect(said(own, { layersBy: "own", tapped: "layer", layers })).toMatch(
      /^The drawing has a layer Profile of its own/,
    );
    expect(said(own, { layersBy: "own", tapped: "layer" })).toBe("");
  });

  it("as an SVG it holds the same circles and contours", () => {
    const profile = FIRST_PROFILES.find(({ format }) => format === "SVG")!;
    const plan = planFor(drawing("mm"), profile);
    const { text } = made(plan, profile);
    const read = readSvg(text);
    const areas = plan.contours.flatMap((one) => releasedArea(one) ?? []).sort((p, q) => p - q);
    areasOf(read.ok ? read.value.shapes : [], 1e-9).forEach((area, i) => expect(area).toBeCloseTo(areas[i]!, 6));
  });

  it("tapped holes are drilled: a cutter is allowed for in the others alone", () => {
    const radii = (tappedApart: boolean): readonly number[] =>
      planRelease(drawing("mm"), { cutter: 2, tappedApart })
        .contours.flatMap((one) => (one.kind === "circle" ? one.radius : []))
        .sort((p, q) => p - q);
    expect(radii(false)).toEqual([1.5, 7]);
    expect(radii(true)).toEqual([2.5, 7]);
  });
});

it("a tapped hole drawn in arcs is drilled as a circle; one that is no true circle is cut, and that is said", () => {
  const plan = (off: number): ReleasePlan => {
    const start = newDrawing("mm");
    const draft = draftEdit(start, "Draw", "draw");
    draft.add({ kind: "circle", centre: { x: 0, y: 0 }, radius: 30 }, PROFILE_LAYER);
    const vertices = [
      [-3, 0, 1],
      [3, 0, 1 + off],
    ].map(([x, y, bulge]) => ({ id: draft.newId(), at: { x: x!, y: y! }, bulge: bulge! }));
    const hole = draft.add({ kind: "chain", closed: true, vertices }, PROFILE_LAYER);
    const id = draft.newId();
    const refs = [{ id: hole, vertex: vertices[0]!.id }];
    draft.set("annotation", id, { id, kind: "thread mark", refs, at: { x: 0, y: 0 }, size: 8 });
    return planRelease(applyEdit(start, draft.finish()), { tappedApart: true });
  };
  const { text } = made(plan(0), { ...PLAIN_PROFILE, tapped: "point" });
  expect(readDxf(new TextEncoder().encode(text))).toMatchObject({
    value: {
      shapes: [
        { kind: "point", layer: "TAPPED" },
        { kind: "circle", layer: "OUTSIDE" },
      ],
    },
  });
  expect(plan(0).faults.map(({ code }) => code)).not.toContain("tapped-odd");
  const odd = plan(0.01);
  expect(odd.faults.map(({ code, severity }) => `${severity} ${code}`)).toContain("warning tapped-odd");
  expect(odd.contours.some(({ tapped }) => tapped)).toBe(false);
});

describe("machine profiles", () => {
  const layers = (
    change: Partial<Record<"outside" | "inside" | "mark" | "tapped", string>>,
  ): MachineProfile["layers"] => ({
    ...PLAIN_PROFILE.layers,
    ...Object.fromEntries(Object.entries(change).map(([use, name]) => [use, { name, colour: 7 }])),
  });

  it.each([
    ["two roles on one layer", { layers: layers({ inside: "outside" }) }, "inside", /both lie on outside/],
    ["no name for a layer", { layers: layers({ mark: " " }) }, "mark", /needs a name/],
    ["small letters in R12", { format: "R12", layers: layers({ mark: "mark" }) }, "mark", /R12 has capitals/],
    ["too long for R12", { format: "R12", layers: layers({ mark: "M".repeat(32) }) }, "mark", /no more than 31/],
    ["a sign that no DXF has", { layers: layers({ mark: "A/B" }) }, "mark", /can’t be the name/],
    ["other letters in R2000", { layers: layers({ mark: "Gravur Ä" }) }, "mark", /R2010 has others/],
    ["a sign in R2010", { format: "R2010", layers: layers({ mark: "A:B" }) }, "mark", /can’t be the name/],
    ["half a decimal", { decimals: 2.5 }, "decimals", /whole number/],
    ["no number of decimals", { decimals: NaN }, "decimals", /whole number/],
    ["a colour that is none", { layers: { ...layers({}), mark: { name: "M", colour: 256 } } }, "mark", /1 to 255/],
    ["pieces in an SVG", { format: "SVG", chains: "loose" }, "chains", /one path/],
    ["points in an SVG", { format: "SVG", tapped: "point" }, "tapped", /no points/],
    ["no name", { name: " " }, "name", /needs a name/],
  ] as const)("%s is refused, with what would be right", (_, change, part, says) => {
    const wrong = wrongParts({ ...PLAIN_PROFILE, ...change } as MachineProfile);
    expect(wrong.map((one) => one.part)).toEqual([part]);
    expect(wrong[0]!.says).toMatch(says);
    expect(unsoundProfile({ ...PLAIN_PROFILE, ...change })).toBeDefined();
  });

  it("those that come with it are sound, and layers that are not written are not asked about", () => {
    for (const profile of FIRST_PROFILES) expect(wrongParts(profile)).toEqual([]);
    const same = { ...PLAIN_PROFILE, layers: layers({ tapped: "INSIDE" }) };
    expect(wrongParts(same)).toEqual([]);
    expect(wrongParts({ ...same, tapped: "layer" }).map(({ part }) => part)).toEqual(["tapped"]);
    const any = { ...PLAIN_PROFILE, format: "R2010", layers: layers({ mark: "Gravur Ä" }) } as const;
    expect(wrongParts(any)).toEqual([]);
  });

  it("go to a file and come back; what is none is refused in words", () => {
    const profile: MachineProfile = { ...PLAIN_PROFILE, name: "Our jet", decimals: 3, unit: "mm", tapped: "point" };
    expect(readProfileFile(writeProfileFile(profile))).toEqual({ ok: true, value: profile });
    const said = (text: string): string => {
      const read = readProfileFile(text);
      return read.ok ? "" : sayRefusal(read.refusal, "mm");
    };
    const file = JSON.parse(writeProfileFile(profile)) as Record<string, unknown>;
    const withPart = (change: object): string => JSON.stringify({ ...file, profile: { ...profile, ...change } });
    for (const text of ["", "{", "null", "[]", '"x"', "{}", '{"kind":"job"}'])
      expect(said(text)).toMatch(/no machine profile/);
    expect(said(JSON.stringify({ ...file, version: 9 }))).toMatch(/newer version/);
    expect(said(withPart({ tapped: "glued" }))).toMatch(/can’t be used/);
    expect(said(withPart({ layers: { ...profile.layers, inside: profile.layers.outside } }))).toMatch(
      /tell them apart/,
    );
  });
});
