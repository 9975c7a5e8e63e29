import type { Page } from "@playwright/test";

type Listed = { readonly sketch?: string; readonly state?: string };

const route = async (page: Page, to: (jobs: readonly Listed[]) => readonly Listed[]): Promise<void> => {
  await page.route("**/api/demo", async (route) => {
    const answer = await route.fetch();
    await route.fulfill({ json: { jobs: to(((await answer.json()) as { jobs: Listed[] }).jobs) } });
  });
};

/** Serves the demo's jobs as they came from their customers: sketched, with nothing drawn yet. */
export const sketchedOnly = (page: Page): Promise<void> =>
  route(page, (jobs) => jobs.flatMap(({ state: _, ...job }) => (job.sketch ? [job] : [])));

/** Serves no demo, for what makes its own jobs. */
export const noDemo = (page: Page): Promise<void> => route(page, () => []);
