import type { Callout } from "@ash-edge/core/drawing";
import { useDatabase } from "../app/StoreProvider.tsx";
import { useSketches } from "../ui/useSketch.ts";

/** So much of the sketch's width is shown about a pin. */
const PART = 0.34;

/** Where a callout stands on the sketch, near enough to be read. */
export const PinPicture = ({ job, pin }: { job: string; pin: NonNullable<Callout["pin"]> }) => {
  const sketch = useSketches(useDatabase(), job)?.find(({ id }) => id === pin.sketch);
  if (!sketch) return null;
  const { width, height, url } = sketch;
  const [w, h] = [PART * width, (PART * width) / 2];
  const [x, y] = [pin.x * width - w / 2, pin.y * height - h / 2];
  return (
    <section className="card shrink-0 overflow-hidden" aria-label="On the sketch">
      <h2 className="px-3 py-1.5 font-semibold">On the sketch</h2>
      <svg
        viewBox={`${x} ${y} ${w} ${h}`}
        className="block h-44 w-full border-t border-hair"
        role="img"
        aria-label={sketch.name}
      >
        <image href={url} width={width} height={height} />
        <circle
          cx={pin.x * width}
          cy={pin.y * height}
          r={0.07 * w}
          fill="none"
          stroke="var(--ember)"
          strokeWidth={2}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
    </section>
  );
};
