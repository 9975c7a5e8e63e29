/**
 * What a field of a row must be: the one description from which rows are checked when they are made (by `wrongIn`, quickly) and when they are read
 * (by the schemas of `formats/`, made from it).
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
export const optional = (field: Field): Field => ({ ...field, optional: true });
export const listOf = (of: Field, least = 0, most?: number): Field => ({
  is: "list",
  of,
  least,
  ...(most === undefined ? {} : { most }),
});

/** Names a value that is not what its field says, as `centre.x is not a number`; undefined where all is well. References are checked by the caller. */
export const wrongIn = (fields: Fields, row: unknown, reference: (value: unknown) => boolean): string | undefined => {
  if (typeof row !== "object" || row === null) return "it is no record";
  for (const name in fields) {
    const wrong = wrongField(fields[name]!, (row as Record<string, unknown>)[name], reference);
    if (wrong !== undefined) return `${name}${wrong}`;
  }
  for (const name in row) if (!(name in fields)) return `${name} is unknown`;
  return undefined;
};

const wrongField = (field: Field, value: unknown, reference: (value: unknown) => boolean): string | undefined => {
  if (value === undefined) return field.optional ? undefined : " is missing";
  switch (field.is) {
    case "number":
      if (typeof value !== "number" || !Number.isFinite(value)) return " is not a number";
      if (field.above !== undefined && !(value > field.above)) return ` is not above ${field.above}`;
      if (field.least !== undefined && value < field.least) return ` is less than ${field.least}`;
      return field.most !== undefined && value > field.most ? ` is more than ${field.most}` : undefined;
    case "whole":
      if (typeof value !== "number" || !Number.isInteger(value)) return " is not a whole number";
      return value < field.least || value > field.most ? ` is not from ${field.least} to ${field.most}` : undefined;
    case "boolean":
      return typeof value === "boolean" ? undefined : " is not yes or no";
    case "text":
      if (typeof value !== "string" || (value === "" && !field.empty)) return " is not a text";
      return field.most !== undefined && value.length > field.most ? " is too long" : undefined;
    case "one of":
      return field.of.includes(value as string) ? undefined : ` is none of ${field.of.join(", ")}`;
    case "reference":
      return reference(value) ? undefined : " is no reference";
    case "record": {
      const wrong = wrongIn(field.of, value, reference);
      return wrong === undefined ? undefined : `: ${wrong}`;
    }
    case "list": {
      if (!Array.isArray(value)) return " is not a list";
      if (value.length < (field.least ?? 0)) return ` has fewer than ${field.least}`;
      if (field.most !== undefined && value.length > field.most) return ` has more than ${field.most}`;
      for (let i = 0; i < value.length; i++) {
        const wrong = wrongField(field.of, value[i], reference);
        if (wrong !== undefined) return `[${i}]${wrong}`;
      }
      return undefined;
    }
  }
};
