import { useQuery } from "@tanstack/react-query";
import { useLiveQuery } from "dexie-react-hooks";
import Joi from "joi";
import { useDatabase } from "../app/StoreProvider.tsx";
import { inboxState, type InboxState } from "../store/index.ts";

export type Attachment = { readonly name: string; readonly type: string; readonly size: number };

/** A customer's message: who sent it, what it says, and what came with it. */
export type Message = {
  readonly id: string;
  readonly from: string;
  readonly subject: string;
  readonly date: string;
  readonly text: string;
  readonly attachments: readonly Attachment[];
};

const words = (most: number): Joi.StringSchema => Joi.string().max(most).required();
const schema = Joi.object({
  messages: Joi.array()
    .max(1000)
    .items(
      Joi.object({
        id: words(80).pattern(/^[\w-]+$/),
        from: words(120),
        subject: words(120),
        date: words(10).pattern(/^\d{4}-\d\d-\d\d$/),
        text: words(20_000).allow(""),
        attachments: Joi.array()
          .max(50)
          .items(
            Joi.object({
              name: words(200).pattern(/^[^/\\]+$/),
              type: words(120),
              size: Joi.number().min(0).required(),
            }).unknown(),
          )
          .required(),
      }).unknown(),
    )
    .required(),
}).unknown();

/** A server that does not answer within this is taken for none. */
const SERVER_MS = 4000;

/** The messages, the latest first; null where no server is there, or it has no mailbox. */
const fetchInbox = async (): Promise<readonly Message[] | null> => {
  let answer: Response;
  try {
    answer = await fetch("/api/inbox", { signal: AbortSignal.timeout(SERVER_MS) });
  } catch {
    return null;
  }
  if (answer.status === 404 || !answer.headers.get("content-type")?.includes("json")) return null;
  if (!answer.ok) throw new Error("The server did not give the inbox. Try again in a while.");
  const { value, error } = schema.validate(await answer.json().catch(() => undefined), { presence: "required" });
  if (error) throw new Error("What the server gave is no inbox that can be read. Ask who looks after it.");
  return [...(value as { messages: Message[] }).messages].sort((p, q) => q.date.localeCompare(p.date));
};

/** Where an attachment is fetched. */
export const attachmentAt = ({ id }: Message, { name }: Attachment): string =>
  `/api/inbox/${id}/${encodeURIComponent(name)}`;

export type Inbox = {
  /** Undefined until the server has answered; null where none is there. */
  readonly messages: readonly Message[] | null | undefined;
  readonly error: Error | null;
  readonly again: () => void;
  readonly state: InboxState | undefined;
  /** How many were not looked at yet. */
  readonly fresh: number;
};

/** The shop's messages with what this browser knows of them; `anew` asks the server also where it has answered. */
export const useInbox = (anew = false): Inbox => {
  const database = useDatabase();
  const { data, error, refetch } = useQuery({
    queryKey: ["inbox"],
    queryFn: fetchInbox,
    refetchOnMount: anew ? "always" : false,
  });
  const state = useLiveQuery(() => inboxState(database), [database]);
  const fresh = state ? (data ?? []).filter(({ id }) => !state.read.includes(id)).length : 0;
  return { messages: data, error, again: () => void refetch(), state, fresh };
};
