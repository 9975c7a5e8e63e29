/** Long work away from the page: what it is, and how far, where anybody can tell. */
export type Work = { readonly words: string; readonly part: number | undefined };

export type WorkEvent = ({ readonly type: "going on" } & Work) | { readonly type: "ended" };

export const workAfter = (_: Work | undefined, event: WorkEvent): Work | undefined =>
  event.type === "ended" ? undefined : { words: event.words, part: event.part };
