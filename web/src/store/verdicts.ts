import Joi from "joi";
import type { Verdict } from "@ash-edge/core/checks";
import type { Database } from "./database.ts";
import type { JobRecord } from "./rows.ts";

const PREFIX = "verdict ";

/** What was said of a job when it was looked over: at which step of it, and of which stock. */
type Kept = Verdict & { readonly token: number; readonly material: string; readonly thickness: string };

const schema = Joi.object({
  state: Joi.valid("ready", "but for", "not ready").required(),
  words: Joi.string().max(300).required(),
  token: Joi.number().integer().required(),
  material: Joi.string().allow("").required(),
  thickness: Joi.string().allow("").required(),
});

/** Keeps what was said of a job as it stands at `token`; nothing is kept of one that was changed meanwhile. */
export const keepVerdict = (
  database: Database,
  { id, material, thickness }: JobRecord,
  token: number,
  { state, words }: Verdict,
): Promise<void> =>
  database.transaction("rw", database.heads, database.settings, async () => {
    const head = await database.heads.get(id);
    if ((head?.token ?? 0) !== token) return;
    const value: Kept = { state, words, token, material, thickness };
    await putVerdict(database, id, value);
  });

/** Puts what was said of a job as it came from elsewhere; it is read as carefully as any. */
export const putVerdict = async (database: Database, job: string, value: unknown): Promise<void> =>
  void (await database.settings.put({ key: PREFIX + job, value }));

/** The verdicts that still speak of their job as it stands and of what it is made of, by its id. */
export const verdictsNow = async (
  database: Database,
  jobs: readonly JobRecord[],
): Promise<ReadonlyMap<string, Verdict>> => {
  const kept = await database.settings.where("key").startsWith(PREFIX).toArray();
  const by = new Map(kept.map(({ key, value }) => [key.slice(PREFIX.length), value]));
  const named = jobs.filter(({ id }) => by.has(id));
  const heads = await database.heads.bulkGet(named.map(({ id }) => id));
  return new Map(
    named.flatMap(({ id, material, thickness }, i) => {
      const value = by.get(id) as Kept;
      const holds =
        !schema.validate(value, { convert: false }).error &&
        value.token === (heads[i]?.token ?? 0) &&
        value.material === material &&
        value.thickness === thickness;
      return holds ? [[id, { state: value.state, words: value.words }] as const] : [];
    }),
  );
};

/** Forgets what was said of a job that is erased; inside the caller's transaction. */
export const forgetVerdict = (database: Database, job: string): Promise<void> =>
  database.settings.delete(PREFIX + job) as Promise<void>;
