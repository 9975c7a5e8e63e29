import type { Annotation, AnnotationStyle } from "../drawing/annotation.ts";
import type { Callout } from "../drawing/callout.ts";
import { derivedNumber } from "../numeric/showValue.ts";
import { TRUE_WITHIN } from "../numeric/tolerance.ts";
import { convertLength, type Unit } from "../numeric/units.ts";

/** What stands before a number that is not quite the text's: the lettering has no sign for "about". */
const ABOUT = "~";

const decimal = (value: number, { decimals, zeros }: AnnotationStyle): string => {
  const fixed = value.toFixed(decimals);
  const trimmed = fixed.includes(".") ? fixed.replace(/\.?0+$/, "") : fixed;
  const plain = (zeros ? fixed : trimmed).replace(/^-(?=0(\.0*)?$)/, "").replace("-", "−");
  return Math.abs(Number(trimmed) - value) <= TRUE_WITHIN ? plain : `${ABOUT}${plain}`;
};

/** Whole numbers and fractions to the style's denominator: `1 3/16`. */
const fraction = (value: number, denominator: number): string => {
  const parts = Math.round(Math.abs(value) * denominator);
  const about = Math.abs(parts / denominator - Math.abs(value)) <= TRUE_WITHIN ? "" : ABOUT;
  let [over, under] = [parts % denominator, denominator];
  while (over > 0 && over % 2 === 0) [over, under] = [over / 2, under / 2];
  const whole = Math.floor(parts / denominator);
  const text = [whole > 0 || over === 0 ? `${whole}` : "", over > 0 ? `${over}/${under}` : ""]
    .filter(Boolean)
    .join(" ");
  return `${about}${value < 0 && parts > 0 ? "−" : ""}${text}`;
};

/** Inches have one decimal more than the style says of millimetres: an inch is 25 of those. */
const inUnit = (value: number, unit: Unit, style: AnnotationStyle): string => {
  if (unit === "mm") return decimal(value, style);
  return style.denominator > 0
    ? fraction(value, style.denominator)
    : decimal(value, { ...style, decimals: style.decimals + 1 });
};

/** A length as the style writes it: `12.5`, `1 3/16 in [30.163]`; `~` stands before what is not quite the number. */
export const lengthFigure = (value: number, unit: Unit, style: AnnotationStyle): string => {
  const own = derivedNumber(value);
  const other: Unit = unit === "in" ? "mm" : "in";
  const [text, second] = [
    inUnit(own, unit, style),
    style.dual && inUnit(derivedNumber(convertLength(own, unit, other)), other, style),
  ];
  const withUnit = style.unit ? `${text} ${unit}` : text;
  return second === false ? withUnit : `${withUnit} [${second}${style.unit ? ` ${other}` : ""}]`;
};

/** An angle in degrees with up to the style's decimals. */
export const angleFigure = (degrees: number, style: AnnotationStyle): string =>
  `${decimal(derivedNumber(degrees), style)}°`;

const MARKS: Readonly<Partial<Record<Annotation["kind"], string>>> = { radius: "R ", diameter: "Ø " };

/** What is measured in words and figures: `3 × Ø 14`, `R 18`, `42.5°`. Sizes that differ: from least to most. */
export const measuredFigure = (
  { kind, refs, text = "" }: Pick<Annotation, "kind" | "refs" | "text">,
  { least, most }: { readonly least: number; readonly most: number },
  unit: Unit,
  style: AnnotationStyle,
): string => {
  const show = (value: number): string =>
    kind === "angle" ? angleFigure(value, style) : lengthFigure(value, unit, style);
  const size = most - least <= TRUE_WITHIN ? show(most) : `${show(least)}..${show(most)}`;
  const several = (kind === "radius" || kind === "diameter") && refs.length > 1 ? `${refs.length} × ` : "";
  return `${text ? `${text} ` : ""}${several}${MARKS[kind] ?? ""}${size}`;
};

/** What a number may be off, as it stands behind it: one text, or two that are stacked (above, below). */
export const toleranceFigure = (
  { tolerance, limits, fit }: Pick<Callout, "tolerance" | "limits" | "fit">,
  angle: boolean,
): readonly string[] => {
  const show = (value: number): string => `${derivedNumber(Math.abs(value))}${angle ? "°" : ""}`;
  const signed = (value: number): string => (value === 0 ? "0" : `${value < 0 ? "−" : "+"}${show(value)}`);
  if (limits) return [signed(limits.high), signed(limits.low)];
  if (tolerance !== undefined) return [`±${show(tolerance)}`];
  return fit ? [fit] : [];
};
