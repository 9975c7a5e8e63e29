import { KEY_STEP } from "../numeric/tolerance.ts";
import type { Circle } from "../geometry/circle.ts";
import type { Piece } from "../geometry/piece.ts";
import type { Point } from "../geometry/point.ts";

/** What can be tidied: lines, arcs, circles, and chains of them; each with what tells it from a duplicate. */
export type Thing = {
  readonly id: number;
  readonly shape:
    | ({ readonly kind: "piece" } & Piece)
    | ({ readonly kind: "circle" } & Circle)
    | { readonly kind: "chain"; readonly closed: boolean; readonly pieces: readonly Piece[] };
  readonly layer: string | number;
  readonly colour?: string;
  readonly line?: string;
  /** Something is attached to it, so of two copies it stays. */
  readonly attached?: boolean;
};

/** Where a piece that stands afterwards came from: a thing, and which of its pieces. */
export type Origin = { readonly id: number; readonly piece: number };

/** A piece that went, and one that stays where it lay. */
export type Absorbed = readonly [went: Origin, stays: Origin];

/** A thing that stands after tidying. */
export type Tidied = Omit<Thing, "id" | "attached"> & {
  /** The thing that it was, number for number; undefined where it was changed or made. */
  readonly same?: number;
  /** For each of its pieces (one for a circle) the pieces that it came from. */
  readonly origins: readonly (readonly Origin[])[];
};

export const TIDY_CODES = [
  "duplicate",
  "overlap",
  "fragment",
  "gap",
  "tail",
  "open",
  "crossing",
  "shared-edge",
  "tiny",
] as const;
export type TidyCode = (typeof TIDY_CODES)[number];

/** Something that tidying met. */
export type Finding = {
  readonly code: TidyCode;
  readonly severity: "error" | "warning" | "info";
  /** This call mended it; `mendable` says whether tidying can. */
  readonly fixed: boolean;
  readonly mendable: boolean;
  readonly at: Point;
  /** The things that it is about, of two that lie on one another the later one first. */
  readonly ids: readonly number[];
  readonly values: Readonly<Record<string, number | string>>;
};

/** What may differ between two duplicates in any case: what files show things by, and nothing of what is cut. */
export const SHOWN_BY = ["colour", "line"] as const;

export type TidyOptions = {
  /** What may be mended, in the drawing's unit. */
  readonly tolerance: number;
  /** What may differ between two duplicates. */
  readonly ignore: ReadonlySet<"layer" | "colour" | "line">;
  readonly sharedEdges: "keep" | "drop" | "merge";
  /** Which findings are mended; all where it is missing. */
  readonly accept?: (finding: Omit<Finding, "fixed">) => boolean;
  /** Told how far the work is, 0 to 1. */
  readonly report?: (part: number) => void;
};

const ERRORS: ReadonlySet<TidyCode> = new Set(["duplicate", "overlap", "gap", "tail", "open", "crossing"]);
/** Whether a finding stands in the way of cutting, should be looked at, or is only said. */
export const severityOf = (code: TidyCode): Finding["severity"] =>
  ERRORS.has(code) ? "error" : code === "fragment" ? "info" : "warning";

/** The same for the same thing met again, so that it can be mended alone or left as it is. */
export const findingKey = ({ code, at, ids }: Omit<Finding, "fixed">): string => {
  const place = `${code} ${Math.round(at.x / KEY_STEP)} ${Math.round(at.y / KEY_STEP)}`;
  return code === "duplicate" || code === "overlap" ? `${place} ${ids[0]!}` : place;
};

export type TidyResult = {
  readonly things: readonly Tidied[];
  readonly findings: readonly Finding[];
  /**
   * Duplicates and overlaps that went, with what stays in their place: attachments go there. One that went after
   * another had gone to it comes before that.
   */
  readonly absorbed: readonly Absorbed[];
};
