import { toast } from "sonner";
import { standing } from "../ui/standingNotes.ts";
import { Workbox } from "workbox-window";

/** How often an open tab asks whether there is a newer version. */
const LOOKED_FOR_MS = 3_600_000;

/**
 * Keeps the application in the browser, so that it works without a network after one visit. A newer version is offered
 * and waits until it is taken: nothing is reloaded in the middle of work.
 */
export const keepOffline = (): void => {
  if (!("serviceWorker" in navigator)) return; // outside https and localhost
  const keeper = new Workbox("/sw.js");
  keeper.addEventListener("waiting", () => {
    toast("A newer version of Ash Edge is ready.", {
      id: standing("newer version"),
      duration: Infinity,
      action: {
        label: "Load it",
        onClick: () => {
          keeper.addEventListener("controlling", () => location.reload());
          keeper.messageSkipWaiting();
        },
      },
    });
  });
  void keeper.register().catch(() => undefined); // a browser that won't keep it works as before
  // a tab that stays open for days would not hear of it by itself
  setInterval(() => void keeper.update().catch(() => undefined), LOOKED_FOR_MS);
};
