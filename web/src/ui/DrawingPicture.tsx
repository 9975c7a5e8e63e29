import type { Display } from "@ash-edge/core/annotate";
import { boxWith, type Thumbnail } from "../store/index.ts";
import { DisplaySvg } from "./DisplaySvg.tsx";

/** Outlines in a small picture, filled where closed, in the colours of their roles. */
export const DrawingPicture = ({
  thumbnail,
  displays = [],
  className,
  title,
}: {
  thumbnail: Thumbnail;
  /** Dimensions, notes and marks over it. */
  displays?: readonly Display[];
  className?: string;
  title?: string;
}) => {
  const [x, y, width, height] = boxWith(thumbnail.box, displays);
  const margin = 0.04 * Math.max(width, height, 1e-9);
  const stroke = { vectorEffect: "non-scaling-stroke" as const, strokeWidth: 1.4 };
  return (
    <svg
      viewBox={`${x - margin} ${-y - height - margin} ${width + 2 * margin} ${height + 2 * margin}`}
      className={className}
      role={title ? "img" : undefined}
      aria-label={title}
      aria-hidden={title ? undefined : true}
    >
      <g transform="scale(1 -1)" fill="none">
        <path d={thumbnail.outside + thumbnail.inside} fill="var(--ink)" fillOpacity={0.07} fillRule="evenodd" />
        <path d={thumbnail.outside} stroke="var(--ink)" {...stroke} />
        <path d={thumbnail.inside} stroke="var(--inside)" {...stroke} />
        <path d={thumbnail.open} stroke="var(--ink)" {...stroke} />
        {thumbnail.dimensions && <path d={thumbnail.dimensions} stroke="var(--soft)" {...stroke} strokeWidth={0.6} />}
        {displays.length > 0 && <DisplaySvg displays={displays} colour="var(--ink)" />}
        {thumbnail.marks && <path d={thumbnail.marks} stroke="var(--soft)" {...stroke} strokeDasharray="4 2" />}
      </g>
    </svg>
  );
};
