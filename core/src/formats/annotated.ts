import { definitionOf, type Definition } from "../annotate/definition.ts";
import { displayOf, type Display } from "../annotate/display.ts";
import { measureAnnotation } from "../annotate/measure.ts";
import { unitsPerPaper } from "../annotate/sheet.ts";
import { annotationsOf, cutEntities, layerOf, layersOf, styleOf, unitOf, type Drawing } from "../drawing/drawing.ts";
import { lookOf, type Entity } from "../drawing/entity.ts";
import { chainPieces } from "../contour/chain.ts";
import type { Outcome } from "../numeric/outcome.ts";
import { done } from "../numeric/outcome.ts";
import { toRadians } from "../numeric/angle.ts";
import type { FileLayer } from "../checks/releasePlan.ts";
import { writeShapes, type DxfVersion } from "./dxf/writeDxf.ts";
import type { ReadShape } from "./readShapes.ts";
import { writeSvg } from "./svg/writeSvg.ts";

/** A dimension, a note or a mark as a file for people has it. */
export type FileAnnotation = {
  readonly display: Display;
  /** What it is defined by, where the format knows such a dimension. */
  readonly definition: Definition | undefined;
  /** What it measures, in the drawing's unit or in radians. */
  readonly measured: number | undefined;
  /** Its words, where they are more than what it measures. */
  readonly words: string | undefined;
};

/** All dimensions, notes and marks of a drawing for a file, at the scale of its sheet. */
export const fileAnnotations = (drawing: Drawing): readonly FileAnnotation[] => {
  const style = styleOf(drawing);
  const per = unitsPerPaper(drawing, style);
  return annotationsOf(drawing).map((annotation) => {
    const most = measureAnnotation(drawing, annotation)?.most;
    const display = displayOf(drawing, annotation, style, per);
    const texts = display.drawn.flatMap((one) => (one.kind === "text" ? [one.text] : []));
    const { text, refs, callout } = annotation;
    const several = (annotation.kind === "radius" || annotation.kind === "diameter") && refs.length > 1;
    return {
      display,
      words: text || callout !== undefined || several ? texts.join(" ") : undefined,
      definition: definitionOf(drawing, annotation),
      measured: most !== undefined && annotation.kind === "angle" ? toRadians(most) : most,
    };
  });
};

const shapeOf = (drawing: Drawing, entity: Entity): readonly ReadShape[] => {
  const { layer: _, ...look } = lookOf(entity);
  const rest = { ...look, layer: layerOf(drawing, entity.layer)!.name };
  switch (entity.kind) {
    case "endless":
    case "point":
      return [];
    case "chain":
      return [{ kind: "chain", closed: entity.closed, pieces: chainPieces(entity), ...rest }];
    case "piece":
      return [{ kind: "piece", a: entity.a, b: entity.b, bulge: entity.bulge, ...rest }];
    case "circle":
      return [{ kind: "circle", centre: entity.centre, radius: entity.radius, ...rest }];
    case "ellipse": {
      const { centre, major, ratio, from, sweep } = entity;
      return [{ kind: "ellipse", centre, major, ratio, from, sweep, ...rest }];
    }
    case "free": {
      const { degree, knots, points, weights } = entity;
      return [{ kind: "free", degree, knots, points, ...(weights ? { weights } : {}), ...rest }];
    }
  }
};

/** All that the machine would cut or mark, on hidden layers as well, as shapes on the drawing's own layers. */
const drawnOn = (drawing: Drawing): readonly ReadShape[] =>
  cutEntities(drawing).flatMap((entity) => shapeOf(drawing, entity));

/** Files for people: the drawing as it is drawn, with its dimensions. Never for a machine. */
export const PEOPLE_FORMATS = ["SVG", "R2000", "R12"] as const;
export type PeopleFormat = (typeof PEOPLE_FORMATS)[number];

/**
 * The drawing with its dimensions, notes and marks as the text of a file: SVG in true size, or DXF with DIMENSION
 * entities and their blocks; in its oldest version they are plain lines and letters. Refused where the format has no
 * place for what is drawn.
 */
export const writeForPeople = (drawing: Drawing, format: PeopleFormat): Outcome<string> => {
  const shapes = drawnOn(drawing);
  const annotations = fileAnnotations(drawing);
  if (format === "SVG")
    return writeSvg(
      shapes,
      unitOf(drawing),
      annotations.map(({ display }) => display),
    );
  const layers = layersOf(drawing).map(({ name, colour }): FileLayer => ({ name, ...(colour ? { colour } : {}) }));
  const version: DxfVersion = format;
  return done(writeShapes(shapes, unitOf(drawing), { version, layers, annotations }));
};
