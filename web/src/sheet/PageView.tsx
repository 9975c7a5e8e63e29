import { useRef, useState, type PointerEvent } from "react";
import { FONT_FAMILY } from "@ash-edge/core/annotate";
import type { Point } from "@ash-edge/core/geometry";
import type { ShownPage } from "./shownPage.ts";

/** Steps of the arrow keys, mm. */
const [STEP, LARGE_STEP] = [1, 10];
const ARROWS: Readonly<Record<string, Point>> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: 1 },
  ArrowDown: { x: 0, y: -1 },
};

/** A page as it will be on paper; what moves is dragged, or moved by the arrow keys. */
export const PageView = ({
  page,
  name,
  pictures,
  onMove,
}: {
  page: ShownPage;
  name: string;
  /** Where pictures are found, by their names. */
  pictures: Readonly<Record<string, string>>;
  onMove?: ((by: Point) => void) | undefined;
}) => {
  const { width, height } = page;
  const [dragged, setDragged] = useState<Point>();
  const from = useRef<Point>(undefined);
  const placeOf = ({ currentTarget, clientX, clientY }: PointerEvent<SVGSVGElement>): Point => {
    const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(currentTarget.getScreenCTM()!.inverse());
    return { x, y: -y };
  };
  const by = dragged ?? { x: 0, y: 0 };
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      style={{ aspectRatio: `${width} / ${height}`, ["--paper-width" as string]: `${width}mm` }}
      className={`paper block w-full rounded-card  ${onMove ? "cursor-move touch-none" : ""}`}
      role="img"
      aria-label={name}
      tabIndex={onMove ? 0 : undefined}
      onKeyDown={(event) => {
        const way = onMove && ARROWS[event.key];
        if (!way) return;
        event.preventDefault();
        const step = event.shiftKey ? LARGE_STEP : STEP;
        onMove({ x: way.x * step, y: way.y * step });
      }}
      onPointerDown={(event) => {
        if (!onMove) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = placeOf(event);
      }}
      onPointerMove={(event) => {
        if (!from.current) return;
        const at = placeOf(event);
        setDragged({ x: at.x - from.current.x, y: at.y - from.current.y });
      }}
      onPointerUp={() => {
        if (dragged) onMove?.(dragged);
        from.current = undefined;
        setDragged(undefined);
      }}
      onPointerCancel={() => {
        from.current = undefined;
        setDragged(undefined);
      }}
    >
      {page.groups.map(({ clip, moves, paths, texts, pictures: shown }, i) => (
        <g key={i} transform={moves ? `translate(${by.x} ${-by.y})` : undefined}>
          {clip && (
            <clipPath id={`${name} ${i}`.replace(/\W+/g, "-")}>
              <rect x={clip.minX} y={height - clip.maxY} width={clip.maxX - clip.minX} height={clip.maxY - clip.minY} />
            </clipPath>
          )}
          <g clipPath={clip ? `url(#${`${name} ${i}`.replace(/\W+/g, "-")})` : undefined}>
            {shown.map(({ name: picture, box: { minX, minY, maxX, maxY } }) => (
              <image
                key={picture}
                href={pictures[picture]}
                x={minX}
                y={height - maxY}
                width={maxX - minX}
                height={maxY - minY}
              />
            ))}
            <g transform={`translate(0 ${height}) scale(1 -1)`} fill="none" stroke="currentColor">
              {paths.map(({ d, width: line, dashes, filled }, k) => (
                <path
                  key={k}
                  d={d}
                  strokeWidth={line}
                  strokeDasharray={dashes || undefined}
                  fill={filled ? "currentColor" : "none"}
                />
              ))}
            </g>
            {texts.map(({ text, x, y, size, angle }, k) => (
              <text
                key={k}
                transform={`translate(${x} ${height - y}) rotate(${(-angle * 180) / Math.PI})`}
                fontFamily={`"${FONT_FAMILY}", monospace`}
                fontSize={size}
                fill="currentColor"
                xmlSpace="preserve"
              >
                {text}
              </text>
            ))}
          </g>
        </g>
      ))}
    </svg>
  );
};
