import { useEffect, useState, type ReactNode } from "react";
import { importReport } from "@ash-edge/core/formats";
import { readOpened, type Opened } from "../jobs/readOpened.ts";
import type { NewSketch } from "../store/index.ts";
import { isPdf } from "../ui/openPdf.ts";
import { useTakenPictures } from "../ui/useTakenPictures.tsx";
import { attachmentAt, type Attachment, type Message } from "./useInbox.ts";

type Drawn = Extract<Opened, { readonly kind: "drawing" }>;

/** What came with a message, fetched: sketches and drawings, each taken or left, and what could not be had. */
export type CameWith = {
  readonly isSettled: boolean;
  /** The sketches that are taken. */
  readonly sketches: readonly NewSketch[];
  /** The drawing that is taken. */
  readonly drawing: Drawn | undefined;
  readonly list: ReactNode;
  /** Asks which pages of a PDF are taken, while it does. */
  readonly dialog: ReactNode;
};

/** An attachment that takes longer is taken for lost. */
const FETCH_MS = 30_000;

const fetched = async (message: Message, attachment: Attachment, signal: AbortSignal): Promise<File> => {
  try {
    const answer = await fetch(attachmentAt(message, attachment), {
      signal: AbortSignal.any([signal, AbortSignal.timeout(FETCH_MS)]),
    });
    if (!answer.ok) throw new Error(answer.statusText);
    return new File([await answer.blob()], attachment.name, { type: attachment.type });
  } catch (reason) {
    if (signal.aborted) throw reason;
    throw new Error(`${attachment.name} could not be fetched. Ask again, or make the job without it.`, {
      cause: reason,
    });
  }
};

/** Fetches what came with a message, and lets one choose of it. */
export const useCameWith = (message: Message): CameWith => {
  const [sketches, setSketches] = useState<readonly NewSketch[]>([]);
  const [drawings, setDrawings] = useState<readonly Drawn[]>([]);
  const [drawing, setDrawing] = useState<Drawn>();
  const [left, setLeft] = useState<ReadonlySet<NewSketch>>(new Set());
  const [refused, setRefused] = useState<readonly string[]>([]);
  const [isSettled, setSettled] = useState(message.attachments.length === 0);
  const [asked, setAsked] = useState(0);
  const refuse = ({ message }: Error): void => setRefused((now) => [...now, message]);
  const pictures = useTakenPictures((sketch) => setSketches((now) => [...now, sketch]), refuse);
  useEffect(() => {
    const stop = new AbortController();
    const all = async (): Promise<void> => {
      setSettled(message.attachments.length === 0);
      setSketches([]);
      setDrawings([]);
      setDrawing(undefined);
      setRefused([]);
      for (const attachment of message.attachments) {
        try {
          const file = await fetched(message, attachment, stop.signal);
          if (stop.signal.aborted) return;
          if (/\.(?:dxf|svg)$/i.test(file.name)) {
            const read = await readOpened(file, stop.signal);
            if (stop.signal.aborted) return;
            if (read.kind !== "drawing") continue;
            setDrawings((now) => [...now, read]);
            setDrawing((now) => now ?? read);
          } else if (file.type.startsWith("image/") || (await isPdf(file))) await pictures.take([file]);
          else refuse(new Error(`${file.name} is no picture, PDF or drawing. It is left with the message.`));
        } catch (reason) {
          if (stop.signal.aborted) return;
          refuse(reason as Error);
        }
      }
      if (!stop.signal.aborted) setSettled(true);
    };
    void all();
    return () => stop.abort();
  }, [message, asked]); // eslint-disable-line react-hooks/exhaustive-deps
  const toggle = (sketch: NewSketch): void => {
    const next = new Set(left);
    if (!next.delete(sketch)) next.add(sketch);
    setLeft(next);
  };
  const list = (
    <div role="group" aria-label="Came with it" className="flex flex-col gap-1">
      <div className="text-soft">{message.attachments.length === 0 ? "Nothing came with it" : "Came with it"}</div>
      {sketches.map((sketch, i) => (
        <label key={i} className="flex items-center gap-2">
          <input type="checkbox" checked={!left.has(sketch)} onChange={() => toggle(sketch)} />
          {sketch.name} <span className="text-soft">as a sketch</span>
        </label>
      ))}
      {drawings.map((one) => (
        <div key={one.name}>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={drawing === one}
              onChange={() => setDrawing(drawing === one ? undefined : one)}
            />
            {one.name} <span className="text-soft">as the drawing</span>
          </label>
          <ul aria-label="What came" className="list-disc pl-9 text-xs text-soft">
            {importReport(one.read).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      ))}
      {!isSettled && (
        <p role="status" className="text-soft">
          Fetching …
        </p>
      )}
      {refused.length > 0 && (
        <div role="alert" className="text-fault">
          {refused.map((words) => (
            <p key={words}>{words}</p>
          ))}
          <button
            type="button"
            className="mt-1 h-7 rounded-card border border-hair px-2 text-ink"
            onClick={() => setAsked(asked + 1)}
          >
            Ask again
          </button>
        </div>
      )}
    </div>
  );
  return {
    isSettled,
    sketches: sketches.filter((sketch) => !left.has(sketch)),
    drawing,
    list,
    dialog: pictures.dialog,
  };
};
