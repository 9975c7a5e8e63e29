import { Paperclip } from "lucide-react";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { calloutsInText, unitOfText } from "@ash-edge/core/callouts";
import type { InboxState, ListedJob } from "../store/index.ts";
import { JobOfMessage } from "./JobOfMessage.tsx";
import { MarkedText } from "./MarkedText.tsx";
import { attachmentAt, type Message } from "./useInbox.ts";

const sizeWords = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

/** A message whole, the numbers in it that would be callouts marked, what came with it, and the job made of it. */
export const MessageView = ({
  message,
  state,
  number,
  taken,
  jobs,
}: {
  message: Message;
  state: InboxState | undefined;
  number: string;
  taken: readonly string[];
  jobs: readonly ListedJob[];
}) => {
  const [making, setMaking] = useState(false);
  const { from, subject, date, text, attachments } = message;
  const found = useMemo(() => calloutsInText(text, unitOfText(text)), [text]);
  const made = jobs.find(({ id }) => id === state?.jobs[message.id])?.job;
  return (
    <article aria-label={subject} className="p-5">
      <div className="flex items-start gap-4">
        <div className="min-w-0 flex-1">
          <h2 className="text-lg font-semibold">{subject}</h2>
          <p className="text-soft">
            {from} · <span className="figures">{date}</span>
          </p>
        </div>
        <button
          type="button"
          className="h-8 shrink-0 rounded-card bg-ember px-3 font-semibold text-panel"
          onClick={() => setMaking(true)}
        >
          {made ? "Make another job of it" : "Make a job of it"}
        </button>
      </div>
      {made && (
        <p className="mt-2">
          Made of it:{" "}
          <Link to={`/jobs/${made.id}`} className="font-semibold text-ember underline">
            {`${made.number} ${made.name}`}
          </Link>
        </p>
      )}
      <p className="mt-4 max-w-[68ch] text-base leading-relaxed whitespace-pre-wrap">
        <MarkedText text={text} found={found} />
      </p>
      <p className="mt-3 text-xs text-soft">
        {found.length === 0
          ? "No numbers that would be callouts were found in it."
          : `${found.length} ${found.length === 1 ? "number" : "numbers"}, marked, would go into the job.`}
      </p>
      <h3 className="mt-5 border-t border-hair pt-3 font-semibold">
        {attachments.length === 0 ? "Nothing came with it" : "Came with it"}
      </h3>
      <ul className="mt-2 flex flex-col gap-3">
        {attachments.map((attachment) => (
          <li key={attachment.name}>
            <a
              href={attachmentAt(message, attachment)}
              download={attachment.name}
              className="inline-flex items-center gap-1.5 underline decoration-hair hover:decoration-ink"
            >
              <Paperclip size={14} aria-hidden="true" /> {attachment.name}
            </a>
            <span className="figures ml-2 text-xs text-soft">{sizeWords(attachment.size)}</span>
            {attachment.type.startsWith("image/") && (
              <img
                src={attachmentAt(message, attachment)}
                alt={attachment.name}
                className="mt-2 max-h-72 rounded-card border border-hair"
              />
            )}
          </li>
        ))}
      </ul>
      {making && <JobOfMessage message={message} number={number} taken={taken} onClose={() => setMaking(false)} />}
    </article>
  );
};
