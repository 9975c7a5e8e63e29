import { curveNearest, curvePoint, type Bounds, type Point } from "@ash-edge/core/geometry";
import { LONGEST, type PictureTrace, type Proposal } from "@ash-edge/core/picture/trace";
import { shrunkPicture } from "../../web/src/worker/shrunk.ts";
import { clockHands } from "./clockHands.ts";
import { coverPlate } from "./coverPlate.ts";
import { hearthStone } from "./hearthStone.ts";
import { brakeLink } from "./link.ts";
import { nameplate } from "./nameplate.ts";
import type { openBrowser } from "./paper.ts";
import type { Hand, Meant } from "./pencil.ts";
import type { Conditions, Photo } from "./photo.ts";
import { rockerPlate } from "./rockerPlate.ts";
import type { Sketch } from "./sketch.ts";

/** Sketches whose strokes are known, by a seed and a hand. */
export const SKETCHES: Readonly<Record<string, (seed: number, hand: Hand) => Sketch>> = {
  "cover plate": coverPlate,
  hearth: hearthStone,
  "rocker plate": rockerPlate,
  "clock hands": clockHands,
  nameplate,
  link: brakeLink,
};
/** How the pictures are made harder, the pixels of the sheet being about a tenth of a millimetre of paper. */
export const CONDITIONS: Readonly<Record<string, Conditions>> = {
  plain: {},
  "hard shadow": { shadow: true },
  "ruled paper": { ruled: 34 },
  "squared paper": { squared: 22 },
  "folded twice": { folded: true },
  "faint pencil": { hand: { dark: 0.45 } },
  "JPEG of quality 45": { jpeg: 45 },
  "12 megapixels, JPEG": { enlarged: 3.6, jpeg: 80 },
  "24 megapixels, JPEG, shadow": { enlarged: 5.1, jpeg: 80, shadow: true },
  "gone over three times": { hand: { times: 3 } },
  "gaps of 7 px": { hand: { gaps: 7 } },
  "a shaky hand": { hand: { shake: 1.6 } },
};
/** A piece is found where it lies within this part of the picture's longer side, but for what parts of it. */
const [WITHIN, OF_MEANT, OF_FOUND, OF_FALSE] = [0.005, 0.92, 0.9, 0.75] as const;
/** Round ones that an outline goes on from are cut: an arc stands for a circle from here on (radians). */
const [ARC_OF_CIRCLE, CIRCLE_OF_ARC] = [2.4, 5.4] as const;
const SAMPLES = 41;

type Shape = Proposal["shape"];
export type Score = {
  readonly meant: number;
  readonly found: number;
  readonly wrong: number;
  readonly letters: number;
  readonly missed: readonly Meant[];
  readonly falses: readonly Shape[];
};

const shapeOf = (meant: Meant): Shape => {
  if (meant.kind === "circle") return meant;
  if (meant.kind === "line") return { kind: "piece", a: meant.a, b: meant.b, bulge: 0 };
  const { centre, radius, from, to } = meant;
  const at = (angle: number): Point => ({
    x: centre.x + radius * Math.cos(angle),
    y: centre.y + radius * Math.sin(angle),
  });
  return { kind: "piece", a: at(from), b: at(to), bulge: Math.tan((to - from) / 4) };
};

const sweepOf = (shape: Shape): number =>
  shape.kind === "circle" ? 2 * Math.PI : 4 * Math.atan(Math.abs(shape.bulge));

/** Places on a shape, evenly from its start to its end, or round. */
const placesOn = (shape: Shape): readonly Point[] =>
  Array.from({ length: SAMPLES }, (_, k) =>
    curvePoint(shape, ((shape.kind === "circle" ? 2 * Math.PI : 1) * k) / (SAMPLES - 1)),
  );

/** What part of one lies within a distance of the other. */
const partOn = (one: Shape, other: Shape, within: number): number =>
  placesOn(one).filter((p) => curveNearest(other, p).distance <= within).length / SAMPLES;

const isFound = (meant: Shape, found: Shape, within: number): boolean => {
  const [m, f] = [sweepOf(meant), sweepOf(found)];
  if ((m === 0) !== (f === 0)) return false;
  if (found.kind === "circle" && meant.kind !== "circle" && m <= CIRCLE_OF_ARC) return false;
  const isCut = meant.kind === "circle" && found.kind !== "circle";
  if (isCut && f <= ARC_OF_CIRCLE) return false;
  return (isCut || partOn(meant, found, within) >= OF_MEANT) && partOn(found, meant, within) >= OF_FOUND;
};

/** What was found of what was meant, in pixels of the sheet; what of the proposed outline is none; what is a word. */
export const scoreOf = (sketch: Sketch, photo: Photo, { proposals }: PictureTrace): Score => {
  const within = WITHIN * Math.max(sketch.width, sketch.height);
  const meant = sketch.meant.map((one) => ({ one, shape: shapeOf(one) }));
  const missed = meant.filter(({ shape }) => !proposals.some((one) => isFound(shape, one.shape, within)));
  const outline = proposals.filter(({ group }) => group === "outline").map(({ shape }) => shape);
  const falses = outline.filter((one) => !meant.some(({ shape }) => partOn(one, shape, within) >= OF_FALSE));
  const inWord = (shape: Shape): boolean => photo.lettering.some((box) => placesOn(shape).every((p) => isIn(box, p)));
  return {
    meant: meant.length,
    found: meant.length - missed.length,
    wrong: falses.length,
    letters: outline.filter(inWord).length,
    missed: missed.map(({ one }) => one),
    falses,
  };
};

const isIn = ({ minX, minY, maxX, maxY }: Bounds, { x, y }: Point): boolean =>
  x >= minX && x <= maxX && y >= minY && y <= maxY;

/** Pictures decoded as the page does. */
export const openDecoder = async (browser: Awaited<ReturnType<typeof openBrowser>>) => {
  const tab = await browser.newPage();
  await tab.evaluate(`globalThis.__name = (named) => named; globalThis.shrunk = ${shrunkPicture.toString()}`);
  return async ({ bytes, type }: Photo, width: number, height: number) => {
    const made = await tab.evaluate(
      async ({ url, box, longest }) => {
        const shrunk = (globalThis as unknown as { shrunk: typeof shrunkPicture }).shrunk;
        const image = await shrunk(await (await fetch(url)).blob(), box, longest);
        let text = "";
        for (let at = 0; at < image.data.length; at += 32768)
          text += String.fromCharCode(...image.data.subarray(at, at + 32768));
        return { width: image.width, height: image.height, text: btoa(text) };
      },
      {
        url: `data:${type};base64,${bytes.toString("base64")}`,
        box: { minX: 0, minY: 0, maxX: width, maxY: height },
        longest: LONGEST,
      },
    );
    return { ...made, data: new Uint8ClampedArray(Buffer.from(made.text, "base64")) };
  };
};
