import { useEffect, type ReactNode } from "react";
import { ErrorBoundary, type FallbackProps } from "react-error-boundary";
import { Link, useRouteError } from "react-router";
import { isStoreFault, sayStoreFault } from "../store/index.ts";
import { Brand } from "../ui/Brand.tsx";

const button = "h-8 shrink-0 rounded-card border border-hair bg-panel px-3 hover:border-ink";

/** What went wrong, in words: what the store said, a part of the application that could not be loaded, or a fault. */
const wordsOf = (reason: unknown): string => {
  if (isStoreFault(reason)) return sayStoreFault(reason);
  if (/dynamically imported module|Importing a module|module script/i.test(String((reason as Error)?.message)))
    return "This place could not be loaded: the server is not there, or has a newer version. Try again once it is.";
  return "The application made a mistake here. What is stored is not touched by it.";
};

/** For whoever mends it: the error itself goes where such things are looked for, not on the screen. */
const useReported = (reason: unknown): void => useEffect(() => console.error(reason), [reason]);

/** In place of a place that failed: what happened, and the ways out of it. */
export const FaultPage = ({ reason, children }: { reason: unknown; children?: ReactNode }) => {
  useReported(reason);
  return (
    <main className="p-4">
      <Brand />
      <section role="alert" className="card mx-auto mt-24 max-w-lg p-6">
        <h1 className="text-lg font-semibold text-fault">Something went wrong</h1>
        <p className="mt-2">{wordsOf(reason)}</p>
        <div className="mt-4 flex flex-wrap gap-2">
          {children}
          <button type="button" className={button} onClick={() => location.reload()}>
            Load it again
          </button>
          <Link to="/jobs" reloadDocument className={`${button} grid place-items-center`}>
            Show all jobs
          </Link>
        </div>
      </section>
    </main>
  );
};

/** What the router shows where a place failed. */
export const PlaceFault = () => <FaultPage reason={useRouteError()} />;

/** In place of a panel that failed; the others go on. */
const PanelFault = ({ name, error, resetErrorBoundary }: FallbackProps & { name: string }) => {
  useReported(error);
  return (
    <section role="alert" aria-label={name} className="card flex h-full flex-col gap-2 overflow-auto p-3">
      <b className="text-fault">{name} can’t be shown.</b>
      <p className="text-soft">{wordsOf(error)} The rest of the bench works on.</p>
      <button type="button" className={`${button} self-start`} onClick={resetErrorBoundary}>
        Show it again
      </button>
    </section>
  );
};

/** Keeps a fault of one panel to that panel. It is tried again when `when` changes. */
export const Guard = ({ name, when, children }: { name: string; when?: unknown; children: ReactNode }) => (
  <ErrorBoundary resetKeys={[when]} fallbackRender={(props) => <PanelFault {...props} name={name} />}>
    {children}
  </ErrorBoundary>
);
