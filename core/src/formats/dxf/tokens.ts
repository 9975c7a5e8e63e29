import { refuse, type Refusal } from "../../numeric/outcome.ts";
import { numberAt } from "./numbers.ts";

/**
 * Runs over the groups of a DXF without making anything of them: `next` steps to one and is false at the end or where
 * the file is no DXF or damaged (then `refusal` says why). A group's value lies between two places, from which `text`
 * and `number` take it.
 */
export type Tokens = {
  next: () => boolean;
  refusal: Refusal | undefined;
  code: number;
  /** The line of the code; in a binary file its byte. */
  line: number;
  from: number;
  to: number;
  /** The value as text without blanks around it. */
  readonly text: (code: number, from: number, to: number) => string;
  /** The value as a number; NaN where it is none. */
  readonly number: (code: number, from: number, to: number) => number;
};

const BINARY_MARK = "Binary DXF\r\n\u001a\0";

/** The groups of a DXF, ASCII (as text or bytes) or binary. */
export const tokensOf = (source: string | Uint8Array): Tokens => {
  if (typeof source === "string") return asciiTokens(source);
  const mark = names.decode(source.subarray(0, 24)).indexOf(BINARY_MARK);
  if (mark >= 0) return binaryTokens(source, mark + BINARY_MARK.length);
  // told before hundreds of megabytes are decoded for nothing
  return asciiTokens(source.subarray(0, 4096).includes(0) ? "\0" : decoded(source));
};

const names = new TextDecoder("utf-8");

/** Newer files are UTF-8; older ones name the code page that their names are in. */
const decoded = (bytes: Uint8Array): string => {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder(codePageOf(bytes)).decode(bytes);
  }
};

/** The code pages of `$DWGCODEPAGE` that the Encoding Standard (WHATWG) knows under other names. */
const CODE_PAGES: Readonly<Record<string, string>> = {
  ANSI_874: "windows-874",
  ANSI_932: "shift_jis",
  ANSI_936: "gbk",
  ANSI_949: "euc-kr",
  ANSI_950: "big5",
  DOS866: "ibm866",
  DOS932: "shift_jis",
};
/** The variable stands among the first of the header. */
const HEAD = 65_536;

/** The encoding that a file's header names; the western one where it names none that is known. */
const codePageOf = (bytes: Uint8Array): string => {
  const head = new TextDecoder("latin1").decode(bytes.subarray(0, HEAD));
  const named = /\$DWGCODEPAGE\s+3\s+(\S+)/i.exec(head)?.[1]?.toUpperCase() ?? "";
  const windows = /^ANSI_(125[0-8])$/.exec(named)?.[1];
  return windows ? `windows-${windows}` : (CODE_PAGES[named] ?? "windows-1252");
};

/** The character that ends a line. */
const FEED = 10;

const unused = { refusal: undefined, code: 0, line: 0, from: 0, to: 0 };

const asciiTokens = (whole: string): Tokens => {
  const text = whole.includes("\n") ? whole : whole.replaceAll("\r", "\n");
  let at = 0;
  let stop = 0; // the end of the line of the code
  let line = 0;
  let ended = false;
  const lasts = new Map<number, { readonly line: string; readonly trimmed: string }>(); // what a code had last
  /** The end of the line that starts at a place: before its line feed. */
  const lineEnd = (start: number): number => {
    const end = text.indexOf("\n", start);
    return end < 0 ? text.length : end;
  };
  const refused = (refusal: Refusal): false => {
    tokens.refusal = refusal;
    ended = true;
    return false;
  };
  /**
   * The group code on the line at hand: at most four digits, a sign before them, blanks around them; undefined for
   * anything else.
   */
  const readCode = (): number | undefined => {
    let i = at;
    let c = text.charCodeAt(i);
    while (c <= 32 && c !== FEED) c = text.charCodeAt(++i);
    const negative = c === 45;
    if (negative) c = text.charCodeAt(++i);
    let code = 0;
    let digits = 0;
    for (; c >= 48 && c <= 57; digits++, c = text.charCodeAt(++i)) code = code * 10 + (c - 48);
    while (c <= 32 && c !== FEED) c = text.charCodeAt(++i);
    stop = c === FEED ? i : lineEnd(i);
    return stop > i || digits === 0 || digits > 4 ? undefined : negative ? -code : code;
  };
  const next = (): boolean => {
    if (ended) return false;
    const code = readCode();
    if (code === undefined) {
      ended = true;
      const rest = /\S/.test(text.slice(at, stop)) || /\S/.test(text.slice(stop));
      // blank lines after the last group end the file
      return rest
        ? refused(refuse("dxf-bad-code", { line: line + 1, found: printable(text.slice(at, stop)) }).refusal)
        : false;
    }
    if (stop + 1 >= text.length) return refused(refuse("dxf-truncated", { line: line + 1 }).refusal);
    const end = lineEnd(stop + 1);
    tokens.code = code;
    tokens.line = line + 1;
    tokens.from = stop + 1;
    tokens.to = end;
    line += 2;
    at = end + 1;
    return true;
  };
  const tokens: Tokens = {
    ...unused,
    next,
    text: (code, from, to) => {
      // types, layers and the like come again and again: the same text need not be made anew
      const last = lasts.get(code);
      if (last?.line.length === to - from && text.startsWith(last.line, from)) return last.trimmed;
      const line = text.slice(from, to);
      const trimmed = line.trim();
      lasts.set(code, { line, trimmed });
      return trimmed;
    },
    number: (_, from, to) => numberAt(text, from, to),
  };
  if (!/\S/.test(text)) refused(refuse("dxf-empty").refusal);
  else if (text.slice(0, 4096).includes("\0")) refused(refuse("dxf-not-text").refusal);
  return tokens;
};

const printable = (text: string): string =>
  text
    .trim()
    .slice(0, 24)
    .replace(/[^\u0020-\u007e]/g, "?");

type Stored = "text" | "double" | "int16" | "int32" | "int64" | "flag" | "bytes";
const SIZES: Readonly<Record<Stored, number>> = { double: 8, int16: 2, int32: 4, int64: 8, flag: 1, bytes: 1, text: 0 };

/** How the value of a group code is stored in a binary DXF, as the format's public reference has it. */
const storedAs = (code: number): Stored => {
  const within = (...ranges: readonly (readonly [number, number])[]): boolean =>
    ranges.some(([from, to]) => code >= from && code <= to);
  if (within([10, 59], [110, 149], [210, 239], [460, 469], [1010, 1059])) return "double";
  if (within([60, 79], [170, 179], [270, 289], [370, 389], [400, 409], [1060, 1070])) return "int16";
  if (within([90, 99], [420, 429], [440, 459], [1071, 1071])) return "int32";
  if (within([160, 169])) return "int64";
  if (within([290, 299])) return "flag";
  if (within([310, 319], [1004, 1004])) return "bytes";
  return "text";
};

const binaryTokens = (bytes: Uint8Array, start: number): Tokens => {
  const data = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let [at, ended] = [start, false];
  // the old form has one byte for a code (255 and two more for the high ones), the newer one two
  const wide = bytes[start + 1] === 0 && bytes[start] === 0;
  const cut = (): false => {
    tokens.refusal = refuse("dxf-cut-short", { place: at }).refusal;
    ended = true;
    return false;
  };
  const next = (): boolean => {
    if (ended || at >= bytes.length) return false;
    const place = at;
    let code: number;
    if (wide) {
      if (at + 2 > bytes.length) return cut();
      code = data.getInt16(at, true);
      at += 2;
    } else if (bytes[at] === 255) {
      if (at + 3 > bytes.length) return cut();
      code = data.getInt16(at + 1, true);
      at += 3;
    } else code = bytes[at++]!;
    const kind = storedAs(code);
    if (at + SIZES[kind] > bytes.length) return cut();
    tokens.code = code;
    tokens.line = place;
    tokens.from = at;
    if (kind === "text") {
      const end = bytes.indexOf(0, at);
      if (end < 0) return cut();
      tokens.to = end;
      at = end + 1;
    } else {
      at += SIZES[kind] + (kind === "bytes" ? bytes[at]! : 0);
      if (at > bytes.length) return cut();
      tokens.to = at;
    }
    return true;
  };
  const number = (code: number, from: number, to: number): number => {
    switch (storedAs(code)) {
      case "double":
        return data.getFloat64(from, true);
      case "int16":
        return data.getInt16(from, true);
      case "int32":
        return data.getInt32(from, true);
      case "int64":
        return Number(data.getBigInt64(from, true));
      case "flag":
        return bytes[from]!;
      case "bytes":
        return NaN;
      case "text": {
        const text = names.decode(bytes.subarray(from, to));
        return numberAt(text, 0, text.length);
      }
    }
  };
  const tokens: Tokens = {
    ...unused,
    next,
    text: (code, from, to) =>
      storedAs(code) === "text" ? names.decode(bytes.subarray(from, to)).trim() : String(number(code, from, to)),
    number,
  };
  return tokens;
};
