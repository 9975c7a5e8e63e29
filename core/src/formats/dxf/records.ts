import type { Outcome } from "../../numeric/outcome.ts";
import { done, refuse } from "../../numeric/outcome.ts";
import type { Token, TokenSource } from "./tokens.ts";

/** A table row, a block's start, an entity: its type, where it begins, and its groups. */
export type DxfRecord = { readonly type: string; readonly line: number; readonly groups: readonly Token[] };

/** What the records of a file are told to; each in the order of the file. */
export type RecordTaker = {
  /** A header variable: its name and its first group. */
  readonly header: (name: string, value: Token) => void;
  readonly record: (section: string, record: DxfRecord) => void;
};

/** Runs through a file record by record, holding one at a time. A file whose last section is closed may lack its end mark. */
export const runRecords = (next: TokenSource, taker: RecordTaker): Outcome<true> => {
  let section: string | undefined;
  let sections = 0;
  let open: { type: string; line: number; groups: Token[] } | undefined;
  let variable: string | undefined;
  let line = 0;
  const finish = (): void => {
    if (!open) return;
    const record = open;
    open = undefined;
    if (record.type === "SECTION") {
      section = textOf(record.groups, 2) ?? "";
      sections += 1;
    } else if (record.type === "ENDSEC") section = undefined;
    else if (section !== undefined) taker.record(section, record);
  };
  for (;;) {
    const token = next();
    if (token === undefined) break;
    if ("refusal" in token) return { ok: false, refusal: token.refusal };
    line = token.line;
    if (token.code === 0) {
      finish();
      const type = token.text.trim();
      if (type === "EOF") return sections > 0 ? done(true) : refuse("dxf-no-entities");
      open = { type, line: token.line, groups: [] };
      continue;
    }
    if (section === "HEADER" && !(open && open.type !== "SECTION")) {
      if (token.code === 9) variable = token.text.trim();
      else if (variable) {
        taker.header(variable, token);
        variable = undefined;
      } else open?.groups.push(token);
      continue;
    }
    open?.groups.push(token);
    // the section's name comes with its first group; what follows in a header has no record of its own
    if (open?.type === "SECTION" && token.code === 2) finish();
  }
  finish();
  if (sections === 0) return refuse("dxf-no-entities");
  return section === undefined ? done(true) : refuse("dxf-truncated", { line });
};

export const textOf = (groups: readonly Token[], code: number): string | undefined =>
  groups.find((group) => group.code === code)?.text.trim();

/** A group's number; NaN when it is missing without a default or is no number, so that it fails every check. */
export const numberOf = (groups: readonly Token[], code: number, otherwise = NaN): number => {
  const text = textOf(groups, code);
  return text === undefined ? otherwise : numberIn(text);
};

export const numberIn = (text: string): number => (text.trim() === "" ? NaN : Number(text));

export const sound = (...numbers: readonly number[]): boolean =>
  numbers.every((number) => Number.isFinite(number) && Math.abs(number) <= 1e9);
