import type { Point } from "../../geometry/point.ts";
import { done, refuse, type Outcome } from "../../numeric/outcome.ts";
import { MOST_CURVES } from "../readShapes.ts";
import type { Tokens } from "./tokens.ts";

/** Group codes have at most four digits. */
const CODES = 10_000;

/** So many places that were read last are shared with what begins or ends there, too. */
const RECENT = 4;

/**
 * The groups of the record being read: places in the file, taken again for the next record, and where each code comes
 * first.
 */
export class Groups {
  count = 0;
  private readonly codes: number[] = [];
  private readonly froms: number[] = [];
  private readonly tos: number[] = [];
  private readonly firsts = new Int32Array(CODES);
  private readonly seenIn = new Int32Array(CODES);
  private serial = 1;
  private readonly recent: Point[] = Array.from({ length: RECENT }, () => ({ x: NaN, y: NaN }));
  private oldest = 0;
  private readonly tokens: Tokens;

  constructor(tokens: Tokens) {
    this.tokens = tokens;
  }
  clear(): void {
    this.count = 0;
    this.serial += 1;
  }
  /** Takes the group at which the tokens stand. */
  push(): void {
    const { code, from, to } = this.tokens;
    if (code >= 0 && this.seenIn[code] !== this.serial) {
      this.seenIn[code] = this.serial;
      this.firsts[code] = this.count;
    }
    this.codes[this.count] = code;
    this.froms[this.count] = from;
    this.tos[this.count] = to;
    this.count += 1;
  }
  code(i: number): number {
    return this.codes[i]!;
  }
  text(i: number): string {
    return this.tokens.text(this.codes[i]!, this.froms[i]!, this.tos[i]!);
  }
  number(i: number): number {
    return this.tokens.number(this.codes[i]!, this.froms[i]!, this.tos[i]!);
  }
  /**
   * The place whose x is under a code and whose y is under the one ten further; one that was just read where it has the
   * same numbers.
   */
  point(code: number): Point {
    const x = numberOf(this, code);
    const y = numberOf(this, code + 10);
    for (let i = 0; i < RECENT; i++) if (this.recent[i]!.x === x && this.recent[i]!.y === y) return this.recent[i]!;
    const made = { x, y };
    this.recent[this.oldest] = made;
    this.oldest = (this.oldest + 1) % RECENT;
    return made;
  }
  /** The place of the first group of a code, -1 where there is none. */
  first(code: number): number {
    return this.seenIn[code] === this.serial ? this.firsts[code]! : -1;
  }
}

/**
 * A table row, a block's start, an entity: its type, where it begins, and its groups. Good only until the next one is
 * read.
 */
export type DxfRecord = { readonly type: string; readonly line: number; readonly groups: Groups };

/** What the records of a file are told to; each in the order of the file. */
export type RecordTaker = {
  /** A header variable: its name and its first value. */
  readonly header: (name: string, value: string) => void;
  readonly record: (section: string, record: DxfRecord) => void;
  /** True once there is more than can be worked on: reading stops. */
  readonly full: () => boolean;
};

/** Of one record: a polyline's corner has up to five. */
const MOST_GROUPS = 5 * MOST_CURVES;
const tooMany = refuse("file-too-many", { limit: MOST_CURVES });

/**
 * Runs through a file record by record, holding one at a time. A file whose last section is closed may lack its end
 * mark.
 */
export const runRecords = (tokens: Tokens, taker: RecordTaker): Outcome<true> => {
  const groups = new Groups(tokens);
  let section: string | undefined;
  let sections = 0;
  let open: { type: string; line: number } | undefined;
  let variable: string | undefined;
  const here = (): string => tokens.text(tokens.code, tokens.from, tokens.to);
  const finish = (): void => {
    if (!open) return;
    const { type, line } = open;
    open = undefined;
    if (type === "SECTION") {
      section = textOf(groups, 2) ?? "";
      sections += 1;
    } else if (type === "ENDSEC") section = undefined;
    else if (section !== undefined) taker.record(section, { type, line, groups });
  };
  while (tokens.next()) {
    if (tokens.code === 0) {
      finish();
      if (taker.full()) return tooMany;
      const type = here();
      if (type === "EOF") return sections > 0 ? done(true) : refuse("dxf-no-entities");
      open = { type, line: tokens.line };
      groups.clear();
      continue;
    }
    if (section === "HEADER" && !(open && open.type !== "SECTION")) {
      if (tokens.code === 9) variable = here();
      else if (variable) {
        taker.header(variable, here());
        variable = undefined;
      }
      continue;
    }
    if (!open) continue;
    groups.push();
    if (groups.count > MOST_GROUPS) return tooMany;
    // the section's name comes with its first group; what follows in a header has no record of its own
    if (open.type === "SECTION" && tokens.code === 2) finish();
  }
  if (tokens.refusal) return { ok: false, refusal: tokens.refusal };
  finish();
  if (sections === 0) return refuse("dxf-no-entities");
  return section === undefined ? done(true) : refuse("dxf-truncated", { line: tokens.line });
};

/** The text of the first group of that code; undefined where there is none. */
export const textOf = (groups: Groups, code: number): string | undefined => {
  const i = groups.first(code);
  return i < 0 ? undefined : groups.text(i);
};

/** A group's number; NaN when it is missing without a default or is no number, so that it fails every check. */
export const numberOf = (groups: Groups, code: number, otherwise = NaN): number => {
  const i = groups.first(code);
  return i < 0 ? otherwise : groups.number(i);
};

/** Every number of one code, in the order of the file. */
export const numbersOf = (groups: Groups, code: number): number[] => {
  const found: number[] = [];
  for (let i = 0; i < groups.count; i++) if (groups.code(i) === code) found.push(groups.number(i));
  return found;
};

/** Every place whose x is under a code and whose y is under the one ten further, in the order of the file. */
export const pointsOf = (groups: Groups, x: number): Point[] => {
  const ys = numbersOf(groups, x + 10);
  return numbersOf(groups, x).map((value, i) => ({ x: value, y: ys[i] ?? NaN }));
};

const LARGEST = 1e9;

/** A number that makes geometry: finite, and of a size that some sheet may have. */
export const sound = (number: number): boolean => Math.abs(number) <= LARGEST;
