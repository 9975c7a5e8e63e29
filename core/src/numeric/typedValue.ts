import { done, refuse, type Outcome, type RefusalCode } from "./outcome.ts";
import { convertLength, type TypedUnit, type Unit } from "./units.ts";

/** How a number for something round is meant. */
export type SizeKind = "R" | "Ø";

export type TypedValue = { readonly value: number; readonly kind?: SizeKind };

/** What a blank takes: a length in the job's unit, an angle in degrees, a whole number, or a number without a unit. */
export type Expectation = "length" | "angle" | "count" | "number";

type Token = { readonly at: number } & (
  | { readonly type: "number"; readonly value: number; readonly whole: boolean }
  | { readonly type: "unit"; readonly unit: TypedUnit | "deg" }
  | { readonly type: "kind"; readonly kind: SizeKind }
  | {
      readonly type: "sign";
      readonly sign: "+" | "-" | "*" | "/" | "(" | ")";
      /** Blanks on neither side, on both, or on one only, which says nothing. */
      readonly blanks: 0 | 1 | 2;
    }
);

/** A quantity on the way: `power` 0 is a bare number, 1 a length with its unit written. */
type Quantity = { readonly value: number; readonly power: 0 | 1 };

/** A text that can be read in two ways: both are offered, none is guessed. */
class Asked extends Error {
  readonly ways: readonly [string, string];
  constructor(one: string, other: string) {
    super();
    this.ways = [one, other];
  }
}

class Unreadable extends Error {
  readonly code: RefusalCode;
  readonly place: number;
  readonly found: string;
  constructor(code: RefusalCode, place: number, found: string) {
    super(code);
    this.code = code;
    this.place = place;
    this.found = found;
  }
}

const WORDS: Record<string, { unit: TypedUnit | "deg" } | { kind: SizeKind }> = {
  mm: { unit: "mm" },
  cm: { unit: "cm" },
  m: { unit: "m" },
  in: { unit: "in" },
  ins: { unit: "in" },
  inch: { unit: "in" },
  inches: { unit: "in" },
  ft: { unit: "ft" },
  foot: { unit: "ft" },
  feet: { unit: "ft" },
  deg: { unit: "deg" },
  r: { kind: "R" },
  d: { kind: "Ø" },
  dia: { kind: "Ø" },
};
/** Marks of feet and inches as shops write them, straight, curled and as primes. */
const FEET = "'′’‘";
const INCHES = '"″”“';
/** Fractions of one character. */
const VULGAR: Readonly<Record<string, readonly [number, number]>> = {
  "½": [1, 2],
  "⅓": [1, 3],
  "⅔": [2, 3],
  "¼": [1, 4],
  "¾": [3, 4],
  "⅕": [1, 5],
  "⅛": [1, 8],
  "⅜": [3, 8],
  "⅝": [5, 8],
  "⅞": [7, 8],
};
const SIGNS: Record<string, "+" | "-" | "*" | "/" | "(" | ")"> = {
  "+": "+",
  "-": "-",
  "−": "-",
  "–": "-",
  "*": "*",
  "×": "*",
  "/": "/",
  "÷": "/",
  "⁄": "/",
  "(": "(",
  ")": ")",
};

const tokenise = (text: string): Token[] => {
  const tokens: Token[] = [];
  let at = 0;
  while (at < text.length) {
    const rest = text.slice(at);
    const space = /^\s+/.exec(rest);
    if (space) {
      at += space[0].length;
      continue;
    }
    const number = /^(\d+([.,]\d*)?|[.,]\d+)/.exec(rest);
    if (number) {
      const digits = number[0];
      // 1,250 is a thousand in one country and one and a quarter in the next; 0,250 and 1250,5 are neither
      if (/^[1-9]\d{0,2},\d{3}$/.test(digits)) {
        const [before, after] = [text.slice(0, at), text.slice(at + digits.length)];
        throw new Asked(`${before}${digits.replace(",", "")}${after}`, `${before}${digits.replace(",", ".")}${after}`);
      }
      const value = Number(digits.replace(",", "."));
      if (!Number.isFinite(value)) throw new Unreadable("value-too-large", at, digits);
      tokens.push({ type: "number", at, value, whole: /^\d+$/.test(digits) });
      at += digits.length;
      if (/^[.,]/.test(text.slice(at))) throw new Unreadable("value-unreadable", at, text[at]!);
      continue;
    }
    const letters = /^[a-z]+/i.exec(rest);
    if (letters && /^pi$/i.test(letters[0])) {
      tokens.push({ type: "number", at, value: Math.PI, whole: false });
      at += letters[0].length;
      continue;
    }
    if (letters) {
      const word = WORDS[letters[0].toLowerCase()];
      if (!word) throw new Unreadable("value-unreadable", at, letters[0]);
      tokens.push("unit" in word ? { type: "unit", at, unit: word.unit } : { type: "kind", at, kind: word.kind });
      at += letters[0].length;
      continue;
    }
    const character = rest[0]!;
    if ("øØ⌀".includes(character)) tokens.push({ type: "kind", at, kind: "Ø" });
    else if (character === "π") tokens.push({ type: "number", at, value: Math.PI, whole: false });
    else if (character === "°") tokens.push({ type: "unit", at, unit: "deg" });
    else if (/^('|’|′){2}/.test(rest)) {
      tokens.push({ type: "unit", at, unit: "in" });
      at += 1;
    } else if (FEET.includes(character)) {
      // 1'200 is no length: a thousand written so, or 200 inches behind a foot
      if (/^.\d{3}(?!\d)/.test(rest)) throw new Unreadable("value-unreadable", at, rest.slice(0, 4));
      tokens.push({ type: "unit", at, unit: "ft" });
    } else if (INCHES.includes(character)) tokens.push({ type: "unit", at, unit: "in" });
    else if (VULGAR[character]) {
      const [over, under] = VULGAR[character];
      tokens.push(
        { type: "number", at, value: over, whole: true },
        { type: "sign", at, sign: "/", blanks: 0 },
        { type: "number", at, value: under, whole: true },
      );
    } else if (SIGNS[character]) {
      const blanks = [text[at - 1], text[at + 1]].filter((beside) => /\s/.test(beside ?? " ")).length as 0 | 1 | 2;
      tokens.push({ type: "sign", at, sign: SIGNS[character], blanks });
    } else throw new Unreadable("value-unreadable", at, character);
    at += 1;
  }
  return tokens;
};

/** Recursive descent over the tokens; `unit` is the job's, in which lengths are returned. */
const read = (tokens: readonly Token[], unit: Unit, expects: Expectation, text: string): Quantity => {
  const { length } = text;
  let next = 0;
  /** The text with the minus at a place joined to both its sides, and with blanks round it. */
  const joined = (at: number): string => `${text.slice(0, at).trimEnd()}-${text.slice(at + 1).trimStart()}`;
  const less = (at: number): string => `${text.slice(0, at).trimEnd()} - (${text.slice(at + 1).trim()})`;
  const apart = (at: number): string => `${text.slice(0, at).trimEnd()} - ${text.slice(at + 1).trimStart()}`;
  const peek = (ahead = 0): Token | undefined => tokens[next + ahead];
  const isSign = (token: Token | undefined, sign: string): boolean => token?.type === "sign" && token.sign === sign;
  const fail = (token: Token | undefined): never => {
    throw new Unreadable("value-unreadable", token ? token.at : length, "");
  };

  /** whole "/" whole written tight: 5/8 */
  const fractionAt = (ahead: number): { over: number; under: number; at: number } | undefined => {
    const [over, slash, under] = [peek(ahead), peek(ahead + 1), peek(ahead + 2)];
    if (over?.type !== "number" || !over.whole || under?.type !== "number" || !under.whole) return undefined;
    if (slash?.type !== "sign" || slash.sign !== "/" || slash.blanks > 0) return undefined;
    if (under.value === 0) throw new Unreadable("value-zero-division", under.at, "0");
    return { over: over.value, under: under.value, at: over.at };
  };

  /** 3, 3.5, 5/8, 1-3/16 and 1 3/16: the tight hyphen of a mixed number is not a minus. */
  const plainNumber = (): number => {
    const first = peek();
    if (first?.type !== "number") return fail(first);
    const whole = first.value;
    const hyphen = peek(1);
    const minus = hyphen?.type === "sign" && hyphen.sign === "-" ? hyphen : undefined;
    const tightHyphen = minus?.blanks === 0;
    const mixed = first.whole ? fractionAt(minus ? 2 : 1) : undefined;
    // with a blank on one side only, `1 -3/16` may be either
    if (mixed && minus?.blanks === 1) throw new Asked(joined(minus.at), apart(minus.at));
    if (mixed && minus?.blanks !== 2) {
      if (mixed.over >= mixed.under) throw new Unreadable("value-two-ways", mixed.at, "");
      next += tightHyphen ? 5 : 4;
      return whole + mixed.over / mixed.under;
    }
    const fraction = fractionAt(0);
    if (fraction) {
      next += 3;
      return fraction.over / fraction.under;
    }
    next += 1;
    return whole;
  };

  const measured = (): Quantity => {
    const value = plainNumber();
    const token = peek();
    if (token?.type !== "unit") return { value, power: 0 };
    next += 1;
    if (token.unit === "deg") {
      if (expects !== "angle") throw new Unreadable("value-not-a-length", token.at, "°");
      return { value, power: 0 };
    }
    if (expects !== "length") throw new Unreadable("value-unreadable", token.at, token.unit);
    const here: Quantity = { value: convertLength(value, token.unit, unit), power: 1 };
    return token.unit === "ft" ? withInches(here) : here;
  };

  /** 2ft 4-1/2in, 3'-6 1/2", 4'-6: feet are followed by their inches, with a tight hyphen or without; never by feet. */
  const withInches = (feet: Quantity): Quantity => {
    const hyphen = peek();
    const minus = hyphen?.type === "sign" && hyphen.sign === "-" ? hyphen : undefined;
    const number = peek(minus ? 1 : 0);
    if (number?.type !== "number") return feet;
    // many write feet and inches as 3' - 6": joined or subtracted is asked, not guessed
    if (minus && minus.blanks > 0) throw new Asked(joined(minus.at), less(minus.at));
    if (minus) next += 1;
    const value = plainNumber();
    const token = peek();
    if (token?.type === "unit" && token.unit !== "in") throw new Unreadable("value-unreadable", token.at, "");
    if (token?.type === "unit") next += 1;
    return { value: feet.value + convertLength(value, "in", unit), power: 1 };
  };

  const factor = (): Quantity => {
    const token = peek();
    if (isSign(token, "-") || isSign(token, "+")) {
      next += 1;
      if (isSign(peek(), "-") || isSign(peek(), "+")) throw new Unreadable("value-unreadable", peek()!.at, "");
      const inner = factor();
      return isSign(token, "-") ? { ...inner, value: -inner.value } : inner;
    }
    if (!isSign(token, "(")) return measured();
    next += 1;
    const inner = sum();
    if (!isSign(peek(), ")")) fail(peek());
    next += 1;
    return inner;
  };

  const product = (): Quantity => {
    let left = factor();
    for (let token = peek(); isSign(token, "*") || isSign(token, "/"); token = peek()) {
      next += 1;
      const right = factor();
      if (isSign(token, "*")) {
        if (left.power + right.power > 1) throw new Unreadable("value-not-a-length", token!.at, "*");
        left = { value: left.value * right.value, power: (left.power + right.power) as 0 | 1 };
      } else {
        if (right.value === 0) throw new Unreadable("value-zero-division", token!.at, "0");
        if (right.power > left.power) throw new Unreadable("value-not-a-length", token!.at, "/");
        left = { value: left.value / right.value, power: (left.power - right.power) as 0 | 1 };
      }
    }
    return left;
  };

  const sum = (): Quantity => {
    let left = product();
    for (let token = peek(); isSign(token, "+") || isSign(token, "-"); token = peek()) {
      next += 1;
      if (isSign(peek(), "-") || isSign(peek(), "+")) throw new Unreadable("value-unreadable", peek()!.at, "");
      const right = product();
      const value = isSign(token, "+") ? left.value + right.value : left.value - right.value;
      left = { value, power: Math.max(left.power, right.power) as 0 | 1 };
    }
    return left;
  };

  const all = sum();
  if (peek()) fail(peek());
  return all;
};

/** The two readings of a text, each with how it would be typed so that only it is meant. */
const asked = (
  text: string,
  [one, other]: readonly [string, string],
  options: Parameters<typeof readTypedValue>[1],
): Readonly<Record<string, string | number>> => ({
  text,
  one: one.trim(),
  other: other.trim(),
  ...valuesOf([one, other], options),
});
const valuesOf = (ways: readonly string[], options: Parameters<typeof readTypedValue>[1]) => {
  const [first, second] = ways.map((way) => readTypedValue(way, options));
  return {
    ...(first!.ok ? { first: first!.value.value } : {}),
    ...(second!.ok ? { second: second!.value.value } : {}),
  };
};

/**
 * Reads what a drafter types into a blank: `12.5`, `12,5`, `5/8`, `1-3/16`, `1 3/16`, `6-5/8 + 1/4`, `10mm`, `2ft
 * 4-1/2in`, `r13`, `1-3/16d`, `ø26`.
 *
 * Lengths come back in `unit`, angles in degrees. A minus between whole and fraction, written tight, makes a mixed
 * number; with blanks around it, it subtracts. A bare number after feet is inches in any unit. What can be read two
 * ways (`1,250`, `1 -3/16`) is refused with `one` and `other`, the texts that mean only one of them, and their values
 * `first` and `second`. Other refusals carry `place` (the index in `text`) and `found`.
 */
export const readTypedValue = (
  text: string,
  { unit, expects, kinds = false }: { unit: Unit; expects: Expectation; kinds?: boolean },
): Outcome<TypedValue> => {
  if (text.trim() === "") return refuse("value-empty");
  try {
    let tokens = tokenise(text);
    const marks = tokens.filter((token) => token.type === "kind");
    if (marks.length > 1) throw new Unreadable("value-two-kinds", marks[1]!.at, "");
    const mark = marks[0];
    if (mark) {
      if (!kinds) throw new Unreadable("value-kind-not-here", mark.at, mark.kind);
      const place = tokens.indexOf(mark);
      if (place !== 0 && place !== tokens.length - 1) throw new Unreadable("value-unreadable", mark.at, mark.kind);
      tokens = tokens.filter((token) => token !== mark);
    }
    const { value } = read(tokens, unit, expects, text);
    if (!Number.isFinite(value) || Math.abs(value) > 1e9) throw new Unreadable("value-too-large", 0, text.trim());
    if (expects === "count" && !(Number.isInteger(value) && value >= 1))
      throw new Unreadable("value-not-a-count", 0, text.trim());
    return done(mark ? { value, kind: mark.kind } : { value });
  } catch (reason) {
    if (reason instanceof Asked)
      return refuse("value-asked", asked(text.trim(), reason.ways, { unit, expects, kinds }));
    if (!(reason instanceof Unreadable)) throw reason;
    const found = reason.found || text.slice(reason.place).trim().split(/\s/)[0] || "";
    return refuse(reason.code, { text: text.trim(), place: reason.place, found });
  }
};
