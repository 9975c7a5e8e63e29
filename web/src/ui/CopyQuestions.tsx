import { Clipboard } from "lucide-react";
import { useState } from "react";

/** Copies what is to be asked of the customer; where the browser does not let it, the lines stand to be marked. */
export const CopyQuestions = ({ lines }: { lines: readonly string[] }) => {
  const [done, setDone] = useState<"copied" | "refused">();
  if (lines.length === 0) return null;
  return (
    <div className="border-t border-hair px-3 py-1.5">
      <button
        type="button"
        className="inline-flex h-6 items-center gap-1.5 rounded-card border border-hair px-1.5 text-xs hover:border-ink"
        onClick={() =>
          void navigator.clipboard.writeText(lines.join("\n")).then(
            () => setDone("copied"),
            () => setDone("refused"),
          )
        }
      >
        <Clipboard size={12} aria-hidden="true" />
        {done === "copied" ? "Copied" : "Copy as questions for the customer"}
      </button>
      {done === "refused" && (
        <pre className="mt-1.5 text-xs whitespace-pre-wrap" role="status">
          {lines.join("\n")}
        </pre>
      )}
    </div>
  );
};
