import { plainText } from "../../numeric/plainName.ts";
import type { Point } from "../../geometry/point.ts";

/** Numbers as the shortest text that reads back to the same double; never in a form that old readers don't take. */
export const dxfNumber = (value: number): string => {
  const text = String(value === 0 ? 0 : value);
  return text.includes("e") || Number.isInteger(value) ? plainNumber(text) : text;
};

/** Without an exponent where that is exact, with a decimal point always. */
const plainNumber = (text: string): string => {
  if (!text.includes("e")) return `${text}.0`;
  const [mantissa, exponent] = text.split("e") as [string, string];
  const sign = mantissa.startsWith("-") ? "-" : "";
  const [whole, part = ""] = mantissa.replace("-", "").split(".") as [string, string?];
  const power = Number(exponent);
  const digits = whole + part;
  const point = whole.length + power;
  if (point <= 0) return `${sign}0.${"0".repeat(-point)}${digits}`;
  return `${sign}${digits.padEnd(point, "0")}.0`;
};

/** Group codes as they are written, right in three places; made once. */
const CODES = Array.from({ length: 1072 }, (_, code) => String(code).padStart(3));

/** Whatever a name holds, a value stays on its line: the next line would be a group of its own. */
const oneLine = (value: string | number): string => (typeof value === "number" ? String(value) : plainText(value));

/** The groups of a DXF while they are put together: each a code on a line and its value on the next. */
export class GroupText {
  private readonly lines: string[] = [];

  /** Groups one after another: code, value, code, value ... */
  put(...pairs: readonly (string | number)[]): this {
    for (let i = 0; i < pairs.length; i += 2) this.lines.push(CODES[pairs[i] as number]!, oneLine(pairs[i + 1]!));
    return this;
  }
  /** A real number under a code. */
  real(code: number, value: number): this {
    this.lines.push(CODES[code]!, dxfNumber(value));
    return this;
  }
  /** A place: x under its code, y ten further, z (always 0) twenty further. */
  place(code: number, { x, y }: Point): this {
    return this.real(code, x)
      .real(code + 10, y)
      .put(code + 20, "0.0");
  }
  text(): string {
    return this.lines.length === 0 ? "" : `${this.lines.join("\n")}\n`;
  }
}

/** Groups one after another as text: code, value, code, value ... */
export const groups = (...pairs: readonly (string | number)[]): string => new GroupText().put(...pairs).text();

/** A section of a DXF file with its content. */
export const section = (name: string, content: string): string =>
  `${groups(0, "SECTION", 2, name)}${content}${groups(0, "ENDSEC")}`;
