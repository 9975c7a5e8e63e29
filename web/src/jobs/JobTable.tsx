import {
  createColumnHelper,
  createSortedRowModel,
  rowSortingFeature,
  sortFn_alphanumeric,
  tableFeatures,
  useTable,
} from "@tanstack/react-table";
import { useVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp, Ellipsis } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useMemo, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { toast } from "sonner";
import type { Verdict } from "@ash-edge/core/checks";
import { useDatabase } from "../app/StoreProvider.tsx";
import {
  archiveJob,
  BIN_DAYS,
  binJob,
  duplicateJob,
  JOB_STATES,
  type JobRecord,
  releaseId,
  stateWords,
  unbinJob,
} from "../store/index.ts";
import { VERDICT_SIGNS } from "../ui/verdictSigns.ts";
import { JobDetails } from "./JobDetails.tsx";
import { JobPicture } from "./JobPicture.tsx";
import type { TableSettings } from "./useTableSettings.ts";

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric },
});
const helper = createColumnHelper<typeof features, JobRecord>();
const sortFn = "alphanumeric";
const columns = helper.columns([
  helper.accessor("number", { header: "No.", sortFn }),
  helper.accessor("name", { header: "Part", sortFn }),
  helper.accessor((job) => [job.thickness, job.material].filter(Boolean).join(" "), {
    id: "material",
    header: "Material",
    sortFn,
  }),
  helper.accessor("unit", { header: "Unit", sortFn }),
  helper.accessor((job) => String(job.quantity), { id: "quantity", header: "Qty", sortFn }),
  helper.accessor("due", { header: "Due", sortFn }),
  helper.accessor((job) => String(JOB_STATES.indexOf(job.state)), { id: "state", header: "State", sortFn }),
]);

const GRID =
  "grid grid-cols-[7rem_4rem_minmax(0,3fr)_minmax(0,2fr)_3rem_3rem_6rem_10rem_2.5rem] items-center gap-2 px-3";
const ROW_PX = 73;
const STATE_COLOUR = { sketched: "text-soft", drawn: "text-ink", proved: "text-moss", released: "text-moss" } as const;

type Props = {
  readonly jobs: readonly JobRecord[];
  /** What was last said of those that were looked over as they stand. */
  readonly verdicts: ReadonlyMap<string, Verdict> | undefined;
  readonly nextNumber: string;
  readonly settings: TableSettings;
  readonly onChange: (change: Partial<TableSettings>) => void;
};

/** The jobs that are asked for, sorted, only the rows in sight in the page. */
export const JobTable = ({ jobs, verdicts, nextNumber, settings, onChange }: Props) => {
  const wanted = useMemo(() => {
    const words = settings.search.toLowerCase().split(/\s+/).filter(Boolean);
    const fits = (job: JobRecord): boolean => {
      const text = `${job.number} ${job.name} ${job.customer} ${job.material} ${job.thickness}`.toLowerCase();
      const shown = settings.archived === (job.archived ?? false);
      return (
        shown &&
        (settings.state === "all" || job.state === settings.state) &&
        words.every((word) => text.includes(word))
      );
    };
    return jobs.filter(fits);
  }, [jobs, settings.search, settings.state, settings.archived]);
  const table = useTable({
    features,
    columns,
    data: wanted,
    state: { sorting: settings.sorting },
    onSortingChange: (updater) =>
      onChange({ sorting: typeof updater === "function" ? updater(settings.sorting) : updater }),
  });
  const rows = table.getRowModel().rows;
  const scroll = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW_PX,
    overscan: 6,
  });
  return (
    <div role="table" aria-label="Jobs" aria-rowcount={rows.length + 1} className="flex min-h-0 flex-1 flex-col">
      <div role="row" className={`${GRID} border-t border-hair py-1 text-xs text-soft`}>
        <span role="columnheader" className="sr-only">
          Picture
        </span>
        <span aria-hidden="true" />
        {table.getHeaderGroups()[0]!.headers.map((header) => {
          const sorted = header.column.getIsSorted();
          return (
            <span
              key={header.id}
              role="columnheader"
              aria-sort={sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : "none"}
            >
              <button
                type="button"
                onClick={header.column.getToggleSortingHandler()}
                className="inline-flex h-6 items-center gap-1 hover:text-ink"
              >
                <table.FlexRender header={header} />
                {sorted === "asc" && <ArrowUp size={12} aria-hidden="true" />}
                {sorted === "desc" && <ArrowDown size={12} aria-hidden="true" />}
              </button>
            </span>
          );
        })}
        <span role="columnheader" className="sr-only">
          Actions
        </span>
      </div>
      <div ref={scroll} className="min-h-0 flex-1 overflow-y-auto">
        {rows.length === 0 && (
          <p className="border-t border-hair px-3 py-12 text-center text-soft">
            No job fits what is asked for. Search for less, or show all states.
          </p>
        )}
        <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const job = rows[index]!.original;
            return <Row key={job.id} job={job} verdict={verdicts?.get(job.id)} top={start} nextNumber={nextNumber} />;
          })}
        </div>
      </div>
    </div>
  );
};

const Row = ({
  job,
  verdict,
  top,
  nextNumber,
}: {
  job: JobRecord;
  verdict: Verdict | undefined;
  top: number;
  nextNumber: string;
}) => {
  const navigate = useNavigate();
  return (
    <div
      role="row"
      style={{ transform: `translateY(${top}px)`, height: ROW_PX }}
      className={`${GRID} absolute inset-x-0 cursor-pointer border-t border-hair hover:bg-board`}
      onClick={() => void navigate(`/jobs/${job.id}`)}
    >
      <span role="cell">
        <JobPicture job={job} />
      </span>
      <span role="cell" className="figures font-semibold">
        {job.number}
      </span>
      <span role="cell" className="min-w-0">
        <Link
          to={`/jobs/${job.id}`}
          onClick={(event) => event.stopPropagation()}
          className="block truncate font-semibold hover:underline"
        >
          {job.name}
        </Link>
        <span className="block truncate text-soft">{job.customer}</span>
      </span>
      <span role="cell" className="truncate text-soft">
        {[job.thickness, job.material].filter(Boolean).join(" ")}
      </span>
      <span role="cell" className="figures text-soft">
        {job.unit}
      </span>
      <span role="cell" className="figures text-soft">
        {job.quantity} ×
      </span>
      <span role="cell" className="figures text-soft">
        {job.due}
      </span>
      <span role="cell" className={job.changed ? "text-caution" : STATE_COLOUR[job.state]}>
        {job.changed && job.released ? (
          <Link
            to={`/jobs/${job.id}/compare?from=${releaseId(job.id, job.released.number)}&to=now`}
            className="underline"
            title="Compare it with what was released"
            onClick={(event) => event.stopPropagation()}
          >
            {stateWords(job)}
          </Link>
        ) : (
          stateWords(job)
        )}
        {verdict && (
          <span className={`line-clamp-2 text-xs ${VERDICT_SIGNS[verdict.state][1]}`} title={verdict.words}>
            {verdict.words}
          </span>
        )}
      </span>
      <span role="cell" onClick={(event) => event.stopPropagation()}>
        <Actions job={job} nextNumber={nextNumber} />
      </span>
    </div>
  );
};

const item = "flex h-7 cursor-default items-center rounded-card px-2.5 outline-none data-[highlighted]:bg-ember-wash";

const Actions = ({ job, nextNumber }: { job: JobRecord; nextNumber: string }) => {
  const database = useDatabase();
  const undoable = (text: string, undo: () => Promise<unknown>): void =>
    void toast(text, { action: { label: "Undo", onClick: () => void undo() } });
  const label = `${job.number} ${job.name}`;
  const remove = async (): Promise<void> => {
    await binJob(database, job.id);
    undoable(`${label} is in the bin, for ${BIN_DAYS} days`, () => unbinJob(database, job.id));
  };
  const archive = async (to: boolean): Promise<void> => {
    await archiveJob(database, job.id, to);
    undoable(`${label} ${to ? "archived" : "back in the list"}`, () => archiveJob(database, job.id, !to));
  };
  const duplicate = async (): Promise<void> => {
    const copy = await duplicateJob(database, job.id, nextNumber);
    if (copy) undoable(`${label} duplicated as ${nextNumber}`, () => binJob(database, copy));
  };
  const [open, setOpen] = useState(false);
  return (
    <>
      {open && <JobDetails job={job} onClose={() => setOpen(false)} />}
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger
          aria-label={`Actions for ${label}`}
          className="grid h-8 w-8 place-items-center rounded-card text-soft hover:bg-ground hover:text-ink"
        >
          <Ellipsis size={16} aria-hidden="true" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="card z-40 min-w-40 p-1" align="end">
            <DropdownMenu.Item className={item} onSelect={() => setOpen(true)}>
              Details …
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => void duplicate()}>
              Duplicate
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => void archive(!job.archived)}>
              {job.archived ? "Back to the list" : "Archive"}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => void remove()}>
              Delete
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </>
  );
};
