import { useMemo, useState, type MouseEvent } from "react";
import { heldBy } from "@ash-edge/core/annotate";
import type { Fault } from "@ash-edge/core/checks";
import type { Drawing, Ref } from "@ash-edge/core/drawing";
import { boundsOf, curveBounds, growBounds, unionBounds, type Bounds, type Point } from "@ash-edge/core/geometry";
import { piecesPath, shapePath, thumbnailOf } from "../store/index.ts";

/** More places than so many are not marked one by one. */
const MARKED = 500;

const TONES = { error: "var(--fault)", warning: "var(--caution)", info: "var(--soft)" } as const;

/** So many pixels off something a click still means it. */
const REACH_PX = 9;

/** Where on the drawing a pointer is, and how far about that it means. */
const pointOn = ({ currentTarget, clientX, clientY }: MouseEvent<SVGSVGElement>): readonly [Point, number] => {
  const matrix = currentTarget.getScreenCTM()!;
  const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix.inverse());
  return [{ x, y: -y }, REACH_PX / matrix.a];
};

/** What is seen, nearer or farther about a place as the wheel turns. */
const nearer = ({ minX, minY, maxX, maxY }: Bounds, { x, y }: Point, turned: number): Bounds => {
  const by = 1.0015 ** turned;
  return { minX: x + (minX - x) * by, minY: y + (minY - y) * by, maxX: x + (maxX - x) * by, maxY: y + (maxY - y) * by };
};

/** An angle's sign with its corner at a place. */
const angleSign = ({ x, y }: Point, size: number): string =>
  `M${x + size} ${y}H${x}L${x + 0.8 * size} ${y + 0.8 * size}M${x + 0.6 * size} ${y}` +
  `A${0.6 * size} ${0.6 * size} 0 0 1 ${x + 0.42 * size} ${y + 0.42 * size}`;

/** The drawing with what stands against it at its places; near to what is chosen, which is lit. */
export const ProofPicture = ({
  drawing,
  faults,
  fault,
  refs,
  place,
  onPoint,
}: {
  drawing: Drawing;
  faults: readonly Fault[];
  /** The fault that is looked at. */
  fault: Fault | undefined;
  /** What answers the callout that is looked at. */
  refs: readonly Ref[];
  /** A place of the contour that is looked at. */
  place: Point | undefined;
  /** Where it is clicked, and how far about that is meant: the whole drawing is shown, the wheel brings it nearer. */
  onPoint?: ((at: Point, reach: number) => void) | undefined;
}) => {
  const [zoom, setZoom] = useState<Bounds>();
  if (zoom && !onPoint) setZoom(undefined);
  const picture = useMemo(() => thumbnailOf(drawing), [drawing]);
  const held = useMemo(() => heldBy(drawing, { refs }), [drawing, refs]);
  if (!picture)
    return (
      <section className="card grid flex-1 place-items-center" aria-label="Drawing">
        <p className="text-soft">Nothing is drawn yet.</p>
      </section>
    );
  const [x, y, width, height] = picture.box;
  const whole: Bounds = { minX: x, minY: y, maxX: x + width, maxY: y + height };
  const size = Math.max(width, height, 1e-9);
  const places = fault ? [fault.at, fault.to].filter((at) => at !== undefined) : place ? [place] : held.places;
  const near = unionBounds([
    ...(places.length > 0 ? [boundsOf(places)] : []),
    ...(fault ? [] : held.curves.map((curve) => curveBounds(curve)).filter((box) => box !== undefined)),
  ]);
  const box = onPoint
    ? (zoom ?? whole)
    : near
      ? growBounds(near, Math.max(0.15 * size, (near.maxX - near.minX) / 2, (near.maxY - near.minY) / 2))
      : whole;
  const shown = Math.max(box.maxX - box.minX, box.maxY - box.minY, 1e-9);
  const margin = 0.06 * shown;
  const stroke = { vectorEffect: "non-scaling-stroke" as const, strokeWidth: 1.4 };
  const dot = 0.012 * (shown + 2 * margin);
  return (
    <section className="card min-h-0 flex-1 overflow-hidden bg-board" aria-label="Drawing">
      <svg
        viewBox={[
          box.minX - margin,
          -box.maxY - margin,
          box.maxX - box.minX + 2 * margin,
          box.maxY - box.minY + 2 * margin,
        ].join(" ")}
        className={`h-full w-full ${onPoint ? "cursor-crosshair" : ""}`}
        role="img"
        aria-label={onPoint ? "Drawing to point at" : near ? "What is chosen, near" : "The whole drawing"}
        onClick={(event) => onPoint?.(...pointOn(event))}
        onWheel={(event) => onPoint && setZoom(nearer(box, pointOn(event)[0], event.deltaY))}
      >
        <g transform="scale(1 -1)" fill="none">
          <path d={picture.outside + picture.inside} fill="var(--ink)" fillOpacity={0.06} fillRule="evenodd" />
          <path d={picture.outside} stroke="var(--ink)" {...stroke} />
          <path d={picture.inside} stroke="var(--inside)" {...stroke} />
          <path d={picture.open} stroke="var(--fault)" {...stroke} />
          {picture.marks && <path d={picture.marks} stroke="var(--soft)" {...stroke} strokeDasharray="4 2" />}
          {held.curves.map((curve, i) => (
            <path key={i} d={shapePath(curve, whole)} stroke="var(--moss)" {...stroke} strokeWidth={4} />
          ))}
          {held.places.map((at, i) => (
            <circle key={i} cx={at.x} cy={at.y} r={2 * dot} stroke="var(--moss)" {...stroke} strokeWidth={2} />
          ))}
          {place && (
            <circle cx={place.x} cy={place.y} r={2 * dot} stroke="var(--ember)" {...stroke} strokeWidth={2.5} />
          )}
          {faults.slice(0, MARKED).map((one, i) => {
            if (!one.at) return null;
            const colour = TONES[one.severity];
            const isLit = one === fault;
            return (
              <g key={i} stroke={colour} opacity={fault && !isLit ? 0.35 : 1}>
                {one.to && (
                  <path d={`M${one.at.x} ${one.at.y}L${one.to.x} ${one.to.y}`} {...stroke} strokeWidth={2.5} />
                )}
                {one.region && <path d={piecesPath(one.region, true)} fill={colour} fillOpacity={0.7} stroke="none" />}
                {one.code === "kink" ? (
                  <path d={angleSign(one.at, isLit ? 3 * dot : 2 * dot)} {...stroke} strokeWidth={2} />
                ) : (
                  <circle cx={one.at.x} cy={one.at.y} r={isLit ? 2 * dot : dot} {...stroke} strokeWidth={2} />
                )}
              </g>
            );
          })}
        </g>
      </svg>
    </section>
  );
};
