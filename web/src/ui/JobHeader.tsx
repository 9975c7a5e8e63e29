import { Link } from "react-router";
import type { JobRecord } from "../store/index.ts";
import { Brand } from "./Brand.tsx";
import { ThemeButton } from "./ThemeButton.tsx";

/** Where a screen of a job stands, and the way back up. */
const JobPath = ({ job, place }: { job: JobRecord; place: string }) => (
  <nav aria-label="Place" className="min-w-0 truncate text-soft">
    <Link to="/jobs" className="hover:underline">
      Jobs
    </Link>{" "}
    /{" "}
    <Link to={`/jobs/${job.id}`} className="font-semibold text-ink hover:underline">
      {`${job.number} ${job.name}`}
    </Link>{" "}
    / {place}
  </nav>
);

const PLACES = [
  ["", "Bench"],
  ["prove", "Prove"],
  ["release", "Release"],
  ["sheet", "Sheet"],
  ["compare", "Compare"],
] as const;

type Place = keyof typeof NAMES;

/** The places of a job; the lit one is where one is. */
const JobPlaces = ({ job, at }: { job: string; at: Place }) => (
  <nav aria-label="Steps" className="card flex h-8 overflow-hidden">
    {PLACES.map(([to, words], i) => (
      <Link
        key={to}
        to={`/jobs/${job}${to && `/${to}`}`}
        aria-current={to === at ? "page" : undefined}
        className={
          `grid place-items-center px-3 ${i > 0 ? "border-l border-hair" : ""} ` +
          `${to === at ? "bg-ink text-panel" : "hover:bg-board"}`
        }
      >
        {words}
      </Link>
    ))}
  </nav>
);

const NAMES = { prove: "Prove", release: "Release", sheet: "Sheet", compare: "Compare", run: "Test run" } as const;

/** The top of a screen of a job beside its bench: where one is, and the other places. */
export const JobHeader = ({ job, at }: { job: JobRecord; at: Place }) => (
  <header className="flex items-center gap-3">
    <Brand />
    <JobPath job={job} place={NAMES[at]} />
    <span className="flex-1" />
    <ThemeButton />
    <JobPlaces job={job.id} at={at} />
  </header>
);
