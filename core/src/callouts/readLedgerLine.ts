import { greatest, least } from "../numeric/greatest.ts";
import type { Callout, CalloutKind } from "../drawing/callout.ts";
import { done, refuse, type Outcome, type Refusal } from "../numeric/outcome.ts";
import { readTypedValue, type Expectation } from "../numeric/typedValue.ts";
import type { Unit } from "../numeric/units.ts";
import { fitLimits, isFit } from "../tables/fits.ts";
import { findThread } from "../tables/threads.ts";
import { calloutText, exactText } from "./describe.ts";
import { betweenLimits, readTolerance } from "./readTolerance.ts";

/** A callout as it is written down, before it has an id, a pin or links. */
export type WrittenCallout = Omit<Callout, "id" | "pin" | "links">;

/**
 * What a line of a sketch says: its callouts, or the thickness of the job; and why it should be looked at, if it
 * should.
 */
export type LedgerLine = {
  readonly callouts: readonly WrittenCallout[];
  readonly thickness?: number;
  readonly doubt?: "number-left";
};

const FLAGS: readonly (readonly [RegExp, Partial<WrittenCallout>])[] = [
  [/(?:^|\s)(?:ref\.?|reference)(?=\s|$)/i, { reference: true }],
  [/(?:^|\s)(?:typ\.?|typical)(?=\s|$)/i, { throughout: true }],
];
/** Words that stay in the name and say that a size holds throughout. */
const THROUGHOUT = /\b(?:all|each|every)\s+(?:corners?|holes?|round|fillets?|edges?)\b/i;
const CENTRES = /\b(?:cent(?:re|er)s?|c\s?\/\s?c|ctrs?|crs)\b/i;
const CHAMFER = /\b(?:cham(?:f(?:er)?s?)?|corners?|cut)\b/i;
const MARK = String.raw`(?:r|d|dia\.?|ø|⌀)`;

/** Words of sizes as the typed-value reader knows them. */
const plainWords = (text: string): string =>
  text
    .replace(/(\d["']?)\s*(?:diam(?:eter)?\.?|dia\.|ø|⌀)(?=\s|$|,)/gi, "$1 dia")
    .replace(/(\d["']?)\s*(?:rad(?:ius)?\.?)(?=\s|$|,)/gi, "$1 r")
    .replace(/^(?:diam(?:eter)?\.?|dia\.?)\s+(?=\d)/i, "dia ")
    .replace(/^(?:rad(?:ius)?\.?)\s+(?=\d)/i, "r ");

/** Arithmetic that the typed-value reader would do: the ledger does none. */
const isSum = (text: string): boolean => /[+*×÷]|\s[-−]\s|\d\s?[-−]\s?\d+(?![\d/])|\d\s*\/\s*\d+\s*\/|\)/.test(text);

type Leading = {
  readonly value: number;
  readonly kind: "R" | "Ø" | undefined;
  readonly angle: boolean;
  readonly name: string;
};

/** Degrees with minutes: `15 deg 30'`, `15°30'`. */
const DEGREES = /^(\d+(?:[.,]\d+)?)\s?(?:°|deg(?:rees?)?\.?)(?:\s?(\d+(?:[.,]\d+)?)\s?['′])?(?=\s|$|,)/i;

/** The longest beginning that is a value, and the words after it. */
const leading = (text: string, unit: Unit): Outcome<Leading> => {
  const degrees = DEGREES.exec(text);
  if (degrees) {
    const number = (part: string | undefined): number => Number((part ?? "0").replace(",", "."));
    const value = number(degrees[1]) + number(degrees[2]) / 60;
    return done({ value, kind: undefined, angle: true, name: text.slice(degrees[0].length).trim() });
  }
  const words = text.split(" ");
  for (let n = words.length; n > 0; n--) {
    const [value, name] = [words.slice(0, n).join(" "), words.slice(n).join(" ")];
    if (isSum(value)) continue;
    const read = readTypedValue(value.replace(/,$/, ""), { unit, expects: "length", kinds: true });
    if (read.ok) return done({ value: read.value.value, kind: read.value.kind, angle: false, name });
    if (read.refusal.code === "value-asked") return { ok: false, refusal: withRest(read.refusal, name) };
  }
  const first = readTypedValue(words[0]!, { unit, expects: "length", kinds: true });
  return first.ok ? refuse("value-unreadable", { text, place: 0, found: text }) : first;
};
const withRest = ({ code, values }: Refusal, rest: string): Refusal => ({
  code,
  values: {
    ...values,
    text: `${values.text} ${rest}`.trim(),
    one: `${values.one} ${rest}`.trim(),
    other: `${values.other} ${rest}`.trim(),
  },
});

const length = (text: string, unit: Unit, expects: Expectation = "length"): Outcome<number> => {
  const read = readTypedValue(text, { unit, expects });
  if (!read.ok) return read;
  return read.value.value > 0 ? done(read.value.value) : refuse("value-not-positive", { what: "A number on a sketch" });
};

const lengths = (texts: readonly string[], unit: Unit): Outcome<readonly number[]> => {
  const read = texts.map((text) => length(text, unit));
  const wrong = read.find((one) => !one.ok);
  return wrong && !wrong.ok ? wrong : done(read.map((one) => (one.ok ? one.value : 0)));
};

/** ISO metric `M6`, `M20x1.5 - 6H` and unified `3/8-16`, `1-8 UNC`: the designations of ISO 261 and ASME B1.1. */
const METRIC =
  /^(m\d+(?:[.,]\d+)?(?:\s?[x×]\s?\d+(?:[.,]\d+)?)?)(?:\s?[-–]?\s?(\d[a-hA-H](?:\d[a-hA-H])?))?(?=\s|$|,)/i;
const UNIFIED = /^(\d+\/\d+|\d+)-(\d{1,2})(?:\s?(?:unc|unf|unef|un))?(?:\s?[-–]\s?(\d[AB]))?(?=\s|$|,)/i;

const thread = (text: string, unit: Unit): Outcome<WrittenCallout> | undefined => {
  const metric = METRIC.exec(text);
  const unified = metric ? null : UNIFIED.exec(text);
  const found = metric ?? unified;
  if (!found) return undefined;
  // a whole number and another with a stroke between them may be anything: it must be a thread that there is
  if (unified && !unified[1]!.includes("/") && !findThread(`${unified[1]}-${unified[2]}`).ok) return undefined;
  const written = metric
    ? metric[1]!.replace(/\s/g, "").replace("×", "x").replace(/^m/, "M")
    : `${unified![1]}-${unified![2]}`;
  const size = metric ? /^M(\d+(?:[.,]\d+)?)/.exec(written)![1]! : unified![1]!;
  const value = length(`${size}${metric ? "mm" : "in"}`, unit);
  if (!value.ok) return value;
  const fit = metric ? metric[2] : unified![3];
  return done({
    kind: "thread",
    value: value.value,
    thread: written,
    name: text.slice(found[0].length).trim(),
    ...(fit ? { fit } : {}),
  });
};

/** `17.3..17.7`, `17.3-17.7 max/min`, with a mark before or after. */
const BETWEEN = new RegExp(String.raw`^(${MARK}\s?)?(\S+?)\s?\.\.\.?\s?(\S+?)(\s?${MARK})?(?=\s|$|,)(.*)$`, "i");
const LIMITS = String.raw`(?:max\s?\/\s?min|min\s?\/\s?max|limits?)`;
const MAX_MIN = new RegExp(
  String.raw`^(${MARK}\s?)?(\d\S*?)\s?(?:-|–|to)\s?(\d\S*?)(\s?${MARK})?\s${LIMITS}\b(.*)$`,
  "i",
);

const between = (text: string, unit: Unit): Outcome<WrittenCallout> | undefined => {
  const found = BETWEEN.exec(text) ?? MAX_MIN.exec(text);
  if (!found) return undefined;
  const [, before, from, to, after, rest] = found;
  const both = lengths([from!.replace(/^[rdøØ⌀]/i, ""), to!.replace(/[rdøØ⌀]$/i, "")], unit);
  if (!both.ok) return both;
  const [low, high] = [least(both.value), greatest(both.value)];
  if (found[0].includes("..") && both.value[1]! <= both.value[0]!)
    return refuse("value-not-positive", { what: "The way from the lower limit to the upper" });
  const mark = `${before ?? ""}${after ?? ""}${/[rdøØ⌀]$/i.exec(to!)?.[0] ?? ""}`;
  const name = rest!.trim();
  return done({
    kind: kindOf(mark === "" ? undefined : /r/i.test(mark) ? "R" : "Ø", name),
    ...betweenLimits(low, high),
    between: true,
    name,
  });
};

const kindOf = (mark: "R" | "Ø" | undefined, name: string): CalloutKind =>
  mark === "R" ? "radius" : mark === "Ø" ? "diameter" : CENTRES.test(name) ? "centres" : "length";

/** `slot 8 x 30`, `slot 8 wide 30 ctrs`: two rows. */
const SLOT = /^slots?\s(\S+(?:\s\d+\/\d+)?)\s?(?:wide\s|x\s?|×\s?|by\s)(\S+(?:\s\d+\/\d+)?)(.*)$/i;
const slot = (text: string, unit: Unit): Outcome<readonly WrittenCallout[]> | undefined => {
  const found = SLOT.exec(text);
  if (!found) return undefined;
  const both = lengths([found[1]!, found[2]!], unit);
  if (!both.ok) return both;
  const centres = CENTRES.test(found[3]!);
  const name = found[3]!
    .replace(CENTRES, "")
    .replace(/^\s*long\b/i, "")
    .trim();
  return done([
    { kind: "length", value: both.value[0]!, name: `slot width ${name}`.trim() },
    {
      kind: centres ? "centres" : "length",
      value: both.value[1]!,
      name: `slot ${centres ? "centres" : "length"} ${name}`.trim(),
    },
  ]);
};

/** `2 x 45° chamfer`, `2x45`, `30 x 30 cut corner`: a chamfer by its length and angle, or by two lengths. */
const BY = /^(\S+?(?:\s\d+\/\d+)?)\s?[x×]\s?(\d\S*?)\s?(°|deg\.?)?(?=\s|$|,)(.*)$/i;
const COMMON_ANGLES = new Set(["30", "45", "60"]);
const chamfer = (text: string, unit: Unit): Outcome<WrittenCallout> | undefined => {
  const found = BY.exec(text);
  if (!found) return undefined;
  const [, first, second, degrees, rest] = found;
  const name = rest!.replace(/^,/, "").trim();
  if (/[a-zøØ⌀]$/i.test(second!) && !/(?:mm|in)$/i.test(second!)) return undefined;
  const byAngle = degrees !== undefined || (COMMON_ANGLES.has(second!) && name === "" && first !== second);
  if (!byAngle && !CHAMFER.test(name)) return undefined;
  const value = length(first!, unit);
  if (!value.ok) return value;
  const other = length(second!, unit, byAngle ? "angle" : "length");
  if (!other.ok) return other;
  if (byAngle && !(other.value < 90)) return refuse("chamfer-angle");
  return done({
    kind: "chamfer",
    value: value.value,
    name,
    ...(byAngle ? { angle: other.value } : { other: other.value }),
  });
};

/** `6x Ø9`, `6 holes 9 dia`, `4 off 8.5 d`, `3 × R18`: how many, and the text of the size. */
const TIMES = /^(\d+)\s?(?:x|×|off|no\.?|pcs?\.?|pl(?:aces)?\.?)(?=\s|$|[rdøØ⌀\d])\s?(.*)$/i;
const HOLES = /^(\d+)\s(holes?|slots?|bosses|corners?|fillets?|studs?)\s(?=[rdøØ⌀\d(.])(.+)$/i;
const times = (text: string): { readonly count: number; readonly size: string; readonly word: string } | undefined => {
  const found = TIMES.exec(text);
  if (found) return { count: Number(found[1]), size: found[2]!, word: "" };
  const holes = HOLES.exec(text);
  return holes ? { count: Number(holes[1]), size: holes[3]!, word: holes[2]! } : undefined;
};

const BOUND = /(?:^|\s)(max|min)(?:imum|\.)?(?=\s|$)/i;
const THICKNESS = /^(?:t\s?=\s?(.+)|(.+?)\s?(?:thk|thick|thickness)\.?)$/i;

/** One size with what it may be off and what it speaks of. */
const readOne = (text: string, unit: Unit): Outcome<WrittenCallout> => {
  const found = between(text, unit) ?? chamfer(text, unit) ?? thread(text, unit);
  if (found) return found;
  const bound = BOUND.exec(text)?.[1]?.toLowerCase() as "max" | "min" | undefined;
  const unbound = bound ? text.replace(BOUND, " ").replace(/\s+/g, " ").trim() : text;
  const angle = DEGREES.test(unbound);
  const tolerant = readTolerance(unbound, unit, angle ? "angle" : "length");
  if (!tolerant.ok) return tolerant;
  const { rest, ...allowed } = tolerant.value;
  // `centres 40`: the word may stand first
  const turned = /^(cent(?:re|er)s?|ctrs?|c\/c|wide|width|high|height|long|length|deep|depth)\s(?=\d)/i.exec(rest);
  const read = leading(plainWords(turned ? rest.slice(turned[0].length) : rest), unit);
  if (!read.ok) return read;
  const { value, kind: mark, name: after } = read.value;
  if (value <= 0) return refuse("value-not-positive", { what: "A number on a sketch" });
  const [word = "", ...words] = after.split(" ");
  const fit = !read.value.angle && isFit(word) ? word : undefined;
  const name = [turned?.[1], fit ? words.join(" ") : after].filter(Boolean).join(" ");
  // a fit is that of a hole or a shaft
  const kind = read.value.angle ? "angle" : fit && mark === undefined ? "diameter" : kindOf(mark, name);
  const limits =
    fit && !allowed.limits && !allowed.tolerance
      ? fitLimits(kind === "radius" ? 2 * value : value, fit, unit)
      : undefined;
  return done({
    kind,
    value,
    name: name.replace(/^,\s?/, ""),
    ...allowed,
    ...(limits ? { limits } : {}),
    ...(fit ? { fit } : {}),
    ...(bound ? { bound } : {}),
  });
};

/**
 * Reads a line of a sketch as a customer writes it: `26 d bore`, `Ø26 H7`, `r12.5 corner`, `40 c/c`, `45° chamfer`, `6x
 * Ø9 holes`, `M8 x 1.25 - 6H`, `12.5 ±0.1 wall`, `25 -0.2`, `17.3..17.7 core`, `max 12`, `2 x 45°`, `R3 typ`, `20 ref`,
 * `slot 8 x 30` (two callouts), `6 thk` (the job's thickness). The longest beginning that is a value counts, the rest
 * is its name; no arithmetic is done. Lengths come back in `unit`. What can't be read is refused with what is missing.
 */
export const readLedgerLine = (text: string, unit: Unit): Outcome<LedgerLine> => {
  let line = text.trim().replace(/\s+/g, " ");
  if (line === "") return refuse("value-empty");
  let flags: Partial<WrittenCallout> = {};
  const bracketed = /^\((.+)\)(.*)$/.exec(line);
  if (bracketed && !/[()]/.test(bracketed[1]!)) {
    line = `${bracketed[1]}${bracketed[2]}`.trim();
    flags = { reference: true };
  }
  const thick = THICKNESS.exec(line);
  if (thick) {
    const value = length(thick[1] ?? thick[2]!, unit);
    if (value.ok) return done({ callouts: [], thickness: value.value });
  }
  for (const [pattern, flag] of FLAGS)
    if (pattern.test(line)) {
      line = line.replace(pattern, " ").replace(/\s+/g, " ").trim();
      flags = { ...flags, ...flag };
    }
  if (THROUGHOUT.test(line)) flags = { ...flags, throughout: true };

  const slotted = slot(line, unit);
  if (slotted) return slotted.ok ? done({ callouts: slotted.value.map((one) => ({ ...one, ...flags })) }) : slotted;
  const asChamfer = chamfer(line, unit);
  const many = asChamfer ? undefined : times(line);
  if (many) {
    const size = readOne(many.size, unit);
    if (!size.ok && (size.refusal.code === "value-asked" || /^[\d.]/.test(many.size))) return size;
    if (!size.ok)
      return done({ callouts: [{ kind: "count", value: many.count, name: `${many.word} ${many.size}`.trim() }] });
    const name = `${size.value.name} ${many.word}`.trim();
    const repeated = many.count > 1 ? { times: many.count } : {};
    return looked({ ...size.value, name, ...repeated, ...flags });
  }
  const read = readOne(line, unit);
  return read.ok ? looked({ ...read.value, ...flags }) : read;
};

/** A number left in the name may be a second callout: that is said. */
const looked = (callout: WrittenCallout): Outcome<LedgerLine> =>
  done({
    callouts: [callout],
    ...(/\d/.test(callout.name.replace(/\b\d+\s?off\b/i, "")) ? { doubt: "number-left" as const } : {}),
  });

/** The text that `readLedgerLine` reads back to the same callout, for changing one. */
export const writtenCallout = (callout: Callout | WrittenCallout, unit: Unit): string => {
  const { kind, value, name, tolerance, limits, fit, bound } = callout;
  const exact = (size: number): string => exactText(size, unit);
  const signed = (size: number): string => `${size < 0 ? "-" : "+"}${exact(Math.abs(size))}`;
  const { times: _, reference: __, fit: ___, bound: ____, ...plain } = callout;
  const own: Callout = { id: 0, links: [], ...plain };
  const mark = kind === "diameter" ? "Ø" : kind === "radius" ? "R" : "";
  const number = callout.between
    ? `${mark}${exact(value + limits!.low)}..${exact(value + limits!.high)}`
    : kind === "diameter"
      ? `${exact(value)} d`
      : kind === "radius"
        ? `${exact(value)} r`
        : kind === "count"
          ? `${value} x`
          : kind === "length" || kind === "centres"
            ? exact(value)
            : kind === "chamfer"
              ? `${exact(value)} x ${callout.angle === undefined ? exact(callout.other!) : `${callout.angle}°`}`
              : calloutText(own, unit);
  const shown = limits && !callout.between && !(fit && fitLimits(value, fit, unit));
  const allowed = shown
    ? `${signed(limits.high)} ${limits.low === 0 ? "-0" : signed(limits.low)}`
    : tolerance === undefined
      ? ""
      : `±${exact(tolerance)}`;
  return [
    callout.times === undefined ? "" : `${callout.times} ×`,
    number,
    fit ?? "",
    allowed,
    bound ?? "",
    name,
    callout.throughout && !THROUGHOUT.test(name) ? "typ" : "",
    callout.reference ? "ref" : "",
  ]
    .filter(Boolean)
    .join(" ");
};
