import { joiResolver } from "@hookform/resolvers/joi";
import Joi from "joi";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { toast } from "sonner";
import { useDatabase } from "../app/StoreProvider.tsx";
import { changeHead, numbersTaken, type JobRecord } from "../store/index.ts";
import { FormDialog } from "../ui/FormDialog.tsx";
import { Field, headFields, MaterialList, moreHeadFields } from "./headFields.tsx";

type Fields = Pick<JobRecord, "number" | "name" | "unit" | "customer" | "material" | "thickness" | "quantity" | "due">;

const schema = Joi.object({ ...headFields, ...moreHeadFields });

/** What a job says of itself, to be changed: part, number, customer, material, thickness, quantity and date. */
export const JobDetails = ({
  job,
  onClose,
  onChanged,
}: {
  job: JobRecord;
  onClose: () => void;
  onChanged?: (job: JobRecord) => void;
}) => {
  const database = useDatabase();
  const [known, setKnown] = useState(job);
  const { number, name, unit, customer, material, thickness, quantity, due } = job;
  const { register, handleSubmit, setError, formState } = useForm<Fields>({
    defaultValues: { number, name, unit, customer, material, thickness, quantity, due },
    resolver: joiResolver(schema),
  });
  const keep = async (fields: Fields): Promise<void> => {
    const taken = fields.number !== job.number && (await numbersTaken(database)).includes(fields.number);
    if (taken) return setError("number", { message: `There is another job ${fields.number}.` });
    const { job: changed, clashes } = await changeHead(database, known, fields);
    if (clashes.length > 0) {
      // what is kept next goes over what the other tab wrote there, which was read by then; its other fields stay
      setKnown({ ...known, ...Object.fromEntries(clashes.map(({ field }) => [field, changed[field]])) });
      for (const { field, theirs, mine } of clashes)
        setError(field, { message: `Another tab made it “${theirs}”. Keep again puts “${mine}” there.` });
      return;
    }
    toast(`${changed.number} ${changed.name}: details changed`, {
      action: {
        label: "Undo",
        onClick: () => void changeHead(database, changed, job).then(({ job: back }) => onChanged?.(back)),
      },
    });
    onChanged?.(changed);
    onClose();
  };
  const field = (name: keyof Fields, label: string, more: object = {}) => (
    <Field label={label} error={formState.errors[name]?.message} {...register(name)} {...more} />
  );
  return (
    <FormDialog title="Job details" submit="Keep" onSubmit={handleSubmit(keep)} onClose={onClose}>
      {field("name", "Part", { autoFocus: true })}
      <div className="grid grid-cols-2 gap-3">
        {field("number", "Job number")}
        {field("customer", "Customer")}
        {field("material", "Material", { list: "job-materials" })}
        {field("thickness", "Thickness")}
        {field("quantity", "Quantity", { inputMode: "numeric" })}
        {field("due", "Due", { type: "date" })}
      </div>
      <MaterialList id="job-materials" />
      <p className="text-xs text-soft">The weight of the pieces comes from the material and the thickness.</p>
    </FormDialog>
  );
};
