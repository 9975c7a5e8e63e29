import { isReady } from "@ash-edge/core/checks";
import { nestingDepths, enclosedArea } from "@ash-edge/core/contour";
import { notCut, type ReadDrawing, type ReadShape, type Stood, type Traced } from "@ash-edge/core/formats";
import type { ContourRow } from "@ash-edge/core/formats/csv";
import { circleHalves, pieceLength, piecesBounds, type Piece } from "@ash-edge/core/geometry";
import { showLengthUnit, type Unit } from "@ash-edge/core/numeric";
import { sayFinding } from "@ash-edge/core/say";
import type { Finding as Met, Tidied } from "@ash-edge/core/tidy";

export type Finding = {
  readonly code: string;
  readonly severity: "error" | "warning" | "info";
  readonly fixed: boolean;
  readonly at: readonly [number, number] | null;
  readonly message: string;
};

/** What the command line prints as JSON; described in docs/formats.md. */
export type Report = {
  readonly units: Unit;
  readonly entities: Readonly<
    Record<"line" | "arc" | "circle" | "ellipse" | "spline" | "chain" | "point" | "text" | "other", number>
  >;
  readonly contours: readonly ContourRow[];
  readonly findings: readonly Finding[];
  readonly ready: boolean;
};

/** A report on what stands, what tidying met, what the file itself held, and what else there is to say. */
export const reportOf = (
  read: ReadDrawing,
  units: Unit,
  asked: Unit | undefined,
  standing: readonly Tidied[],
  rest: readonly ReadShape[],
  met: readonly Met[],
  more: readonly Finding[] = [],
): Report => {
  const contours = rowsOf(standing);
  const findings = [
    ...unitFindings(read, asked),
    ...met.map((finding): Finding => ({
      code: finding.code,
      severity: finding.severity,
      fixed: finding.fixed,
      at: [finding.at.x, finding.at.y],
      message: sayFinding(finding, units),
    })),
    ...fileFindings(read, rest),
    ...more,
  ];
  const count = { line: 0, arc: 0, circle: 0, chain: 0 };
  for (const { shape } of standing)
    count[shape.kind === "piece" ? (shape.bulge === 0 ? "line" : "arc") : shape.kind] += 1;
  const left = (kind: ReadShape["kind"]): number => rest.filter((shape) => shape.kind === kind).length;
  return {
    units,
    entities: {
      ...count,
      ellipse: left("ellipse"),
      spline: left("free"),
      point: left("point"),
      text: read.texts,
      other: [...Object.values(read.leftOut), ...Object.values(notCut(read))].reduce((sum, n) => sum + n, 0),
    },
    contours,
    findings,
    ready: isReady(
      contours.some(({ closed }) => closed),
      findings,
    ),
  };
};

export const piecesOf = ({ shape }: Tidied): readonly Piece[] =>
  shape.kind === "circle" ? circleHalves(shape) : shape.kind === "chain" ? shape.pieces : [shape];

/** How deep each closed thing lies among the closed ones; undefined for open ones. */
export const depthsOf = (standing: readonly Tidied[]): readonly (number | undefined)[] => {
  const closed = standing.filter(({ shape }) => shape.kind === "circle" || (shape.kind === "chain" && shape.closed));
  const depths = nestingDepths(closed.map(piecesOf));
  const byThing = new Map(closed.map((thing, i) => [thing, depths[i]!]));
  return standing.map((thing) => byThing.get(thing));
};

/** Outermost first, then larger first, open ones last. */
const rowsOf = (standing: readonly Tidied[]): readonly ContourRow[] => {
  const depths = depthsOf(standing);
  return standing
    .map((thing, i): ContourRow => {
      const { shape } = thing;
      const pieces = piecesOf(thing);
      const depth = depths[i];
      const circle = shape.kind === "circle";
      const box = piecesBounds(pieces)!;
      const arcs = circle ? 0 : pieces.filter(({ bulge }) => bulge !== 0).length;
      return {
        closed: depth !== undefined,
        role: depth === undefined ? "open" : depth % 2 === 0 ? "outside" : "inside",
        depth: depth ?? 0,
        area:
          depth === undefined ? null : circle ? Math.PI * shape.radius * shape.radius : Math.abs(enclosedArea(pieces)),
        length: circle ? 2 * Math.PI * shape.radius : pieces.reduce((sum, piece) => sum + pieceLength(piece), 0),
        lines: circle ? 0 : pieces.length - arcs,
        arcs,
        circle,
        layer: String(thing.layer),
        bounds: circle
          ? [
              shape.centre.x - shape.radius,
              shape.centre.y - shape.radius,
              shape.centre.x + shape.radius,
              shape.centre.y + shape.radius,
            ]
          : [box.minX, box.minY, box.maxX, box.maxY],
      };
    })
    .sort((p, q) => Number(q.closed) - Number(p.closed) || p.depth - q.depth || (q.area ?? 0) - (p.area ?? 0));
};

export const plainReport = (
  code: string,
  severity: Finding["severity"],
  message: string,
  at?: { x: number; y: number },
): Finding => ({
  code,
  severity,
  fixed: false,
  at: at ? [at.x, at.y] : null,
  message,
});

export const unitFindings = (read: ReadDrawing, asked: Unit | undefined): Finding[] => {
  const say = (message: string): Finding[] => [plainReport("units", "warning", message)];
  if (!read.unit) return asked ? [] : say("The file names no unit that is known here; taken as mm.");
  if (read.convertedFrom) return say(`The file is in ${read.convertedFrom}; it was converted to mm.`);
  return asked && asked !== read.unit ? say(`The file says ${read.unit}, not ${asked}; the file wins.`) : [];
};

/** As at a release: no machine cuts them as they are. */
const NOT_ARCS = {
  ellipse: "An ellipse is no line or arc: it must become arcs before it can be cut (--arcs).",
  free: "A spline is no line or arc: it must become arcs before it can be cut (--arcs).",
};

/** Smooth curves that were offset by way of arcs. */
export const stoodFor = (stood: readonly Stood[], units: Unit): Finding[] =>
  stood.map(({ kind, at, arcs, deviation }) => ({
    ...plainReport(
      "not-arcs",
      "error",
      `${kind === "ellipse" ? "An ellipse" : "A spline"} was taken as ${arcs} arcs, off by ` +
        `${showLengthUnit(deviation, units)} at most.`,
      at,
    ),
    fixed: true,
  }));

/** Outlines of measured points, and what came of them. */
export const tracedFor = (traced: readonly Traced[], units: Unit): Finding[] =>
  traced.map((one) => {
    const was = `An outline of ${one.points} measured points`;
    const asDrawn = "its pieces were fitted as they are drawn.";
    if (one.kind === "untold")
      return plainReport("traced", "warning", `${was} does not tell how far they scatter: ${asDrawn}`, one.at);
    if (one.kind === "tooFar") {
      const far = showLengthUnit(one.largest, units);
      return plainReport("traced", "warning", `${was} lies ${far} off the nearest lines and arcs: ${asDrawn}`, one.at);
    }
    const { circle, pieces, scatter, largest, strayed } = one.fit;
    const arcs = pieces.filter(({ bulge }) => bulge !== 0).length;
    const kinds = [[pieces.length - arcs, "line"] as const, [arcs, "arc"] as const].filter(([n]) => n > 0);
    const made = circle ? "a circle" : kinds.map(([n, kind]) => `${n} ${kind}${n === 1 ? "" : "s"}`).join(" and ");
    const left = strayed > 0 ? `; ${strayed} that strayed were left aside` : "";
    const off = `scatter ${showLengthUnit(scatter, units)}, off by ${showLengthUnit(largest, units)} at most${left}`;
    const severity = strayed > 0 ? "warning" : "info";
    return { ...plainReport("traced", severity, `${was} became ${made}: ${off}.`, one.at), fixed: true };
  });

export const fileFindings = (read: ReadDrawing, rest: readonly ReadShape[]): Finding[] => [
  ...rest.flatMap((shape): readonly Finding[] => {
    if (shape.kind === "point") return [plainReport("stray", "info", "A point is no cut geometry.", shape.at)];
    if (shape.kind === "ellipse") return [plainReport("not-arcs", "error", NOT_ARCS.ellipse, shape.centre)];
    return shape.kind === "free" ? [plainReport("not-arcs", "error", NOT_ARCS.free, shape.points[0])] : [];
  }),
  ...(read.texts > 0 ? [plainReport("stray", "info", `${read.texts} texts were left out.`)] : []),
  ...Object.entries(read.leftOut).map(([type, n]) =>
    plainReport("left-out", "error", `${n} of ${type} could not be read: geometry is missing.`),
  ),
  ...(read.clips
    ? [plainReport("stray", "info", `clip-path is not applied (${read.clips}): what lies beyond is there, too.`)]
    : []),
  ...Object.entries(notCut(read)).map(([type, n]) => plainReport("stray", "info", `${n} of ${type} were left out.`)),
  ...(read.invisible > 0
    ? [plainReport("invisible", "info", `${read.invisible} things are marked invisible in the file; left out.`)]
    : []),
  ...read.degenerate.map(({ type, line }) =>
    plainReport("degenerate", "error", `${type} at line ${line}: its numbers make no geometry, so it was left out.`),
  ),
  ...read.layers
    .filter(({ hidden, name }) => hidden && read.shapes.some(({ layer }) => layer === name))
    .map(({ name }) =>
      plainReport("hidden-layer", "info", `The layer ${name} is off or frozen; what is on it was read.`),
    ),
];

/** The report for people. */
export const reportText = ({ units, contours, findings, ready }: Report): string =>
  [
    `unit ${units}`,
    ...contours.map(({ closed, role, layer, area, length, circle, lines, arcs }) => {
      const what = circle ? "circle" : `${lines} lines, ${arcs} arcs`;
      return (
        `${closed ? "closed" : "open"} ${role} on ${layer}: ${what}, length ` +
        `${length}${area === null ? "" : `, area ${area}`}`
      );
    }),
    ...findings.map(({ severity, code, message, fixed }) => `${fixed ? "mended" : severity} ${code}: ${message}`),
    ready ? "ready to cut" : "not ready to cut",
    "",
  ].join("\n");
