/** A worked example that is followed on this bench: the history's position at which each step so far began. */
export type Following = { readonly starts: readonly number[] };

export type FollowingEvent = { readonly type: "at"; readonly starts: readonly number[] } | { readonly type: "left" };

export const followingAfter = (_: Following | undefined, event: FollowingEvent): Following | undefined =>
  event.type === "left" ? undefined : { starts: event.starts };
