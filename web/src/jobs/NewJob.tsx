import { joiResolver } from "@hookform/resolvers/joi";
import Joi from "joi";
import { useEffect, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import { useNavigate } from "react-router";
import type { Unit } from "@ash-edge/core/numeric";
import { useDatabase } from "../app/StoreProvider.tsx";
import { askToKeep } from "../app/storage.ts";
import { createJob, sayStoreFault, type NewSketch } from "../store/index.ts";
import { FormDialog } from "../ui/FormDialog.tsx";
import { filesOf } from "../ui/readPicture.ts";
import { PICTURE_TYPES, useTakenPictures } from "../ui/useTakenPictures.tsx";
import { Field, headFields, MaterialList, UnitChoice } from "./headFields.tsx";

type Fields = { number: string; name: string; unit: Unit; material: string; thickness: string };

const schema = Joi.object(headFields);

/**
 * Asks for what a job needs before it can be drawn: number, name and the unit of its sketch; what it is cut of, if that
 * is known.
 */
export const NewJob = ({
  number,
  taken,
  files,
  onClose,
}: {
  number: string;
  taken: readonly string[];
  /** Pictures that the job begins with. */
  files?: readonly File[];
  onClose: () => void;
}) => {
  const database = useDatabase();
  const navigate = useNavigate();
  const { register, handleSubmit, setError, setValue, control, formState } = useForm<Fields>({
    defaultValues: { number, name: "", unit: "mm", material: "", thickness: "" },
    resolver: joiResolver(schema),
  });
  const [sketches, setSketches] = useState<readonly NewSketch[]>([]);
  const [refusal, setRefusal] = useState<string>();
  const pictures = useTakenPictures(
    (sketch) => setSketches((now) => [...now, sketch]),
    (reason) => setRefusal(reason.message),
  );
  const take = (files: readonly File[]): Promise<void> => {
    setRefusal(undefined);
    return pictures.take(files);
  };
  useEffect(() => {
    let current = true;
    void Promise.resolve().then(() => (current && files ? take(files) : undefined));
    return () => {
      current = false;
    };
  }, [files]); // eslint-disable-line react-hooks/exhaustive-deps
  const unit = useWatch({ control, name: "unit" });
  const make = async (fields: Fields): Promise<void> => {
    if (taken.includes(fields.number))
      return setError("number", { message: `There is a job ${fields.number} already. ${number} is free.` });
    try {
      const id = await createJob(database, { ...fields, customer: "", quantity: 1, due: "" }, [], sketches);
      askToKeep();
      await navigate(`/jobs/${id}`);
    } catch (reason) {
      setRefusal(sayStoreFault(reason));
    }
  };
  const field = (name: keyof Fields, label: string, more: object = {}) => (
    <Field label={label} error={formState.errors[name]?.message} {...register(name)} {...more} />
  );
  return (
    <>
      <FormDialog
        title="New job"
        submit="Make the job"
        holds={formState.isDirty || sketches.length > 0}
        onSubmit={handleSubmit(make)}
        onClose={onClose}
      >
        {field("name", "Part", { autoFocus: true })}
        {field("number", "Job number")}
        <div>
          <div className="mb-1 text-soft">Unit of the sketch</div>
          <UnitChoice label="Unit of the sketch" value={unit} onChange={(unit) => setValue("unit", unit)} />
        </div>
        <div className="grid grid-cols-2 gap-3">
          {field("material", "Material", { list: "new-job-materials" })}
          {field("thickness", "Thickness")}
        </div>
        <MaterialList id="new-job-materials" />
        <div
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault();
            void take(filesOf(event.dataTransfer));
          }}
          onPaste={(event) => void take(filesOf(event.clipboardData))}
        >
          <label className="block">
            <span className="text-soft">Pictures of the sketch, if there are any</span>
            <input
              type="file"
              accept={PICTURE_TYPES}
              multiple
              onChange={(event) => void take([...(event.target.files ?? [])])}
              className="mt-1 block w-full rounded-card border border-dashed border-hair bg-board px-2 py-3 text-soft"
            />
          </label>
          {sketches.length > 0 && <p className="mt-1 text-moss">{sketches.map(({ name }) => name).join(", ")}</p>}
          {refusal && (
            <p role="alert" className="mt-1 text-fault">
              {refusal}
            </p>
          )}
        </div>
      </FormDialog>
      {pictures.dialog}
    </>
  );
};
