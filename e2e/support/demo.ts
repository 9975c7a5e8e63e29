import type { Page } from "@playwright/test";

type Listed = { readonly head: { readonly name: string }; readonly sketch?: string; readonly state?: string };

/** The answer is made before the page asks, so that none is being fetched when the page goes on elsewhere. */
const route = async (page: Page, to: (jobs: readonly Listed[]) => readonly Listed[]): Promise<void> => {
  const { jobs } = (await (await page.request.get("/api/demo")).json()) as { jobs: Listed[] };
  await page.route("**/api/demo", (route) => route.fulfill({ json: { jobs: to(jobs) } }));
};

/** Serves the demo's jobs, all or the one of a name, as they came from their customers: sketched, nothing drawn. */
export const sketchedOnly = (page: Page, name?: string): Promise<void> =>
  route(page, (jobs) =>
    jobs.flatMap(({ state: _, ...job }) => (job.sketch && (name ?? job.head.name) === job.head.name ? [job] : [])),
  );

/** Serves no demo, for what makes its own jobs. */
export const noDemo = (page: Page): Promise<void> => route(page, () => []);
