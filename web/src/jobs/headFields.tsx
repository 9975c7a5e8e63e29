import Joi from "joi";
import type { InputHTMLAttributes } from "react";
import { readTypedValue, type Unit } from "@ash-edge/core/numeric";
import { MATERIALS } from "@ash-edge/core/tables";
import { Segmented } from "../ui/Choice.tsx";

const words = (most: number): Joi.StringSchema =>
  Joi.string()
    .trim()
    .allow("")
    .max(most)
    .messages({ "string.max": `${most} characters at most.` });

/** A job's thickness as its head says it: nothing, or a length that can be read. */
const thickness = words(40).custom((text: string, helpers) => {
  const unit = ((helpers.state.ancestors as { unit?: Unit }[])[0]?.unit ?? "mm") satisfies Unit;
  const read = text === "" || readTypedValue(text, { unit, expects: "length" });
  if (read === true || (read.ok && read.value.value > 0)) return text;
  return helpers.message({ custom: `“${text}” is no thickness: 6, 6 mm or 3/8 in would be one.` });
});

/** What a job says of itself, each with a sentence for what is wrong. */
export const headFields = {
  number: Joi.string()
    .trim()
    .max(20)
    .required()
    .messages({ "string.empty": "A job needs a number.", "string.max": "20 characters at most." }),
  name: Joi.string()
    .trim()
    .max(120)
    .required()
    .messages({ "string.empty": "A job needs a name: what is the part?", "string.max": "120 characters at most." }),
  unit: Joi.valid("mm", "in").required(),
  material: words(80),
  thickness,
};

export const moreHeadFields = {
  customer: words(120),
  quantity: Joi.number()
    .integer()
    .min(1)
    .max(100_000)
    .required()
    .messages({ "*": "The quantity is a whole number, 1 or more." }),
  due: Joi.string()
    .allow("")
    .pattern(/^\d{4}-\d\d-\d\d$/)
    .messages({ "*": "The date is a day, or nothing." }),
};

/** A blank of a form with its name over it and what is wrong under it. */
export const Field = ({
  label,
  error,
  ...input
}: { label: string; error: string | undefined } & InputHTMLAttributes<HTMLInputElement>) => (
  <label className="block min-w-0">
    <span className="text-soft">{label}</span>
    <input
      {...input}
      aria-invalid={error ? true : undefined}
      className="mt-1 block h-8 w-full rounded-card border border-hair bg-board px-2"
    />
    {error && (
      <span role="alert" className="mt-1 block text-fault">
        {error}
      </span>
    )}
  </label>
);

/** Millimetres or inches. */
export const UnitChoice = ({
  label,
  value,
  onChange,
}: {
  label: string;
  value: Unit | "";
  onChange: (unit: Unit) => void;
}) => (
  <Segmented
    label={label}
    options={[
      ["mm", "mm"],
      ["in", "in"],
    ]}
    value={value}
    onChange={(unit) => onChange(unit as Unit)}
  />
);

/** The materials whose density is known, offered in a blank that names this list. */
export const MaterialList = ({ id }: { id: string }) => (
  <datalist id={id}>
    {MATERIALS.map(({ name }) => (
      <option key={name} value={name} />
    ))}
  </datalist>
);
