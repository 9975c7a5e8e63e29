import { missingLetter } from "@ash-edge/core/annotate";
import {
  done,
  readList,
  readTypedValue,
  refuse,
  type Outcome,
  type TypedValue,
  type Unit,
} from "@ash-edge/core/numeric";
import { findThread, threadLength } from "@ash-edge/core/tables";
import { ALL_PLACE_PARTS } from "./placing.ts";
import { isShown, type Part, type Tool, type ToolContext } from "./tool.ts";

export type Typed = Extract<Part, { kind: "size" | "value" | "thread" | "list" | "text" }>;
const TYPED: ReadonlySet<Part["kind"]> = new Set(["size", "value", "thread", "list", "text"]);
/** The blanks that are typed in; with `choices` only those that are shown. */
export const typedParts = (tool: Tool, choices?: Readonly<Record<string, string>>): readonly Typed[] =>
  tool.parts.filter((part): part is Typed => TYPED.has(part.kind) && (choices === undefined || isShown(part, choices)));

/** The blank of that name: one of the tool's own, or one of a point being typed. */
export const typedPart = (tool: Tool, name: string): Typed | undefined =>
  typedParts(tool).find((part) => part.name === name) ?? ALL_PLACE_PARTS.find((part) => part.name === name);

/** Several sizes, blanks between them; the first with the rest behind it. */
const readSizes = (text: string, unit: Unit, most: number): Outcome<ReadValue> => {
  const sizes: number[] = [];
  for (const word of text.trim().split(/\s+/)) {
    const read = readTypedValue(word, { unit, expects: "length" });
    if (!read.ok) return read;
    if (!(read.value.value > 0)) return refuse("value-not-positive", { what: "A radius or diameter" });
    sizes.push(read.value.value);
  }
  if (sizes.length > most) return refuse("value-unreadable", { text: text.trim(), place: 0, found: text.trim() });
  const [value, ...then] = sizes;
  return done({ value: value!, then });
};

/** What a blank was read as; `then` are sizes that follow it. */
export type ReadValue = TypedValue & { readonly then?: readonly number[] };

/** Reads what was typed in a blank, in drawing units or radians; refused where it is no value of its kind. */
export const readBlank = (part: Typed, text: string, context: Pick<ToolContext, "unit">): Outcome<ReadValue> => {
  if (part.kind === "thread") {
    const thread = findThread(text);
    return thread.ok ? done({ value: threadLength(thread.value, thread.value.diameter, context.unit) }) : thread;
  }
  if (part.kind === "text") {
    const letter = missingLetter(text);
    return letter === undefined ? done({ value: text.length }) : refuse("letter-missing", { letter });
  }
  if (part.kind === "list") {
    const listed = readList(text);
    return listed.ok ? done({ value: listed.value.size }) : listed;
  }
  const size = part.kind === "size";
  if (part.kind === "size" && (part.several || part.second) && /\S\s+\S/.test(text.trim())) {
    // one number with a blank in it, such as 1 3/16, is one
    const one = readTypedValue(text, { unit: context.unit, expects: "length", kinds: true });
    if (!one.ok) return readSizes(text, context.unit, part.second === undefined ? Infinity : 2);
  }
  const expects = part.kind === "size" ? "length" : part.expects;
  const read = readTypedValue(text, { unit: context.unit, expects, kinds: size });
  if (!read.ok || expects === "angle" || (part.kind === "value" && part.signed) || read.value.value > 0) return read;
  return refuse("value-not-positive", { what: size ? "A radius or diameter" : `The ${part.label}` });
};
