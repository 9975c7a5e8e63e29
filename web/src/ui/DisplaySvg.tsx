import { FONT_FAMILY, FONT_SIZE, type Display } from "@ash-edge/core/annotate";
import { piecesPath } from "../store/index.ts";

/** What dimensions and notes are drawn with, as a part of an SVG whose y goes up. */
export const DisplaySvg = ({ displays, colour }: { displays: readonly Display[]; colour: string }) => (
  <g fill="none" stroke={colour} strokeWidth={1} vectorEffect="non-scaling-stroke">
    {displays.flatMap(({ id, drawn }) =>
      drawn.map((one, i) => {
        const key = `${id} ${i}`;
        if (one.kind === "stroke")
          return (
            <path
              key={key}
              d={one.pieces.map((piece) => piecesPath([piece], false)).join("")}
              vectorEffect="non-scaling-stroke"
              strokeDasharray={one.centre ? "13 3 2 3" : undefined}
            />
          );
        if (one.kind === "terminator")
          return (
            <path
              key={key}
              d={`M${one.points.map(({ x, y }) => `${x} ${y}`).join("L")}${one.closed ? "Z" : ""}`}
              fill={one.filled ? colour : "none"}
              vectorEffect="non-scaling-stroke"
            />
          );
        const { x, y } = one.middle;
        return (
          <text
            key={key}
            transform={`translate(${x} ${y}) scale(1 -1) rotate(${(-one.angle * 180) / Math.PI})`}
            y={one.height / 2}
            textAnchor="middle"
            fontFamily={`"${FONT_FAMILY}", monospace`}
            fontSize={one.height * FONT_SIZE}
            fill={colour}
            stroke="none"
          >
            {one.text}
          </text>
        );
      }),
    )}
  </g>
);
