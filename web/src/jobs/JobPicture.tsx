import { useDatabase } from "../app/StoreProvider.tsx";
import type { JobRecord } from "../store/index.ts";
import { DrawingPicture } from "../ui/DrawingPicture.tsx";
import { useSketches } from "../ui/useSketch.ts";

/** What a job looks like: its drawing where there is one, else its sketch. */
export const JobPicture = ({ job }: { job: JobRecord }) => {
  const sketch = useSketches(useDatabase(), job.thumbnail ? undefined : job.id)?.[0];
  return (
    <div className="grid h-14 w-22 place-items-center overflow-hidden rounded-card border border-hair bg-board">
      {job.thumbnail ? (
        <DrawingPicture thumbnail={job.thumbnail} className="h-12 w-20" />
      ) : sketch ? (
        <img src={sketch.url} alt="" className="h-full w-full object-cover" />
      ) : (
        <span className="text-xs text-soft">empty</span>
      )}
    </div>
  );
};
