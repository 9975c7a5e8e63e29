import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import { readTypedValue } from "../numeric/typedValue.ts";
import type { Unit } from "../numeric/units.ts";
import { showLength } from "../numeric/showValue.ts";
import { calloutText } from "./describe.ts";
import type { Callout } from "./callout.ts";

/** A callout as it is written down, before it has an id, a pin or links. */
export type WrittenCallout = Pick<Callout, "kind" | "value" | "name"> & Partial<Pick<Callout, "thread" | "tolerance">>;

/** ISO metric `M6`, `M20x1.5` and unified `3/8-16`, `1-8`: the designations of ISO 261 and ASME B1.1. */
const METRIC = /^m(\d+(?:[.,]\d+)?)(?:\s*[x×]\s*\d+(?:[.,]\d+)?)?(?=\s|$)/i;
const UNIFIED = /^(\d+\/\d+|\d+)-(\d{1,2})(?=\s|$)/;

/**
 * Reads one number of a sketch with what it speaks of: `26 d bore`, `r12.5 corner`, `6-5/8 centres`, `45° chamfer`, `3 x holes`,
 * `M6 tapped`, `3/8-16 tapped`, `12.5 ±0.1 wall`. The longest beginning that is a value counts; the rest is its name. Lengths come
 * back in `unit`.
 */
export const readCallout = (text: string, unit: Unit): Outcome<WrittenCallout> => {
  const whole = text.trim().replace(/\s+/g, " ");
  if (whole === "") return refuse("value-empty");
  const tolerant = /(?:±|\+\s?\/?-)\s*(\S+)/.exec(whole);
  const tolerance = tolerant && readTypedValue(tolerant[1]!, { unit, expects: "length" });
  if (tolerance && (!tolerance.ok || tolerance.value.value <= 0))
    return tolerance.ok ? refuse("value-not-positive", { what: "A tolerance" }) : tolerance;
  const allowed = tolerance?.ok ? { tolerance: tolerance.value.value } : {};
  const rest = tolerant ? whole.replace(tolerant[0], " ").replace(/\s+/g, " ").trim() : whole;

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
  const { kind, value, name, tolerance } = callout;
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
  return [number, tolerance === undefined ? "" : `±${exact(tolerance)}`, name].filter(Boolean).join(" ");
};
