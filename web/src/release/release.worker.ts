import { expose } from "comlink";
import { surveyOf, type PlannedContour, type ReleaseAsked, type ReleasePlan, type Survey } from "@ash-edge/core/checks";
import type { Drawing } from "@ash-edge/core/drawing";
import { releasedShapes } from "@ash-edge/core/formats";
import { compareRead, writeDxf, type DxfVersion } from "@ash-edge/core/formats/dxf";
import { compareSvg, readSvg, writeSvg, type FoundSvg } from "@ash-edge/core/formats/svg";
import { circleHalves } from "@ash-edge/core/geometry";
import type { Unit } from "@ash-edge/core/numeric";
import { profileOf, thicknessAlong, type AlongPlace } from "@ash-edge/core/profile";
import { sayRefusal } from "@ash-edge/core/say";
import { pictureOf, type Thumbnail } from "../store/index.ts";
import { readBackDxf } from "./readBackDxf.ts";

/** What is known of a drawing before it is cut, with the picture of just what is written. */
export type Looked = Survey & { readonly picture: Thumbnail | undefined };

/** A file's text, and what an independent reader finds different in it. */
export type Written = { readonly text: string; readonly differences: readonly string[] };

type Writable = Pick<ReleasePlan, "contours" | "unit" | "layers">;
type Contours = readonly PlannedContour[];

/** The long work of a release: sorting and checking the drawing, writing the file, reading it back. */
export const worker = {
  look: (drawing: Drawing, asked: ReleaseAsked): Looked => {
    const survey = surveyOf(drawing, asked);
    return {
      ...survey,
      picture: pictureOf(
        survey.plan.contours.map((contour) => ({
          kind: contour.role,
          pieces: contour.kind === "circle" ? circleHalves(contour) : contour.pieces,
          closed: contour.kind === "circle" || contour.closed,
        })),
      ),
    };
  },
  thickness: (drawing: Drawing, which: number): readonly AlongPlace[] =>
    thicknessAlong(profileOf(drawing).contours, which),
  writeDxf: ({ contours, unit, layers }: Writable, version: DxfVersion): Written => {
    const text = writeDxf(contours, unit, version, layers);
    return { text, differences: compareRead(contours, unit, readBackDxf(text)) };
  },
  writeSvg: (contours: Contours, unit: Unit): string => {
    const text = writeSvg(releasedShapes(contours), unit);
    if (!text.ok) throw new Error(sayRefusal(text.refusal, unit));
    return text.value;
  },
  /** What differs between the contours and what the browser's own engine and our reader find in the SVG. */
  compareSvg: (contours: Contours, unit: Unit, text: string, found: FoundSvg): readonly string[] => {
    const read = readSvg(text);
    return read.ok ? compareSvg(contours, unit, found, read.value) : [sayRefusal(read.refusal, unit)];
  },
};
export type ReleaseWorker = typeof worker;
expose(worker);
