import { Dialog } from "radix-ui";
import { useState, type ReactNode } from "react";

/** A form in a dialog: its title, its blanks, and the two ways out of it. */
export const FormDialog = ({
  title,
  submit,
  onSubmit,
  onClose,
  ready = true,
  wide = false,
  holds = false,
  children,
}: {
  title: string;
  /** What the button says that does it. */
  submit: string;
  onSubmit: () => Promise<void>;
  onClose: () => void;
  /** Whether it can be done yet. */
  ready?: boolean;
  wide?: boolean;
  /** Something is in it that would be lost: it asks before it closes. */
  holds?: boolean;
  children: ReactNode;
}) => {
  const [asking, setAsking] = useState(false);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && (holds && !asking ? setAsking(true) : onClose())}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-shade" />
        <Dialog.Content
          className={
            "card fixed left-1/2 max-h-[94vh] -translate-x-1/2 overflow-y-auto p-5 " +
            (wide ? "top-[3vh] w-[32rem]" : "top-1/4 w-96")
          }
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-base font-semibold">{title}</Dialog.Title>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void onSubmit();
            }}
            className="mt-3 flex flex-col gap-3"
          >
            {children}
            {asking && holds && (
              <div role="alert" className="flex items-center gap-2 rounded-card bg-board px-2 py-1.5">
                <span className="flex-1">Throw away what is typed here?</span>
                <button
                  type="button"
                  className="h-7 rounded-card border border-hair px-2 hover:border-ink"
                  onClick={onClose}
                >
                  Throw it away
                </button>
                <button
                  type="button"
                  autoFocus
                  className="h-7 rounded-card border border-hair px-2 hover:border-ink"
                  onClick={() => setAsking(false)}
                >
                  Go on with it
                </button>
              </div>
            )}
            <div className="mt-2 flex justify-end gap-2">
              <Dialog.Close className="h-8 rounded-card border border-hair px-3">Cancel</Dialog.Close>
              <button
                type="submit"
                disabled={!ready}
                className="h-8 rounded-card bg-ember px-3 font-semibold text-panel disabled:opacity-50"
              >
                {submit}
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
};
