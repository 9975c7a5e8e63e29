import { X } from "lucide-react";

/** The name of what stands in the pieces' place, and the way back to them. */
export const PanelHead = ({ title, onClose }: { title: string; onClose: () => void }) => (
  <header className="flex items-center gap-2 px-3 py-1.5">
    <b className="flex-1">{title}</b>
    <button
      type="button"
      aria-label="Back to the pieces"
      title="Back to the pieces"
      onClick={onClose}
      className="grid h-6 w-6 place-items-center rounded-card text-soft hover:text-ink"
    >
      <X size={14} aria-hidden="true" />
    </button>
  </header>
);
