/** Long work away from the page: what it is and how far. */
export type Work = { readonly words: string; readonly part: number };

export type WorkEvent =
  { readonly type: "going on"; readonly words: string; readonly part: number } | { readonly type: "ended" };

export const workAfter = (_: Work | undefined, event: WorkEvent): Work | undefined =>
  event.type === "ended" ? undefined : { words: event.words, part: event.part };
