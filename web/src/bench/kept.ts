import { NOTHING_KEPT, type Kept } from "./state/index.ts";

/** The name under which the bench's settings are stored. */
export const KEPT_KEY = "bench";

/** What was kept, with what is new since. */
export const keptOf = (stored: unknown): Kept => ({ ...NOTHING_KEPT, ...(stored as Partial<Kept> | undefined) });
