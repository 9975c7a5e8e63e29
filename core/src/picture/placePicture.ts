import { greatest, least } from "../numeric/greatest.ts";
import { calloutsOf, drawingBounds, picturesOf, settingsOf, unitOf, type Drawing } from "../drawing/drawing.ts";
import type { Edit } from "../drawing/edit.ts";
import { fromPicture, type Picture, type PictureSize } from "../drawing/picture.ts";
import { draftEdit } from "../edits/draftEdit.ts";
import { pieceNearest } from "../geometry/piece.ts";
import { angleOf, distance, subtract, turned, type Point } from "../geometry/point.ts";
import { signedAngle } from "../numeric/angle.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { showLengthUnit } from "../numeric/showValue.ts";
import { throughHomography } from "./homography.ts";
import type { StraightenPlan } from "./straighten.ts";

/** Two places on a picture nearer than this many pixels give no direction and no scale. */
const LEAST_PX = 4;

/** The picture on the board of a stored one; undefined where it does not lie there. */
export const pictureOf = (drawing: Drawing, blob: string): Picture | undefined =>
  picturesOf(drawing).find((picture) => picture.blob === blob);

/** The picture as it lies, or as it would be laid first: about as large as what is drawn, its middle on the datum. */
const laid = (drawing: Drawing, { blob, width, height }: PictureSize): Picture => {
  const known = pictureOf(drawing, blob);
  if (known) return known;
  const box = drawingBounds(drawing);
  const size = box ? Math.max(box.maxX - box.minX, box.maxY - box.minY) : 0;
  const called = greatest([
    0,
    ...calloutsOf(drawing).map(({ kind, value }) => (kind === "length" || kind === "centres" ? value : 0)),
  ]);
  const scale = (1.3 * Math.max(size, called, unitOf(drawing) === "in" ? 4 : 100)) / Math.max(width, height);
  const { datum } = settingsOf(drawing);
  const at = { x: datum.x - (width * scale) / 2, y: datum.y + (height * scale) / 2 };
  const lie = { at, scale, angle: 0, scaled: false, shown: false, locked: false, opacity: 0.5 };
  return { id: 0, blob, width, height, ...lie };
};

const put = (drawing: Drawing, picture: Picture, label: string): Edit => {
  const draft = draftEdit(drawing, label, "picture");
  const id = picture.id || draft.newId();
  draft.set("picture", id, { ...picture, id });
  return draft.finish();
};

/** Shows, hides, fades or locks a picture under the drawing. */
export const changePicture = (
  drawing: Drawing,
  size: PictureSize,
  change: Partial<Pick<Picture, "shown" | "locked" | "opacity">>,
): Edit => {
  const label =
    change.shown === undefined
      ? change.locked === undefined
        ? "Picture faded"
        : change.locked
          ? "Picture locked"
          : "Picture unlocked"
      : change.shown
        ? "Picture under the drawing"
        : "Picture hidden";
  return put(drawing, { ...laid(drawing, size), ...change }, label);
};

/**
 * Gives a picture its true scale: two places on it (pixels) are `length` apart. It turns into scale about the first
 * place, which keeps lying where it was; a picture that was nowhere yet is laid with the first place on the datum.
 */
export const scalePicture = (
  drawing: Drawing,
  size: PictureSize,
  p: Point,
  q: Point,
  length: number,
): Outcome<Edit> => {
  const apart = distance(p, q);
  if (apart < LEAST_PX) return refuse("picture-points-near");
  if (!(length > 0)) return refuse("value-not-positive", { what: "The length" });
  const before = laid(drawing, size);
  const fixed = before.id ? fromPicture(before, p) : settingsOf(drawing).datum;
  const picture = lyingAt({ ...before, scale: length / apart, scaled: true }, p, fixed);
  return done(put(drawing, picture, `Picture scaled to ${showLengthUnit(length, unitOf(drawing))}`));
};

/** Turns a picture about the first place so that both places lie level (or upright), by the smaller turn. */
export const levelPicture = (
  drawing: Drawing,
  size: PictureSize,
  p: Point,
  q: Point,
  way: "level" | "upright",
): Outcome<Edit> => {
  if (distance(p, q) < LEAST_PX) return refuse("picture-points-near");
  const before = laid(drawing, size);
  const now = angleOf(subtract(fromPicture(before, q), fromPicture(before, p)));
  const wanted = way === "level" ? 0 : Math.PI / 2;
  const over = signedAngle(2 * (now - wanted)) / 2; // a line has no head: turns of a half count for nothing
  const picture = lyingAt({ ...before, angle: signedAngle(before.angle - over) }, p, fromPicture(before, p));
  return done(put(drawing, picture, "Picture levelled"));
};

/** Moves a picture so that a place on it (pixels) lies at `to`. */
export const movePicture = (drawing: Drawing, size: PictureSize, p: Point, to: Point): Edit =>
  put(drawing, lyingAt(laid(drawing, size), p, to), "Picture moved");

/** Marks a line on the sketch, between two places on it, where layout is meant to lie; too short is refused. */
export const markPlan = (drawing: Drawing, size: PictureSize, a: Point, b: Point): Outcome<Edit> => {
  if (distance(a, b) < LEAST_PX) return refuse("picture-points-near");
  const picture = laid(drawing, size);
  return done(put(drawing, { ...picture, plan: [...(picture.plan ?? []), { a, b }] }, "Plan line"));
};

/** The plan line nearest to a place on the sketch, within `reach` pixels; -1 where there is none. */
export const planLineAt = ({ plan = [] }: Pick<Picture, "plan">, at: Point, reach: number): number => {
  const away = plan.map(({ a, b }) => pieceNearest({ a, b, bulge: 0 }, at).distance);
  const nearest = away.indexOf(least(away));
  return nearest >= 0 && away[nearest]! <= reach ? nearest : -1;
};

/** Takes a plan line off the sketch again, by its place in the list. */
export const dropPlan = (drawing: Drawing, blob: string, index: number): Outcome<Edit> => {
  const picture = pictureOf(drawing, blob);
  if (!picture?.plan?.[index]) return refuse("plan-not-here");
  const { plan, ...bare } = picture;
  const left = plan.filter((_, i) => i !== index);
  return done(put(drawing, left.length > 0 ? { ...bare, plan: left } : bare, "Plan line taken off"));
};

const lyingAt = (picture: Picture, p: Point, place: Point): Picture => {
  const { x, y } = turned({ x: p.x * picture.scale, y: -p.y * picture.scale }, picture.angle);
  return { ...picture, at: { x: place.x - x, y: place.y - y } };
};

/**
 * Lays a straightened picture in place of the photo: with its scale, and the callouts' pins moved on to it. `first` is
 * the corner (pixels of the photo) that lies on the datum where the photo lay nowhere yet.
 */
export const straightenedPicture = (
  drawing: Drawing,
  photo: PictureSize,
  blob: string,
  plan: StraightenPlan,
  first: Point,
): Edit => {
  const draft = draftEdit(drawing, "Picture straightened", "picture");
  const known = pictureOf(drawing, photo.blob);
  const { width, height, scale } = plan;
  const corner = throughHomography(plan.fromPhoto, first);
  const id = draft.newId();
  const base = laid(drawing, { blob, width, height });
  const place = known ? fromPicture(known, first) : settingsOf(drawing).datum;
  const straight = lyingAt(
    { ...base, id, scale, scaled: true, from: photo.blob, shown: known?.shown ?? false },
    corner,
    place,
  );
  // what lies beyond the photo's horizon has no place on the paper
  const onPaper = (p: Point): Point | undefined => {
    const { x, y, w } = throughHomography(plan.fromPhoto, p);
    return w > 0 && Number.isFinite(x + y) ? { x, y } : undefined;
  };
  const moved = known?.plan?.flatMap((line) => {
    const [a, b] = [onPaper(line.a), onPaper(line.b)];
    return a && b ? [{ a, b }] : [];
  });
  draft.set("picture", id, moved ? { ...straight, plan: moved } : straight);
  if (known?.shown) draft.set("picture", known.id, { ...known, shown: false });
  for (const callout of calloutsOf(drawing)) {
    if (callout.pin?.sketch !== photo.blob) continue;
    const at = throughHomography(plan.fromPhoto, { x: callout.pin.x * photo.width, y: callout.pin.y * photo.height });
    const pin = { sketch: blob, x: at.x / width, y: at.y / height };
    draft.set("callout", callout.id, { ...callout, pin });
  }
  return draft.finish();
};

/** What a length measured on a picture comes to; undefined while the picture has no scale. An honest guess, no more. */
export const lengthOnPicture = (drawing: Drawing, blob: string, p: Point, q: Point): number | undefined => {
  const picture = pictureOf(drawing, blob);
  return picture?.scaled ? distance(p, q) * picture.scale : undefined;
};
