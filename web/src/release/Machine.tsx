import { useState } from "react";
import { toast } from "sonner";
import type { Unit } from "@ash-edge/core/numeric";
import { profileLine, type MachineProfile } from "@ash-edge/core/release";
import { useDatabase } from "../app/StoreProvider.tsx";
import { ProfileForm } from "../profiles/ProfileForm.tsx";
import {
  changeProfiles,
  chooseProfile,
  freeName,
  sayStoreFault,
  withProfile,
  type JobRecord,
  type KeptProfiles,
} from "../store/index.ts";

/** Which machine the file is for: a profile is chosen, changed, or made from one. */
export const Machine = ({
  job,
  kept,
  profile,
  gone,
  unit,
}: {
  job: JobRecord;
  kept: KeptProfiles | undefined;
  profile: MachineProfile;
  gone: string | undefined;
  unit: Unit;
}) => {
  const database = useDatabase();
  const [form, setForm] = useState<"change" | "new">();
  if (!kept) return null;
  const { list } = kept;
  const tell = (work: Promise<void>): Promise<void> => work.catch((reason) => void toast.error(sayStoreFault(reason)));
  const button = "h-8 rounded-card border border-hair px-2 hover:border-ink";
  return (
    <div className="mt-2">
      <label>
        <span className="text-soft">Machine</span>
        <select
          className="mt-1 block h-8 w-full rounded-card border border-hair bg-board px-2"
          value={profile.name}
          onChange={(event) => void tell(chooseProfile(database, job.id, event.target.value))}
        >
          {list.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </label>
      {gone !== undefined && (
        <p role="alert" className="mt-1 text-caution">
          The profile that this job took, {gone}, is not there any more. {profile.name} is taken: look whether that is
          right.
        </p>
      )}
      <p className="mt-1 text-xs text-soft">{profileLine(profile, unit)}</p>
      <div className="mt-2 flex gap-2">
        <button type="button" className={button} onClick={() => setForm("change")}>
          Change it …
        </button>
        <button type="button" className={button} onClick={() => setForm("new")}>
          New from it …
        </button>
      </div>
      {form && (
        <ProfileForm
          profile={form === "new" ? { ...profile, name: freeName(list, profile.name) } : profile}
          title={form === "new" ? "New machine profile" : `Change ${profile.name}`}
          shared={form === "change"}
          submit={form === "new" ? "Make it" : "Change it"}
          taken={list.flatMap(({ name }) => (form === "change" && name === profile.name ? [] : [name]))}
          onClose={() => setForm(undefined)}
          onKeep={async (made) => {
            const former = form === "change" ? profile.name : undefined;
            await tell(
              changeProfiles(database, (now) => {
                const next = withProfile(now, made, former);
                return { ...next, chosen: { ...next.chosen, [job.id]: made.name }, last: made.name };
              }),
            );
            setForm(undefined);
          }}
        />
      )}
    </div>
  );
};
