import { useLiveQuery } from "dexie-react-hooks";
import { Copy, Download, Pencil, Trash2 } from "lucide-react";
import { useState } from "react";
import { toast } from "sonner";
import {
  FIRST_PROFILES,
  profileLine,
  readProfileFile,
  writeProfileFile,
  type MachineProfile,
} from "@ash-edge/core/release";
import { sayRefusal } from "@ash-edge/core/say";
import { useDatabase } from "../app/StoreProvider.tsx";
import {
  changeProfiles,
  freeName,
  keptProfiles,
  sayStoreFault,
  withProfile,
  type KeptProfiles,
} from "../store/index.ts";
import { IconButton } from "../ui/IconButton.tsx";
import { fileName, saveAs } from "../ui/saveAs.ts";
import { ProfileForm } from "./ProfileForm.tsx";

/** The shop's machine profiles: made, changed, duplicated, taken from files and saved to them. */
export const ProfilesCard = () => {
  const database = useDatabase();
  const kept = useLiveQuery(() => keptProfiles(database), [database]);
  const [changing, setChanging] = useState<MachineProfile>();
  const [wrong, setWrong] = useState<string>();
  if (!kept) return null;
  const { list } = kept;
  const change = async (to: (now: KeptProfiles) => KeptProfiles, said?: string): Promise<void> => {
    try {
      await changeProfiles(database, to);
    } catch (reason) {
      return void toast.error(sayStoreFault(reason));
    }
    if (said !== undefined)
      toast(said, { action: { label: "Undo", onClick: () => void changeProfiles(database, () => kept) } });
  };
  const open = async (file: File): Promise<void> => {
    const read = readProfileFile(await file.text());
    setWrong(read.ok ? undefined : `${file.name}: ${sayRefusal(read.refusal, "mm")}`);
    if (!read.ok) return;
    await change((now) => {
      const profile = { ...read.value, name: freeName(now.list, read.value.name) };
      return withProfile(now, profile);
    }, `${read.value.name} was taken from the file`);
  };
  const button = "h-8 rounded-card border border-hair px-3 hover:border-ink";
  return (
    <section className="card mt-3 p-4" aria-label="Machine profiles">
      <h2 className="font-semibold">Machine profiles</h2>
      <p className="mt-1 text-soft">
        What the shop’s machines want of a file. A job chooses one at its release, and keeps to it.
      </p>
      <ul className="mt-3">
        {list.map((profile) => (
          <li key={profile.name} className="flex items-center gap-1 border-t border-hair py-1.5">
            <span className="min-w-0 flex-1">
              <b className="block truncate">{profile.name}</b>
              <span className="block text-xs text-soft">{profileLine(profile)}</span>
            </span>
            <IconButton label={`Change ${profile.name}`} onClick={() => setChanging(profile)}>
              <Pencil size={14} aria-hidden="true" />
            </IconButton>
            <IconButton
              label={`Duplicate ${profile.name}`}
              onClick={() =>
                void change((now) => withProfile(now, { ...profile, name: freeName(now.list, profile.name) }))
              }
            >
              <Copy size={14} aria-hidden="true" />
            </IconButton>
            <IconButton
              label={`Save ${profile.name} to a file`}
              onClick={() =>
                saveAs(fileName(profile.name, ".profile.json"), writeProfileFile(profile), "application/json")
              }
            >
              <Download size={14} aria-hidden="true" />
            </IconButton>
            <IconButton
              label={`Remove ${profile.name}`}
              disabled={list.length === 1}
              onClick={() =>
                void change(
                  (now) => ({ ...now, list: now.list.filter(({ name }) => name !== profile.name) }),
                  `${profile.name} removed`,
                )
              }
            >
              <Trash2 size={14} aria-hidden="true" />
            </IconButton>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex items-center gap-2">
        <label className={`${button} flex cursor-pointer items-center`}>
          From a file …
          <input
            type="file"
            accept=".json,application/json"
            className="sr-only"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = "";
              if (file) void open(file);
            }}
          />
        </label>
        <span className="flex-1" />
        <button
          type="button"
          className={button}
          onClick={() => void change((now) => ({ ...now, list: FIRST_PROFILES }), "The profiles are as they came")}
        >
          As they came
        </button>
      </div>
      {wrong && (
        <p role="alert" className="mt-2 text-fault">
          {wrong}
        </p>
      )}
      {changing && (
        <ProfileForm
          profile={changing}
          title={`Change ${changing.name}`}
          shared
          submit="Change it"
          taken={list.flatMap(({ name }) => (name === changing.name ? [] : [name]))}
          onClose={() => setChanging(undefined)}
          onKeep={async (profile) => {
            await change((now) => withProfile(now, profile, changing.name));
            setChanging(undefined);
          }}
        />
      )}
    </section>
  );
};
