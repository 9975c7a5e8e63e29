import { boundsHold, boundsOf, growBounds, type Bounds } from "../../geometry/bounds.ts";
import { curveBounds, curveLength, curveNearest } from "../../geometry/curve.ts";
import type { Point } from "../../geometry/point.ts";
import { transformPoint, type Similarity } from "../../geometry/transform.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { transformShape } from "../../shape/kinds.ts";
import type { Pixels } from "../straighten.ts";
import { centred } from "./centred.ts";
import { dividing, isOutline, type Group } from "./classes.ts";
import { cutRounds } from "./cutRounds.ts";
import { withoutGoneOver, type Drawn } from "./explained.ts";
import { branchesOf } from "./graph.ts";
import { greyOf } from "./grey.ts";
import { inkOf, maskOf } from "./ink.ts";
import { evenly, standingFor } from "./inOrder.ts";
import { jointsOf } from "./jointsOf.ts";
import { leftOver } from "./leftOver.ts";
import { lettersOf } from "./lettering.ts";
import { mergedStrokes } from "./merged.ts";
import { partsOf, widthOf } from "./parts.ts";
import { pathsOf } from "./paths.ts";
import { inkOff, type Proposal } from "./proposal.ts";
import { ringsOf } from "./rings.ts";
import { withoutRules } from "./ruled.ts";
import { settledEnds } from "./settledEnds.ts";
import { shapeOf, type Shape } from "./shapes.ts";
import { solvedPieces } from "./solvedPieces.ts";
import { walkedAgain } from "./walkedAgain.ts";
import { frameFor, pointsOf, strokesOn, type Stroke } from "./strokes.ts";
import { filled, thinned } from "./thinned.ts";

export type PictureTrace = {
  readonly proposals: readonly Proposal[];
  /** Where words stand: nothing there is proposed. */
  readonly lettering: readonly Bounds[];
  /** How wide strokes are. */
  readonly stroke: number;
};

/** A picture is looked at so many pixels long at most. */
export const LONGEST = 2000;
/** Parts smaller than so many pixels say nothing of how wide strokes are. */
const SPECK = 200;
/** Strokes narrower than this leave nothing to tell; of more pieces than this nothing is told apart. */
const [THINNEST, MOST_PIECES] = [1.9, 400];
/** What is shorter than so many strokes is not counted. */
const COUNTS = 3;
/** Ink over more than this part of a picture is none. */
const MOST_INK = 0.2;
/** A piece of the outline lies no farther off its ink than so many strokes. */
const MOST_OFF = 2.5;

/** Letters that stand a little out of their word, by so much of its height, belong to it. */
const WORD_EDGE = 0.4;

/** How far each step is, of all. */
const STEPS = { ink: 0.15, lines: 0.35, pieces: 0.6, merged: 0.8, again: 0.95 } as const;

/**
 * The lines, arcs and circles that strokes in a picture were meant to be. Refused where there are no strokes, where
 * they are too thin to be followed, and where there is too much, or anything but a drawing. `report` is told how far it
 * is, from 0 to 1.
 */
export const tracePicture = (
  pixels: Pixels,
  report: (part: number) => void = () => undefined,
): Outcome<PictureTrace> => {
  const { grey, per } = greyOf(pixels, LONGEST);
  const ink = withoutRules(inkOf(grey));
  const found = maskOf(ink);
  if (!found) return refuse("trace-no-strokes");
  report(STEPS.ink);
  const parts = partsOf(found.mask, 1);
  const inked = parts.reduce((sum, part) => sum + part.pixels.length, 0);
  if (inked > MOST_INK * grey.data.length) return refuse("trace-no-drawing");
  const width = widthOf(
    parts.filter((part) => part.pixels.length > SPECK),
    found.mask,
  );
  if (width === 0) return refuse("trace-no-strokes");
  if (width < THINNEST) return refuse("trace-thin", { pixels: width.toFixed(1) });
  const { letters, boxes } = lettersOf(parts, width, found.mask);
  const plain = { ...found.mask, data: found.mask.data.slice() };
  for (const part of letters) for (const at of part.pixels) plain.data[at] = 0;
  const solid = filled(plain, width);
  const branches = branchesOf(thinned(solid), width);
  const paths = pathsOf(branches, width).map((path) => centred(path, ink, 0, width));
  report(STEPS.lines);
  const frame = frameFor(grey.width, grey.height, width);
  const raw = [...paths.flatMap((path) => strokesOn(path, frame)), ...ringsOf(branches, plain, frame)];
  const count = raw.filter(({ length }) => length >= COUNTS * width).length;
  if (count > MOST_PIECES) return refuse("trace-busy", { count: String(count) });
  if (raw.length === 0) return refuse("trace-no-strokes");
  report(STEPS.pieces);
  let strokes = mergedStrokes(raw, frame);
  report(STEPS.merged);
  for (let turn = 0; turn < 2; turn++) strokes = mergedStrokes(settledEnds(strokes, frame), frame);
  for (let turn = 0; turn < 2; turn++) strokes = mergedStrokes(leftOver(strokes, frame), frame);
  report(STEPS.again);
  const drawnOf = (some: readonly Stroke[]): readonly Drawn[] =>
    withoutGoneOver(
      some.map((stroke) => ({ stroke, shape: shapeOf(frame, stroke, solid) })),
      width,
    );
  const drawn = drawnOf(strokes);
  const divides = dividing(drawn);
  const first = drawn.filter(({ stroke }) => stroke.mass >= divides);
  const heavy = drawnOf(mergedStrokes(walkedAgain(first, jointsOf(first, width), frame), frame));
  const words = boxes.map((box) => growBounds(box, WORD_EDGE * (box.maxY - box.minY)));
  const isWord = ({ shape }: Drawn): boolean => words.some((box) => boundsHold(box, curveBounds(shape)!));
  const isOwn = isOutline(heavy, jointsOf(heavy, width), plain, width).map((own, i) => own && !isWord(heavy[i]!));
  let outline = heavy.filter((_, i) => isOwn[i]);
  let joints = jointsOf(outline, width);
  let solved = solvedPieces(outline, joints, frame);
  const isOff = ({ stroke }: Drawn, i: number): boolean => inkOff(pointsIn(stroke), solved[i]!) > MOST_OFF * width;
  // what was moved far from its ink by what it was taken to touch does not touch it; what is far off still is none
  const bent = new Set(outline.flatMap((one, i) => (isOff(one, i) ? [i] : [])));
  if (bent.size > 0) {
    joints = joints.map((one) => (bent.has(one.one) || bent.has(one.other) ? { ...one, tangent: false } : one));
    solved = solvedPieces(outline, joints, frame);
  }
  const strays = outline.filter(isOff);
  if (strays.length > 0) {
    outline = outline.filter((one) => !strays.includes(one));
    joints = jointsOf(outline, width);
    solved = solvedPieces(outline, joints, frame);
  }
  const cuts = cutRounds(solved, joints);
  const all: readonly (Drawn & { readonly group: Group; readonly whole?: Shape })[] = [
    ...cuts.map(({ shape, of, inside }) => ({
      stroke: outline[of]!.stroke,
      shape,
      whole: solved[of]!,
      group: inside ? ("doubtful" as const) : ("outline" as const),
    })),
    ...drawn.filter(({ stroke }) => stroke.mass < divides).map((one) => ({ ...one, group: "thin" as const })),
    ...[...strays, ...heavy.filter((_, i) => !isOwn[i])].map((one) => ({ ...one, group: "doubtful" as const })),
  ];
  const trace: PictureTrace = {
    // what was solved to nothing is nothing
    proposals: all
      .filter(({ shape }) => curveLength(shape) >= width)
      .map(({ stroke, shape, group, whole = shape }, id) => ({
        id,
        shape,
        group,
        off: inkOff(pointsIn(stroke), whole),
        ink: whole === shape ? standingFor(frame, { stroke, shape }) : inkAlong(pointsIn(stroke), shape, width),
      })),
    lettering: boxes,
    stroke: width,
  };
  return done(per === 1 ? trace : enlarged(trace, per));
};

const pointsIn = ({ runs }: Stroke): readonly Point[] => runs.flatMap(pointsOf);

/** The part of some ink that lies on a shape, from its one end to the other. */
const inkAlong = (ink: readonly Point[], shape: Shape, width: number): readonly Point[] => {
  const on = ink
    .map((p) => ({ p, ...curveNearest(shape, p) }))
    .filter(({ distance }) => distance <= MOST_OFF * width)
    .sort((p, q) => p.t - q.t);
  return evenly(on.map(({ p }) => p));
};

/** What was found in a picture that is so many times smaller, and a part of one whose corner lies at a place. */
export const enlarged = (
  { proposals, lettering, stroke }: PictureTrace,
  by: number,
  { x, y }: Point = { x: 0, y: 0 },
): PictureTrace => {
  const m: Similarity = { a: by, b: 0, c: 0, d: by, e: x, f: y };
  return {
    proposals: proposals.map((one) => ({
      ...one,
      shape: transformShape(m, one.shape) as Shape,
      off: one.off * by,
      ink: one.ink.map((p) => transformPoint(m, p)),
    })),
    lettering: lettering.map(({ minX, minY, maxX, maxY }) =>
      boundsOf([transformPoint(m, { x: minX, y: minY }), transformPoint(m, { x: maxX, y: maxY })]),
    ),
    stroke: stroke * by,
  };
};
