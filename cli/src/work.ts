import { readFile } from "node:fs/promises";
import { extname } from "node:path";
import { fitRead, shapesOf, smoothAsArcs, thingsOf, type ReadDrawing, type ReadShape } from "@ash-edge/core/formats";
import { readDxf, writeShapes } from "@ash-edge/core/formats/dxf";
import { ARC_PART, JOIN_TOLERANCE, type Unit } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import { SHOWN_BY, tidy, type Finding, type Thing, type Tidied } from "@ash-edge/core/tidy";
import type { Arguments } from "./arguments.ts";
import type { CheckReport } from "./check.ts";
import { offsetContours } from "./offsetContours.ts";
import { depthsOf, reportOf, stoodFor, tracedFor, type Report } from "./report.ts";
import { Unusable } from "./unusable.ts";

/** What one file gives: its report, and the text to be written where something is. */
export type Worked = { readonly report: Report | CheckReport; readonly text?: string };

export const READ_EXTENSIONS: ReadonlySet<string> = new Set([".dxf", ".svg"]);

/** Formats other than DXF are read in only where they are wanted: a start costs less. */
const svg = (): Promise<typeof import("@ash-edge/core/formats/svg")> => import("@ash-edge/core/formats/svg");

export const readDrawing = async (file: string): Promise<ReadDrawing> => {
  if (!READ_EXTENSIONS.has(extname(file).toLowerCase()))
    throw new Unusable(`${file}: files ending in .dxf and .svg are read`);
  const bytes = await readFile(file).catch(() => {
    throw new Unusable(`${file}: there is no such file, or it can't be read`);
  });
  const read = extname(file).toLowerCase() === ".svg" ? (await svg()).readSvg(bytes) : readDxf(bytes);
  if (!read.ok) throw new Unusable(`${file}: ${sayRefusal(read.refusal, "mm")}`);
  return read.value;
};

/** Reads a file, does what the command says, and reports; what is written is a DXF, or what else `into` says. */
export const workOn = async (file: string, options: Arguments, into = ".dxf"): Promise<Worked> => {
  if (options.command === "check") return { report: await (await import("./check.ts")).checkFile(file, options) };
  const found = await readDrawing(file);
  const units: Unit = found.unit ?? options.units ?? "mm";
  const tolerance = options.tolerance ?? JOIN_TOLERANCE[units];
  const { arcs, traced } = options;
  const fit = arcs === undefined ? { ...found, traced: [] } : fitRead(found.shapes, { tolerance: arcs, traced });
  // smooth curves are offset by way of arcs, as on the page
  const { shapes: own, stood } =
    options.command === "offset" ? smoothAsArcs(fit.shapes, ARC_PART * tolerance) : { shapes: fit.shapes, stood: [] };
  const read = { ...found, shapes: own };
  const { things, rest } = thingsOf(read);
  const { command, ignore, sharedEdges } = options;
  const mends = command === "tidy" || command === "offset";
  const { things: tidied, findings } = tidy(things, {
    tolerance,
    ignore,
    sharedEdges: mends ? sharedEdges : "keep",
    accept: () => mends,
  });
  const offset = options.offset && offsetContours(tidied, options.offset, units);
  const standing = offset?.made ?? (mends && options.roles ? onRoles(tidied) : tidied);
  const twice = options.roles && command !== "offset" ? twiceOver(standing, tolerance, findings) : [];
  const report = reportOf(
    read,
    units,
    options.units,
    standing,
    rest,
    [...findings, ...twice],
    [...stoodFor(stood, units), ...tracedFor(fit.traced, units), ...(offset?.findings ?? [])],
  );
  if (command === "inspect") return { report };
  if (into === ".csv") {
    const { contourCsv } = await import("@ash-edge/core/formats/csv");
    return { report, text: contourCsv(report.contours, units) };
  }
  const shapes = command === "convert" ? read.shapes : [...shapesOf(standing), ...(offset ? [] : rest)];
  const written = command === "convert" && options.roles ? onKnown(shapes, tidied) : shapes;
  if (into === ".svg") {
    const text = (await svg()).writeSvg(written, units);
    if (!text.ok) throw new Unusable(`${file}: ${sayRefusal(text.refusal, units)}`);
    return { report, text: text.value };
  }
  if (options.version === "R12" && shapes.some(({ kind }) => kind === "ellipse" || kind === "free"))
    throw new Unusable(`${file}: ellipses and splines have no place in a DXF R12; write R2000`);
  return {
    report,
    text: writeShapes(written, units, { version: options.version, layers: read.layers }),
  };
};

/** What a file gave, or why it can't be used: as it comes back from a worker thread, where errors lose their kind. */
export type Tried = { readonly worked: Worked } | { readonly unusable: string };

export const workSafely = async (file: string, options: Arguments, into: string): Promise<Tried> => {
  try {
    return { worked: await workOn(file, options, into) };
  } catch (reason) {
    if (!(reason instanceof Unusable)) throw reason;
    return { unusable: reason.message };
  }
};

/** `convert --roles` sorts whatever closes in the file as it is, also where it is in loose pieces there. */
const onKnown = (shapes: readonly ReadShape[], standing: readonly Tidied[]): readonly ReadShape[] => {
  const depths = depthsOf(standing);
  const depthOf = new Map<number, number>();
  standing.forEach(({ origins }, i) => {
    const depth = depths[i];
    if (depth !== undefined) for (const from of origins.flat()) depthOf.set(from.id, depth);
  });
  return shapes.map((shape, id) => {
    const depth = depthOf.get(id);
    return depth === undefined ? shape : { ...shape, layer: roleLayer(depth) };
  });
};

/**
 * What lies twice on layers that told it apart until contours were put on layers by their role: it would be cut twice,
 * and the second of two equal contours counts as one that lies in the first.
 */
const twiceOver = (standing: readonly Tidied[], tolerance: number, known: readonly Finding[]): readonly Finding[] => {
  const things = standing.map((thing, id): Thing => ({ ...thing, id }));
  const { findings } = tidy(things, {
    tolerance,
    ignore: new Set(["layer", ...SHOWN_BY]),
    sharedEdges: "keep",
    accept: () => false,
  });
  const told = new Set(known.filter(({ fixed }) => !fixed).map(({ code, at }) => `${code} ${at.x} ${at.y}`));
  return findings.filter(
    ({ code, at }) => (code === "duplicate" || code === "overlap") && !told.has(`${code} ${at.x} ${at.y}`),
  );
};

const roleLayer = (depth: number): string => (depth % 2 === 0 ? "OUTSIDE" : "INSIDE");

const onRoles = (standing: readonly Tidied[]): readonly Tidied[] => {
  const depths = depthsOf(standing);
  return standing.map((thing, i) => {
    const depth = depths[i];
    return depth === undefined ? thing : { ...thing, layer: roleLayer(depth) };
  });
};
