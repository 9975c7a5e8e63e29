import { useMemo } from "react";
import { entitiesOf, isLayout, pageChanges, type Drawing, type Entity } from "@ash-edge/core/drawing";
import { growBounds, unionBounds, type Bounds } from "@ash-edge/core/geometry";
import { shapeBounds } from "@ash-edge/core/shape";
import type { Tool } from "@ash-edge/tools";
import { shapePath } from "../store/index.ts";
import { showExample } from "@ash-edge/tools/example/carryOut";

/** What stands before, what goes and what is made, drawn by carrying out the tool's own example. */
export const ToolPicture = ({ tool, className }: { tool: Tool; className?: string }) => {
  const shown = useMemo(() => showExample(tool), [tool]);
  if (!shown || (shown.edits.length === 0 && !shown.said) || entityCount(shown.after) === 0) return null;
  const box = boundsOfAll(shown.before, shown.after);
  if (!box) return null;
  const made = new Set<number>();
  const gone: Entity[] = [];
  for (const [before, after] of pageChanges(shown.before.entity, shown.after.entity)) {
    if (after) made.add(after.id);
    if (before) gone.push(before);
  }
  const stroke = { fill: "none", vectorEffect: "non-scaling-stroke" as const };
  const all = [...entitiesOf(shown.after)];
  return (
    <svg
      viewBox={`${box.minX} ${-box.maxY} ${box.maxX - box.minX} ${box.maxY - box.minY}`}
      className={className}
      role="img"
      aria-label={`What ${tool.name} makes`}
    >
      <g transform="scale(1 -1)">
        {gone.map((entity) => (
          <path
            key={`gone ${entity.id}`}
            d={shapePath(entity, box)}
            {...stroke}
            stroke="var(--soft)"
            strokeWidth="1"
            strokeDasharray="3 3"
          />
        ))}
        {all
          .filter(({ id }) => !made.has(id))
          .map((entity) => (
            <path
              key={entity.id}
              d={shapePath(entity, box)}
              {...stroke}
              stroke={isLayout(shown.after, entity) ? "var(--layout)" : "var(--ink)"}
              strokeWidth="1.4"
            />
          ))}
        {all
          .filter(({ id }) => made.has(id))
          .map((entity) => (
            <path
              key={entity.id}
              d={shapePath(entity, box)}
              {...stroke}
              stroke="var(--ember)"
              strokeWidth="2.2"
              strokeDasharray={isLayout(shown.after, entity) ? "8 4" : undefined}
            />
          ))}
      </g>
    </svg>
  );
};

const entityCount = ({ entity }: Drawing): number => entity.size;

const boundsOfAll = (...drawings: readonly Drawing[]): Bounds | undefined => {
  const all = unionBounds(
    drawings.flatMap((drawing) => [...entitiesOf(drawing)].flatMap((entity) => shapeBounds(entity) ?? [])),
  );
  return all && growBounds(all, 0.12 * Math.max(all.maxX - all.minX, all.maxY - all.minY, 10));
};
