import { toast } from "sonner";
import { standing } from "../ui/standingNotes.ts";
import { Workbox } from "workbox-window";

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
};
