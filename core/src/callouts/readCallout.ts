import type { Callout } from "../drawing/callout.ts";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { showLength } from "../numeric/showValue.ts";
import { readTypedValue } from "../numeric/typedValue.ts";
import type { Unit } from "../numeric/units.ts";
import { calloutText } from "./describe.ts";

/** A callout as it is written down, before it has an id, a pin or links. */
export type WrittenCallout = Pick<Callout, "kind" | "value" | "name"> &
  Partial<Pick<Callout, "thread" | "tolerance" | "limits">>;

/** ISO metric `M6`, `M20x1.5` and unified `3/8-16`, `1-8`: the designations of ISO 261 and ASME B1.1. */
const METRIC = /^m(\d+(?:[.,]\d+)?)(?:\s*[x×]\s*\d+(?:[.,]\d+)?)?(?=\s|$)/i;
const UNIFIED = /^(\d+\/\d+|\d+)-(\d{1,2})(?=\s|$)/;

/** `17.294..17.744 core`: two limits instead of a value. */
const BETWEEN = /^((?:[rdøØ⌀] ?)?)(\S+?)\.\.(\S+)(.*)$/i;
const readBetween = ([, mark, from, to, rest]: RegExpExecArray, unit: Unit): Outcome<WrittenCallout> => {
  const [low, high] = [from!, to!].map((text) => readTypedValue(text, { unit, expects: "length", kinds: true }));
  if (!low!.ok) return low!;
  if (!high!.ok) return high!;
  if (!(low!.value.value > 0 && high!.value.value > low!.value.value))
    return refuse("value-not-positive", { what: "The way from the lower limit to the upper" });
  const value = (low!.value.value + high!.value.value) / 2;
  const half = high!.value.value - value;
  const kind = mark ? (/r/i.test(mark) ? "R" : "Ø") : high!.value.kind;
  const limits = { low: -half, high: half };
  return done({
    kind: kind === "R" ? "radius" : kind === "Ø" ? "diameter" : "length",
    value,
    name: rest!.trim(),
    limits,
  });
};

type Tolerant = Pick<WrittenCallout, "tolerance" | "limits"> & { readonly rest: string };

/** What a number may be off, `±0.1` or `+0.2 -0`, and the text without it. */
const readTolerance = (whole: string, unit: Unit): Outcome<Tolerant> => {
  const without = (found: string): string => whole.replace(found, " ").replace(/\s+/g, " ").trim();
  const upDown = /(?:^|\s)\+\s?(\d\S*?)\s*\/?\s*[-−]\s?(\d\S*)/.exec(whole);
  if (upDown) {
    const [up, down] = [upDown[1]!, upDown[2]!].map((text) => readTypedValue(text, { unit, expects: "length" }));
    if (!up!.ok) return up!;
    if (!down!.ok) return down!;
    if (up!.value.value + down!.value.value <= 0) return refuse("value-not-positive", { what: "A tolerance" });
    const low = down!.value.value === 0 ? 0 : -down!.value.value;
    return done({ limits: { low, high: up!.value.value }, rest: without(upDown[0]) });
  }
  const tolerant = /(?:±|\+\s?\/?-)\s*(\S+)/.exec(whole);
  if (!tolerant) return done({ rest: whole });
  const read = readTypedValue(tolerant[1]!, { unit, expects: "length" });
  if (!read.ok) return read;
  if (read.value.value <= 0) return refuse("value-not-positive", { what: "A tolerance" });
  return done({ tolerance: read.value.value, rest: without(tolerant[0]) });
};

/**
 * Reads one number of a sketch with what it speaks of: `26 d bore`, `r12.5 corner`, `6-5/8 centres`, `45° chamfer`, `3
 * x holes`, `M6 tapped`, `3/8-16 tapped`, `12.5 ±0.1 wall`, `20 +0.2 -0 key`, `17.3..17.7 core`. The longest beginning
 * that is a value counts; the rest is its name. Lengths come back in `unit`.
 */
export const readCallout = (text: string, unit: Unit): Outcome<WrittenCallout> => {
  const whole = text.trim().replace(/\s+/g, " ");
  if (whole === "") return refuse("value-empty");
  const between = BETWEEN.exec(whole);
  if (between) return readBetween(between, unit);
  const tolerant = readTolerance(whole, unit);
  if (!tolerant.ok) return tolerant;
  const { rest, ...allowed } = tolerant.value;

  const thread = METRIC.exec(rest) ?? UNIFIED.exec(rest);
  if (thread) {
    const size = readTypedValue(`${thread[1]}${/^m/i.test(thread[0]) ? "mm" : "in"}`, { unit, expects: "length" });
    if (!size.ok) return size;
    return done({
      kind: "thread",
      value: size.value.value,
      thread: thread[0].replace(/^m/, "M"),
      name: rest.slice(thread[0].length).trim(),
      ...allowed,
    });
  }
  const count = /^(\d+) ?(?:x|×|off)(?=\s|$)/i.exec(rest);
  if (count) return done({ kind: "count", value: Number(count[1]), name: rest.slice(count[0].length).trim() });

  const words = rest.split(" ");
  for (let n = words.length; n > 0; n--) {
    const [value, name] = [words.slice(0, n).join(" "), words.slice(n).join(" ")];
    const angle = /°|deg$/i.test(value);
    const read = readTypedValue(value, { unit, expects: angle ? "angle" : "length", kinds: true });
    if (!read.ok) continue;
    if (read.value.value <= 0) return refuse("value-not-positive", { what: "A number on a sketch" });
    const kind = angle
      ? "angle"
      : read.value.kind === "R"
        ? "radius"
        : read.value.kind === "Ø"
          ? "diameter"
          : /\bcent(?:re|er)s?\b/i.test(name)
            ? "centres"
            : "length";
    return done({ kind, value: read.value.value, name, ...allowed });
  }
  const first = readTypedValue(words[0]!, { unit, expects: "length", kinds: true });
  return first.ok ? refuse("value-unreadable", { text: whole, place: 0, found: whole }) : first;
};

/** The text that `readCallout` reads back to the same callout, for changing one. */
export const writtenCallout = (callout: Callout, unit: Unit): string => {
  const { kind, value, name, tolerance, limits } = callout;
  const exact = (length: number): string =>
    showLength(length, unit).includes("≈") ? String(length) : showLength(length, unit);
  const number =
    kind === "diameter"
      ? `${exact(value)} d`
      : kind === "radius"
        ? `${exact(value)} r`
        : kind === "count"
          ? `${value} x`
          : kind === "length" || kind === "centres"
            ? exact(value)
            : calloutText(callout, unit);
  const allowed = limits
    ? `+${exact(limits.high)} -${exact(Math.abs(limits.low))}`
    : tolerance === undefined
      ? ""
      : `±${exact(tolerance)}`;
  return [number, allowed, name].filter(Boolean).join(" ");
};
