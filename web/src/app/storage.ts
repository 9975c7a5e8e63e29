import { remember, remembered } from "../ui/remembered.ts";
/** How the browser keeps what is stored: whether it may clear it by itself, and how much there is. */
export type Storage = {
  /** Undefined where the browser does not say. */
  readonly persisted: boolean | undefined;
  readonly used: number | undefined;
  readonly free: number | undefined;
};

/** Of the browser's storage manager, which plain http and some browsers don't have. */
const manager = (): StorageManager | undefined =>
  typeof navigator === "undefined" ? undefined : (navigator.storage as StorageManager | undefined);

const ASKED = "ash-edge-asked-to-keep";

/** Asks the browser once, after the first own job, not to clear what is stored when room runs short. */
export const askToKeep = (): void => {
  if (remembered(ASKED)) return;
  remember(ASKED, "yes");
  void manager()
    ?.persist?.()
    .catch(() => false);
};

/** Asks again, as somebody wants it; true where the browser keeps the data. */
export const keepStored = async (): Promise<boolean> =>
  (await manager()
    ?.persist?.()
    .catch(() => false)) ?? false;

/** How the browser keeps the data now. */
export const storageNow = async (): Promise<Storage> => {
  const persisted = await manager()
    ?.persisted?.()
    .catch(() => undefined);
  const estimate = await manager()
    ?.estimate?.()
    .catch(() => undefined);
  const { usage: used, quota } = estimate ?? {};
  return { persisted, used, free: quota === undefined || used === undefined ? undefined : Math.max(0, quota - used) };
};
