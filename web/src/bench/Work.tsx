import { useBench, useSession } from "./SessionContext.tsx";

/** Long work going on away from the page: what it is, how far, and the way to stop it. */
export const Work = () => {
  const { act } = useSession();
  const work = useBench((state) => state.work);
  if (!work) return null;
  return (
    <div
      role="status"
      aria-label="Work"
      className="card absolute bottom-10 left-2 z-10 flex items-center gap-3 px-3 py-2"
    >
      <span>{work.words} …</span>
      <progress
        {...(work.part === undefined ? {} : { value: work.part })}
        className="h-2 w-40 accent-[var(--ember)]"
        aria-label="How far"
      />
      <button
        type="button"
        className="h-7 rounded-card border border-hair px-2 hover:border-ink"
        onClick={act.stopWork}
      >
        Stop
      </button>
    </div>
  );
};
