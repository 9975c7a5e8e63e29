import { Link } from "react-router";
import { Brand } from "../ui/Brand.tsx";

/** Nothing at this address: says so, and the way back. */
export const NotFound = ({ what }: { what: string }) => (
  <main className="p-4">
    <Brand />
    <section className="card mx-auto mt-24 max-w-md p-6 text-center">
      <h1 className="text-lg font-semibold">{what} does not exist</h1>
      <p className="mt-2 text-soft">
        It may have been deleted (the list of jobs has a bin), or the address has a slip in it.
      </p>
      <Link to="/jobs" className="mt-4 inline-block rounded-card bg-ember px-3 py-1.5 font-semibold text-panel">
        Show all jobs
      </Link>
    </section>
  </main>
);
