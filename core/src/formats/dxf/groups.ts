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
const codeTexts = Array.from({ length: 1072 }, (_, code) => `${String(code).padStart(3)}\n`);

/** One group: its code on a line, its value on the next. */
export const group = (code: number, value: string | number): string => `${codeTexts[code]!}${value}\n`;

/** Groups one after another: code, value, code, value ... */
export const groups = (...pairs: readonly (string | number)[]): string => {
  let text = "";
  for (let i = 0; i < pairs.length; i += 2) text += group(pairs[i] as number, pairs[i + 1]!);
  return text;
};

/** A real number under a code. */
export const real = (code: number, value: number): string => group(code, dxfNumber(value));

/** A place: x under its code, y ten further, z (always 0) twenty further. */
export const place = (code: number, { x, y }: Point): string =>
  `${codeTexts[code]!}${dxfNumber(x)}\n${codeTexts[code + 10]!}${dxfNumber(y)}\n${codeTexts[code + 20]!}0.0\n`;

export const section = (name: string, content: string): string =>
  `${groups(0, "SECTION", 2, name)}${content}${group(0, "ENDSEC")}`;
