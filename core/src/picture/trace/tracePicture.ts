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
import { settledOutline } from "./settledOutline.ts";
import { shapeOf, type Shape } from "./shapes.ts";
import { withoutTails } from "./tails.ts";
import { walkedAgain } from "./walkedAgain.ts";
import { frameFor, pointsIn, strokesOn, type Stroke } from "./strokes.ts";
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
/** Parts larger than so many pixels are marks, not grain. */
const MARK = 40;
/** Strokes narrower than this leave nothing to tell; of more pieces than this nothing is told apart. */
const [THINNEST, MOST_PIECES] = [1.9, 400];
/** What is shorter than so many strokes is not counted. */
const COUNTS = 3;
/** Ink over more than this part of a picture is none. */
const MOST_INK = 0.2;
/** A line shorter than so many strokes, whose ink lies so many off it, may be anything. */
const [SHORT, BOWS] = [6, 0.4];
/** Ink no farther off a piece than so many strokes is its own. */
const ITS_OWN = 2.5;

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
  if (width === 0)
    return refuse(parts.some(({ pixels }) => pixels.length > MARK) ? "trace-only-words" : "trace-no-strokes");
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
  if (raw.length === 0) return refuse(letters.length > 0 ? "trace-only-words" : "trace-no-strokes");
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
  const { left: first, tails } = withoutTails(
    drawn.filter(({ stroke }) => stroke.mass >= divides),
    frame,
    solid,
  );
  const heavy = drawnOf(mergedStrokes(walkedAgain(first, jointsOf(first, width), frame), frame));
  const words = boxes.map((box) => growBounds(box, WORD_EDGE * (box.maxY - box.minY)));
  const isWord = ({ shape }: Drawn): boolean => words.some((box) => boundsHold(box, curveBounds(shape)!));
  const isOwn = isOutline(heavy, jointsOf(heavy, width), plain, width).map((own, i) => own && !isWord(heavy[i]!));
  const outline = settledOutline(
    heavy.filter((_, i) => isOwn[i]),
    frame,
  );
  const all: readonly (Drawn & { readonly group: Group; readonly whole?: Shape })[] = [
    ...cutRounds(outline.shapes, outline.joints).map(({ shape, of, inside }) => ({
      stroke: outline.drawn[of]!.stroke,
      shape,
      whole: outline.shapes[of]!,
      group: inside || isBlunt(shape, outline.drawn[of]!.stroke, width) ? ("doubtful" as const) : ("outline" as const),
    })),
    ...drawn.filter(({ stroke }) => stroke.mass < divides).map((one) => ({ ...one, group: "thin" as const })),
    ...[...outline.strays, ...tails, ...heavy.filter((_, i) => !isOwn[i])].map((one) => ({
      ...one,
      group: "doubtful" as const,
    })),
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

/**
 * True of a short line whose ink bows: an end that was drawn round, smaller than strokes tell, must not come to be cut
 * straight unless a drafter says so.
 */
const isBlunt = (shape: Shape, stroke: Stroke, width: number): boolean =>
  shape.kind === "piece" &&
  shape.bulge === 0 &&
  curveLength(shape) < SHORT * width &&
  inkOff(pointsIn(stroke), shape) > BOWS * width;

/** The part of some ink that lies on a shape, from its one end to the other. */
const inkAlong = (ink: readonly Point[], shape: Shape, width: number): readonly Point[] => {
  const on = ink
    .map((p) => ({ p, ...curveNearest(shape, p) }))
    .filter(({ distance }) => distance <= ITS_OWN * width)
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
