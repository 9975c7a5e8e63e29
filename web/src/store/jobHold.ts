/** A tab's hold on a job: only one tab at a time may change it. */
export type JobHold = {
  readonly isMine: () => boolean;
  /** Makes the job this tab's; the other one stores what it has and is read only from then on. */
  readonly takeOver: () => Promise<void>;
  readonly letGo: () => void;
};

type Told = {
  /** Another tab took the job over. */
  readonly onLost: () => void;
  /** Stores what is still to be stored, before the job is given away. */
  readonly finish: () => Promise<void>;
};

/** A tab that was just left, or is being reloaded, lets go within this. */
const OPEN_MS = 400;
/** So often it is tried at least, however long each try takes. */
const LEAST_TRIES = 4;
/** A tab that does not answer within this is taken the job from. */
const GIVE_MS = 1500;

const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** What stands for "this job is mine" between tabs; undefined where the browser has nothing of the kind. */
type Claim = {
  /** True once it is this tab's; false where another tab keeps it for longer than `ms`. */
  readonly take: (ms: number, lost: () => void) => Promise<boolean>;
  readonly steal: (lost: () => void) => Promise<void>;
  readonly free: () => void;
};

/** By the browser's own locks: a tab that ends lets go by itself. */
const lockClaim = (locks: LockManager, name: string): Claim => {
  let free: () => void = () => undefined;
  const request = (options: LockOptions, lost: () => void): Promise<boolean> =>
    new Promise((settled) => {
      let held = false;
      locks
        .request(name, options, (lock) => {
          if (!lock) return void settled(false);
          held = true;
          settled(true);
          return new Promise<void>((done) => (free = done));
        })
        .catch(() => (held ? lost() : settled(false)));
    });
  return {
    // each try is answered for certain: that a busy machine was slow never counts as held elsewhere
    take: async (ms, lost) => {
      const until = Date.now() + ms;
      for (let tries = 1; ; tries++) {
        if (await request({ ifAvailable: true }, lost)) return true;
        if (tries >= LEAST_TRIES && Date.now() >= until) return false;
        await wait(50);
      }
    },
    steal: async (lost) => void (await request({ steal: true }, lost)),
    free: () => free(),
  };
};

/** Where there are no locks (outside https and localhost): whoever holds the job answers when asked. */
const askingClaim = (channel: BroadcastChannel): Claim => {
  let held = false;
  const isHeldElsewhere = (ms: number): Promise<boolean> =>
    new Promise((settled) => {
      const onMessage = ({ data }: MessageEvent): void => {
        if (data !== "held") return;
        channel.removeEventListener("message", onMessage);
        settled(true);
      };
      channel.addEventListener("message", onMessage);
      channel.postMessage("held?");
      void wait(ms).then(() => {
        channel.removeEventListener("message", onMessage);
        settled(false);
      });
    });
  channel.addEventListener("message", ({ data }) => {
    if (data === "held?" && held) channel.postMessage("held");
  });
  return {
    take: async (ms) => {
      const until = Date.now() + ms;
      do {
        held = !(await isHeldElsewhere(Math.min(200, ms)));
        if (held) return true;
        await wait(50);
      } while (Date.now() < until);
      return held;
    },
    steal: async () => void (held = true),
    free: () => void (held = false),
  };
};

/**
 * Takes hold of a job, or finds it held by another tab. The other is asked to hand over before it is taken from: it
 * becomes read only at once, stores what it still has, and lets go.
 */
export const holdJob = async (job: string, { onLost, finish }: Told): Promise<JobHold> => {
  const name = `ash-edge-job-${job}`;
  const channel = typeof BroadcastChannel === "undefined" ? undefined : new BroadcastChannel(name);
  const locks = typeof navigator === "undefined" ? undefined : (navigator.locks as LockManager | undefined);
  const claim = locks ? lockClaim(locks, name) : channel ? askingClaim(channel) : undefined;
  let mine = false;
  const lost = (): void => {
    if (!mine) return;
    mine = false;
    onLost();
  };
  channel?.addEventListener("message", ({ data }) => {
    if (data !== "hand over" || !mine) return;
    lost();
    void finish()
      .catch(() => undefined)
      .then(() => claim?.free());
  });
  mine = claim ? await claim.take(OPEN_MS, lost) : true;
  return {
    isMine: () => mine,
    takeOver: async () => {
      if (mine) return;
      channel?.postMessage("hand over");
      if (claim && !(await claim.take(GIVE_MS, lost))) await claim.steal(lost);
      mine = true;
    },
    letGo: () => {
      mine = false;
      claim?.free();
      channel?.close();
    },
  };
};
