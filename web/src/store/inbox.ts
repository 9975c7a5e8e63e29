import Joi from "joi";
import type { Database } from "./database.ts";

/** What this browser knows of the messages: which were read, and which job was made of one. */
export type InboxState = {
  readonly read: readonly string[];
  readonly jobs: Readonly<Record<string, string>>;
};

const INBOX_KEY = "inbox";
const NOTHING: InboxState = { read: [], jobs: {} };
const schema = Joi.object({
  read: Joi.array().items(Joi.string()).required(),
  jobs: Joi.object().pattern(Joi.string(), Joi.string()).required(),
});

/** As stored in this browser; nothing where that is not sound. */
export const inboxState = async (database: Database): Promise<InboxState> => {
  const stored: unknown = (await database.settings.get(INBOX_KEY).catch(() => undefined))?.value;
  return schema.required().validate(stored, { convert: false }).error ? NOTHING : (stored as InboxState);
};

const change = (database: Database, to: (state: InboxState) => InboxState): Promise<void> =>
  database.transaction("rw", database.settings, async () => {
    await database.settings.put({ key: INBOX_KEY, value: to(await inboxState(database)) });
  });

/** A message was looked at: it is new no more. */
export const markRead = (database: Database, message: string): Promise<void> =>
  change(database, ({ read, jobs }) => ({ jobs, read: [...new Set([...read, message])] }));

/** A job was made of a message. */
export const keepJobOf = (database: Database, message: string, job: string): Promise<void> =>
  change(database, ({ read, jobs }) => ({ read, jobs: { ...jobs, [message]: job } }));
