import type { Page } from "@playwright/test";

type Listed = { readonly sketch?: string; readonly state?: string };

/** The answer is made before the page asks, so that none is being fetched when the page goes on elsewhere. */
const route = async (page: Page, to: (jobs: readonly Listed[]) => readonly Listed[]): Promise<void> => {
  const { jobs } = (await (await page.request.get("/api/demo")).json()) as { jobs: Listed[] };
  await page.route("**/api/demo", (route) => route.fulfill({ json: { jobs: to(jobs) } }));
};

/** Serves the demo's jobs as they came from their customers: sketched, with nothing drawn yet. */
export const sketchedOnly = (page: Page): Promise<void> =>
  route(page, (jobs) => jobs.flatMap(({ state: _, ...job }) => (job.sketch ? [job] : [])));

/** Serves no demo, for what makes its own jobs. */
export const noDemo = (page: Page): Promise<void> => route(page, () => []);
