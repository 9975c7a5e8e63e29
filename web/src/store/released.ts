import type { Database } from "./database.ts";

/**
 * Names the place in a job's history at which it stands in the store: the number of its last step and that step's
 * token, so that another step of the same number, after an undo, is another place.
 */
export const placeInHistory = async (database: Database, job: string): Promise<string> => {
  const position = (await database.heads.get(job))?.position ?? 0;
  const last = position === 0 ? undefined : await database.journal.get([job, position - 1]);
  return `${position}.${last?.token ?? 0}`;
};

/** The id under which a release of a job is kept. */
export const releaseId = (job: string, number: number): string => `${job}-release-${number}`;

/** How the state of a job reads: a released one may have been changed since. */
export const stateWords = ({
  state,
  changed,
  released,
}: {
  readonly state: string;
  readonly changed?: boolean;
  readonly released?: { readonly number: number };
}): string => (changed ? `changed since ${released ? `r${released.number}` : "its release"}` : state);
