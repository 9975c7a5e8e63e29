import { joiResolver } from "@hookform/resolvers/joi";
import Joi from "joi";
import { useEffect, useMemo, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import { useNavigate } from "react-router";
import { addCallouts, calloutsInText, readLedgerLine, unitOfText } from "@ash-edge/core/callouts";
import { applyEdit, newDrawing } from "@ash-edge/core/drawing";
import { openDrawing } from "@ash-edge/core/formats";
import { showLengthUnit, type Unit } from "@ash-edge/core/numeric";
import { useDatabase } from "../app/StoreProvider.tsx";
import { askToKeep } from "../app/storage.ts";
import { Field, headFields, moreHeadFields, UnitChoice } from "../jobs/headFields.tsx";
import { createJob, keepJobOf, sayStoreFault } from "../store/index.ts";
import { CalloutLines } from "../ui/CalloutLines.tsx";
import { FormDialog } from "../ui/FormDialog.tsx";
import { MarkedText } from "./MarkedText.tsx";
import { useCameWith } from "./useCameWith.tsx";
import type { Message } from "./useInbox.ts";

type Fields = { number: string; name: string; unit: Unit; material: string; thickness: string; customer: string };

const schema = Joi.object({ ...headFields, customer: moreHeadFields.customer });

/** The lines that a text proposes, and the thickness that it says. */
const proposed = (text: string, unit: Unit): { readonly lines: readonly string[]; readonly thickness: string } => {
  const read = calloutsInText(text, unit).map(({ line }) => ({ line, read: readLedgerLine(line, unit) }));
  const said = read.flatMap(({ read }) => (read.ok ? (read.value.thickness ?? []) : []));
  return {
    lines: read.flatMap(({ line, read }) => (read.ok && read.value.callouts.length > 0 ? line : [])),
    thickness: said[0] === undefined ? "" : showLengthUnit(said[0], unit),
  };
};

/** Makes a job of a message: what came with it as sketches and drawing, its numbers as callouts to be looked at. */
export const JobOfMessage = ({
  message,
  number,
  taken,
  onClose,
}: {
  message: Message;
  number: string;
  taken: readonly string[];
  onClose: () => void;
}) => {
  const database = useDatabase();
  const navigate = useNavigate();
  const first = useMemo(() => unitOfText(message.text), [message]);
  const { register, handleSubmit, setError, setValue, control, formState } = useForm<Fields>({
    defaultValues: {
      number,
      name: message.subject,
      unit: first,
      material: "",
      thickness: proposed(message.text, first).thickness,
      customer: message.from,
    },
    resolver: joiResolver(schema),
  });
  const chosenUnit = useWatch({ control, name: "unit" });
  const proposal = useMemo(() => proposed(message.text, first).lines, [message, first]);
  const [lines, setLines] = useState(proposal);
  const [refusal, setRefusal] = useState<string>();
  const came = useCameWith(message);
  const drawn = came.drawing?.read;
  const unit = drawn?.unit ?? chosenUnit;
  useEffect(() => {
    if (drawn?.unit) setValue("unit", drawn.unit);
  }, [drawn, setValue]);
  const wrong = lines.filter((line) => line.trim() !== "" && !readLedgerLine(line, unit).ok).length;
  const make = async (fields: Fields): Promise<void> => {
    if (taken.includes(fields.number))
      return setError("number", { message: `There is a job ${fields.number} already. ${number} is free.` });
    const written = lines.flatMap((line) => {
      const read = readLedgerLine(line, unit);
      return read.ok ? read.value.callouts : [];
    });
    const start = drawn ? openDrawing(drawn, unit) : newDrawing(unit);
    const drawing = written.length > 0 ? applyEdit(start, addCallouts(start, written)) : start;
    try {
      const head = { ...fields, unit, quantity: 1, due: "" };
      const id = await createJob(database, head, [], came.sketches, drawing);
      askToKeep();
      await keepJobOf(database, message.id, id);
      await navigate(`/jobs/${id}`);
    } catch (reason) {
      setRefusal(sayStoreFault(reason));
    }
  };
  const field = (name: keyof Fields, label: string, autoFocus = false) => (
    <Field label={label} error={formState.errors[name]?.message} autoFocus={autoFocus} {...register(name)} />
  );
  return (
    <>
      <FormDialog
        title="A job of this message"
        submit="Make the job"
        ready={came.isSettled}
        holds={formState.isDirty || lines !== proposal}
        wide
        onSubmit={handleSubmit(make)}
        onClose={onClose}
      >
        <div className="grid grid-cols-2 gap-3">
          {field("name", "Part", true)}
          {field("number", "Job number")}
          {field("customer", "Customer")}
          {field("thickness", "Thickness")}
        </div>
        <div>
          <div className="mb-1 text-soft">{drawn?.unit ? `Unit: the file’s, ${drawn.unit}` : "Unit of the sketch"}</div>
          {!drawn?.unit && (
            <UnitChoice label="Unit of the sketch" value={unit} onChange={(unit) => setValue("unit", unit)} />
          )}
        </div>
        {came.list}
        <div
          tabIndex={0}
          role="group"
          aria-label="What it says"
          className="max-h-28 overflow-y-auto rounded-card bg-board px-2 py-1.5 whitespace-pre-wrap"
        >
          <MarkedText text={message.text} found={calloutsInText(message.text, unit)} />
        </div>
        <div role="group" aria-label="Callouts from its words" className="flex flex-col">
          <div className="text-soft">
            {lines.length === 0
              ? "No numbers in its words. Callouts are written on the bench."
              : "Callouts from its words: look at each; emptied ones are left out"}
          </div>
          {lines.length > 0 && unit !== first && (
            <p className="text-caution">
              {`Numbers without a unit are read as ${unit}, the job’s unit. Look whether the words mean that.`}
            </p>
          )}
          <CalloutLines lines={lines} unit={unit} onChange={setLines} />
          {wrong > 0 && (
            <p className="text-xs text-caution">
              {`${wrong} can’t be read and would be left out: change or empty them.`}
            </p>
          )}
        </div>
        {refusal && (
          <p role="alert" className="text-fault">
            {refusal}
          </p>
        )}
      </FormDialog>
      {came.dialog}
    </>
  );
};
