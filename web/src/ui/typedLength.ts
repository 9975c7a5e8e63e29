import { readTypedValue, type Unit } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";

/** A size typed in a blank, in the unit; what is wrong with it in words where it is none, or not more than 0. */
export const typedLength = (text: string, unit: Unit): number | string => {
  const read = readTypedValue(text, { unit, expects: "length" });
  if (!read.ok) return sayRefusal(read.refusal, unit);
  return read.value.value > 0 ? read.value.value : "It must be more than 0.";
};

/** Two sizes typed in a blank, `1250 × 2500`; what is wrong in words where they are not. */
export const typedSizes = (text: string, unit: Unit): readonly [number, number] | string => {
  const parts = text.split(/[×x*]/).map((part) => typedLength(part.trim(), unit));
  const [w, h] = parts;
  if (parts.length !== 2) return "A sheet has two sizes, such as 1250 × 2500.";
  if (typeof w === "number" && typeof h === "number") return [w, h];
  return String(parts.find((one) => typeof one === "string"));
};
