import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { Page } from "../app/Page.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { OpenFile } from "../jobs/OpenFile.tsx";
import { useDemo } from "../jobs/useDemo.ts";
import { listJobs, markRead, nextJobNumber } from "../store/index.ts";
import { MessageView } from "./MessageView.tsx";
import { useInbox, type Inbox as Known, type Message } from "./useInbox.ts";

/** The shop's mailbox: what customers sent, and the way from it to a job. */
export const Inbox = () => {
  const { message: chosen } = useParams();
  const database = useDatabase();
  const inbox = useInbox(true);
  const { messages, error, again, state, fresh } = inbox;
  const demo = useDemo(); // its jobs have numbers, too
  const all = useLiveQuery(() => listJobs(database), [database]);
  const listed = demo.isPending ? undefined : all;
  const [opening, setOpening] = useState(false);
  const message = messages?.find(({ id }) => id === chosen);
  const isNew = message !== undefined && state !== undefined && !state.read.includes(message.id);
  useEffect(() => {
    if (message && isNew) void markRead(database, message.id).catch(() => undefined);
  }, [database, message, isNew]);
  const number = nextJobNumber(listed ?? []);
  const taken = listed?.flatMap(({ job }) => job?.number ?? []) ?? [];
  return (
    <Page title="Inbox">
      <div className="card mx-auto flex h-full max-w-[1240px] overflow-hidden">
        <section aria-label="Messages" className="flex w-80 shrink-0 flex-col border-r border-hair">
          <h1 className="px-3 py-2.5 text-lg font-semibold">
            Inbox
            {messages && <span className="figures ml-2 text-sm font-normal text-soft">{`${fresh} new`}</span>}
          </h1>
          {messages && <MessageList messages={messages} chosen={chosen} state={state} />}
        </section>
        <div className="min-w-0 flex-1 overflow-y-auto">
          {message && listed ? (
            <MessageView key={message.id} message={message} state={state} number={number} taken={taken} jobs={listed} />
          ) : (
            <div className="px-6 py-16 text-center">
              {error ? (
                <>
                  <p role="alert" className="text-fault">
                    {error.message}
                  </p>
                  <button type="button" className="mt-3 h-8 rounded-card border border-hair px-3" onClick={again}>
                    Ask again
                  </button>
                </>
              ) : messages === null ? (
                <>
                  <p className="text-base">No server is there, so there is no inbox.</p>
                  <p className="mt-1 text-soft">
                    Everything else works. What a customer sent can be opened as a file, or put in a new job.
                  </p>
                  <div className="mt-4 flex justify-center gap-2">
                    <button
                      type="button"
                      disabled={!listed}
                      className="h-8 rounded-card bg-ember px-3 font-semibold text-panel"
                      onClick={() => setOpening(true)}
                    >
                      Open a file
                    </button>
                    <button type="button" className="h-8 rounded-card border border-hair px-3" onClick={again}>
                      Ask again
                    </button>
                  </div>
                </>
              ) : (
                <p className="text-soft">
                  {messages === undefined
                    ? "Asking the server …"
                    : chosen !== undefined
                      ? "This message is not there any more."
                      : messages.length === 0
                        ? "No messages."
                        : "Choose a message: a job can be made of it, with what came with it."}
                </p>
              )}
            </div>
          )}
        </div>
      </div>
      {opening && <OpenFile number={number} taken={taken} onClose={() => setOpening(false)} />}
    </Page>
  );
};

const MessageList = ({
  messages,
  chosen,
  state,
}: {
  messages: readonly Message[];
  chosen: string | undefined;
  state: Known["state"];
}) => (
  <ul className="min-h-0 flex-1 overflow-y-auto">
    {messages.map(({ id, from, subject, date, attachments }) => {
      const isNew = state !== undefined && !state.read.includes(id);
      return (
        <li key={id}>
          <Link
            to={`/inbox/${id}`}
            aria-current={id === chosen ? "page" : undefined}
            className={"block border-t border-hair px-3 py-2 " + (id === chosen ? "bg-ember-wash" : "hover:bg-board")}
          >
            <span className="flex items-baseline gap-2">
              <span className={`min-w-0 flex-1 truncate ${isNew ? "font-semibold" : ""}`}>{from}</span>
              {isNew && <span className="rounded-full bg-ember px-1.5 text-xs font-semibold text-panel">new</span>}
              <span className="figures shrink-0 text-xs text-soft">{date}</span>
            </span>
            <span className={`block truncate ${isNew ? "font-semibold" : "text-soft"}`}>{subject}</span>
            <span className="block truncate text-xs text-soft">
              {attachments.length === 0 ? "nothing attached" : attachments.map(({ name }) => name).join(", ")}
            </span>
          </Link>
        </li>
      );
    })}
  </ul>
);
