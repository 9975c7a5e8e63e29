import { refuse, type Refusal } from "../../numeric/outcome.ts";

/** One group of a DXF: its code, its text, and the line of the code (in a binary file its byte). */
export type Token = { readonly code: number; readonly text: string; readonly line: number };

/** Gives the groups one after another; undefined at the end, a refusal where the file is no DXF or damaged. */
export type TokenSource = () => Token | { readonly refusal: Refusal } | undefined;

const BINARY_MARK = "Binary DXF\r\n\u001a\0";

/** The groups of a DXF, ASCII (as text or bytes) or binary, one at a time. */
export const tokensOf = (source: string | Uint8Array): TokenSource => {
  if (typeof source === "string") return asciiTokens(source);
  const mark = names.decode(source.subarray(0, 24)).indexOf(BINARY_MARK);
  return mark >= 0 ? binaryTokens(source, mark + BINARY_MARK.length) : asciiTokens(names.decode(source));
};

const names = new TextDecoder("utf-8");
const GROUP_CODE = /^\s*-?\d{1,4}\s*$/;

const asciiTokens = (text: string): TokenSource => {
  if (!/\S/.test(text)) return () => refuse("dxf-empty");
  if (text.slice(0, 4096).includes("\0")) return () => refuse("dxf-not-text");
  let [at, line, ended] = [0, 0, false];
  const nextLine = (): string | undefined => {
    if (at >= text.length) return undefined;
    const end = text.indexOf("\n", at);
    const stop = end < 0 ? text.length : end;
    const found = text.slice(at, text.charCodeAt(stop - 1) === 13 && stop > at ? stop - 1 : stop);
    at = stop + 1;
    line += 1;
    return found;
  };
  return () => {
    if (ended) return undefined;
    const codeText = nextLine();
    // blank lines after the last group end the file
    if (codeText === undefined || (codeText.trim() === "" && !/\S/.test(text.slice(at)))) {
      ended = true;
      return undefined;
    }
    if (!GROUP_CODE.test(codeText))
      return refuse("dxf-bad-code", { line, found: printable(codeText.trim().slice(0, 24)) });
    const code = Number(codeText);
    const start = line;
    const value = nextLine();
    if (value === undefined) return refuse("dxf-truncated", { line });
    if (code === 0 && value.trim() === "EOF") ended = true;
    return { code, text: value, line: start };
  };
};

const printable = (text: string): string => text.replace(/[^\u0020-\u007e]/g, "?");

/** How the value of a group code is stored in a binary DXF, as the format's public reference has it. */
const storedAs = (code: number): "text" | "double" | "int16" | "int32" | "int64" | "flag" | "bytes" => {
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

const binaryTokens = (bytes: Uint8Array, start: number): TokenSource => {
  const data = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let [at, ended] = [start, false];
  // the old form has one byte for a code (255 and two more for the high ones), the newer one two
  const wide = bytes[start + 1] === 0 && bytes[start] === 0;
  const cut = (): { refusal: Refusal; ok: false } => refuse("dxf-cut-short", { place: at });
  return () => {
    if (ended || at >= bytes.length) return undefined;
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
    const size = { double: 8, int16: 2, int32: 4, int64: 8, flag: 1, bytes: 1, text: 0 }[kind];
    if (at + size > bytes.length) return cut();
    let text: string;
    if (kind === "text") {
      const end = bytes.indexOf(0, at);
      if (end < 0) return cut();
      text = names.decode(bytes.subarray(at, end));
      at = end + 1;
    } else if (kind === "bytes") {
      at += 1 + bytes[at]!;
      if (at > bytes.length) return cut();
      text = "";
    } else {
      text =
        kind === "double"
          ? String(data.getFloat64(at, true))
          : kind === "int16"
            ? String(data.getInt16(at, true))
            : kind === "int32"
              ? String(data.getInt32(at, true))
              : kind === "int64"
                ? String(data.getBigInt64(at, true))
                : String(bytes[at]);
      at += size;
    }
    if (code === 0 && text === "EOF") ended = true;
    return { code, text, line: place };
  };
};
