import type { Id } from "../numeric/id.ts";

/** An entity, a piece of a chain (by the vertex at which it starts), or a place on one. */
export type Ref = { readonly id: Id; readonly vertex?: Id; readonly place?: "start" | "end" | "middle" | "centre" };

export const sameRef = (p: Ref, q: Ref): boolean => p.id === q.id && p.vertex === q.vertex;
