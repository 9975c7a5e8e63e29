/**
 * What a field of a row must be: the one description by which rows are checked (`checkOf`) when they are made and when
 * they are read.
 */
export type Field = Kind & { readonly optional?: true };
type Kind =
  | { readonly is: "number"; readonly above?: number; readonly least?: number; readonly most?: number }
  | { readonly is: "whole"; readonly least: number; readonly most: number }
  | { readonly is: "boolean" }
  | { readonly is: "text"; readonly empty?: true; readonly most?: number }
  | { readonly is: "one of"; readonly of: readonly (string | number | boolean)[] }
  | { readonly is: "list"; readonly of: Field; readonly least?: number; readonly most?: number }
  | { readonly is: "record"; readonly of: Fields }
  | { readonly is: "reference" };
export type Fields = Readonly<Record<string, Field>>;

export const NUMBER: Field = { is: "number" };
export const POSITIVE: Field = { is: "number", above: 0 };
export const BOOLEAN: Field = { is: "boolean" };
export const TEXT: Field = { is: "text" };
export const POINT: Field = { is: "record", of: { x: NUMBER, y: NUMBER } };
export const ID: Field = { is: "whole", least: 0, most: Number.MAX_SAFE_INTEGER };
export const REFERENCE: Field = { is: "reference" };
/** A field that may be missing. */
export const optional = (field: Field): Field => ({ ...field, optional: true });
/** A field that is a list of others, of at least and at most so many. */
export const listOf = (of: Field, least = 0, most?: number): Field => ({
  is: "list",
  of,
  least,
  ...(most === undefined ? {} : { most }),
});

/** Says what is wrong with a value, as `.x is not a number`; undefined where all is well. */
export type Check = (value: unknown) => string | undefined;

/**
 * The check of a record by its fields; what a reference is says `reference`. Made once: it costs a fraction of a
 * microsecond a field.
 */
export const checkOf = (fields: Fields, reference: (value: unknown) => boolean): Check => {
  const names = Object.keys(fields);
  const checks = names.map((name) => fieldCheck(fields[name]!, reference));
  const known = new Set(names);
  return (row) => {
    if (typeof row !== "object" || row === null) return "it is no record";
    const record = row as Record<string, unknown>;
    for (let i = 0; i < names.length; i++) {
      const wrong = checks[i]!(record[names[i]!]);
      if (wrong !== undefined) return `${names[i]!}${wrong}`;
    }
    for (const name in record) if (!known.has(name)) return `${name} is unknown`;
    return undefined;
  };
};

const fieldCheck = (field: Field, reference: (value: unknown) => boolean): Check => {
  const check = kindCheck(field, reference);
  const missing = field.optional ? undefined : " is missing";
  return (value) => (value === undefined ? missing : check(value));
};

const kindCheck = (field: Field, reference: (value: unknown) => boolean): Check => {
  switch (field.is) {
    case "number":
      return numberCheck(field);
    case "whole":
      return (value) => {
        if (!Number.isInteger(value)) return " is not a whole number";
        const out = (value as number) < field.least || (value as number) > field.most;
        return out ? ` is not from ${field.least} to ${field.most}` : undefined;
      };
    case "boolean":
      return (value) => (typeof value === "boolean" ? undefined : " is not yes or no");
    case "text":
      return (value) => {
        if (typeof value !== "string" || (value === "" && !field.empty)) return " is not a text";
        return field.most !== undefined && value.length > field.most ? " is too long" : undefined;
      };
    case "one of":
      return (value) => (field.of.includes(value as string) ? undefined : ` is none of ${field.of.join(", ")}`);
    case "reference":
      return (value) => (reference(value) ? undefined : " is no reference");
    case "record": {
      const check = checkOf(field.of, reference);
      return (value) => {
        const wrong = check(value);
        return wrong === undefined ? undefined : `: ${wrong}`;
      };
    }
    case "list":
      return listCheck(field, fieldCheck(field.of, reference));
  }
};

const numberCheck =
  ({ above, least, most }: Extract<Field, { is: "number" }>): Check =>
  (value) => {
    if (typeof value !== "number" || !Number.isFinite(value)) return " is not a number";
    if (above !== undefined && !(value > above)) return ` is not above ${above}`;
    if (least !== undefined && value < least) return ` is less than ${least}`;
    return most !== undefined && value > most ? ` is more than ${most}` : undefined;
  };

const listCheck =
  ({ least = 0, most }: Extract<Field, { is: "list" }>, check: Check): Check =>
  (value) => {
    if (!Array.isArray(value)) return " is not a list";
    if (value.length < least) return ` has fewer than ${least}`;
    if (most !== undefined && value.length > most) return ` has more than ${most}`;
    for (let i = 0; i < value.length; i++) {
      const wrong = check(value[i]);
      if (wrong !== undefined) return `[${i}]${wrong}`;
    }
    return undefined;
  };
