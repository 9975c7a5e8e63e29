import { Fragment, useState } from "react";
import {
  LAYER_USES,
  MACHINE_FORMATS,
  MOST_DECIMALS,
  profileLine,
  USE_WORDS,
  usedLayers,
  wrongParts,
  type LayerUse,
  type MachineProfile,
} from "@ash-edge/core/release";
import { Field } from "../jobs/headFields.tsx";
import { Segmented } from "../ui/Choice.tsx";
import { FormDialog } from "../ui/FormDialog.tsx";

/** What is chosen of a profile, in this order. */
const CHOICES: readonly {
  readonly part: Exclude<keyof MachineProfile, "name" | "layers">;
  readonly label: string;
  readonly options: readonly (readonly [string, string])[];
}[] = [
  {
    part: "format",
    label: "Format",
    options: MACHINE_FORMATS.map((one) => [one, one === "SVG" ? one : `DXF ${one}`]),
  },
  {
    part: "unit",
    label: "Unit",
    options: [
      ["job", "the job’s"],
      ["mm", "mm"],
      ["in", "inch"],
    ],
  },
  {
    part: "decimals",
    label: "Numbers",
    options: [
      ["exact", "exact"],
      ["rounded", "with decimals"],
    ],
  },
  {
    part: "arcs",
    label: "Arcs",
    options: [
      ["bulges", "as bulges"],
      ["entities", "as ARC"],
    ],
  },
  {
    part: "chains",
    label: "Contours",
    options: [
      ["one", "one polyline each"],
      ["loose", "pieces by themselves"],
    ],
  },
  {
    part: "origin",
    label: "0, 0 at",
    options: [
      ["datum", "the datum"],
      ["corner", "the lower left"],
    ],
  },
  {
    part: "tapped",
    label: "Tapped holes",
    options: [
      ["cut", "cut as drawn"],
      ["layer", "on their layer"],
      ["point", "as points there"],
    ],
  },
  {
    part: "layersBy",
    label: "Layers",
    options: [
      ["role", "by what is cut how"],
      ["own", "as drawn"],
    ],
  },
];

/** Asks for a machine profile, part by part; what is wrong with a part is said beside it. */
export const ProfileForm = ({
  profile: former,
  title,
  submit,
  taken,
  shared = false,
  onKeep,
  onClose,
}: {
  profile: MachineProfile;
  title: string;
  submit: string;
  /** The names of the other profiles. */
  taken: readonly string[];
  /** Other jobs may take it, and go by what is changed here. */
  shared?: boolean;
  onKeep: (profile: MachineProfile) => Promise<void>;
  onClose: () => void;
}) => {
  const [profile, setProfile] = useState(former);
  const [asked, setAsked] = useState(false);
  // numbers as they are typed, right or wrong
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const number = (part: string, text: string): number => {
    setTyped({ ...typed, [part]: text });
    return text.trim() === "" ? NaN : Number(text);
  };
  const put = (change: Partial<MachineProfile>): void => setProfile({ ...profile, ...change });
  const putLayer = (use: LayerUse, change: Partial<MachineProfile["layers"][LayerUse]>): void =>
    put({ layers: { ...profile.layers, [use]: { ...profile.layers[use], ...change } } });
  const named = { ...profile, name: profile.name.trim() };
  const wrong = wrongParts(named);
  const isTaken = taken.some((name) => name.toLowerCase() === named.name.toLowerCase());
  const says = (part: string): string | undefined => (asked ? wrong.find((one) => one.part === part)?.says : undefined);
  const used = usedLayers(profile);
  return (
    <FormDialog
      title={title}
      submit={submit}
      wide
      onClose={onClose}
      onSubmit={async () => {
        setAsked(true);
        if (wrong.length === 0 && !isTaken) await onKeep(named);
      }}
    >
      <Field
        label="Name"
        value={profile.name}
        autoFocus
        autoComplete="off"
        error={asked && isTaken ? "There is a profile of that name already. Give this one another." : says("name")}
        onChange={(event) => put({ name: event.target.value })}
      />
      <div className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2">
        {CHOICES.map(({ part, label, options }) => (
          <Fragment key={part}>
            <span className="text-soft">{label}</span>
            <Segmented
              label={label}
              options={options}
              value={part === "decimals" && profile.decimals !== "exact" ? "rounded" : String(profile[part])}
              onChange={(to) => put({ [part]: to === "rounded" ? 4 : to })}
            />
            {part === "decimals" && profile.decimals !== "exact" && (
              <div className="col-start-2">
                <Field
                  label={`Decimals, 0 to ${MOST_DECIMALS}`}
                  value={typed.decimals ?? String(profile.decimals)}
                  inputMode="numeric"
                  error={says("decimals")}
                  onChange={(event) => put({ decimals: number("decimals", event.target.value) })}
                />
              </div>
            )}
            {part !== "decimals" && says(part) && (
              <p role="alert" className="col-span-2 text-fault">
                {says(part)}
              </p>
            )}
          </Fragment>
        ))}
      </div>
      {LAYER_USES.filter((use) => used.includes(use)).map((use) => (
        <fieldset key={use} className="grid grid-cols-[1fr_5rem] items-end gap-2">
          <legend className="sr-only">{USE_WORDS[use]}</legend>
          <Field
            label={`Layer of ${USE_WORDS[use].toLowerCase()}`}
            value={profile.layers[use].name}
            autoComplete="off"
            error={undefined}
            onChange={(event) => putLayer(use, { name: event.target.value })}
          />
          <Field
            label="Colour no."
            value={typed[use] ?? String(profile.layers[use].colour)}
            inputMode="numeric"
            error={undefined}
            onChange={(event) => putLayer(use, { colour: number(use, event.target.value) })}
          />
          {says(use) && (
            <p role="alert" className="col-span-2 text-fault">
              {says(use)}
            </p>
          )}
        </fieldset>
      ))}
      <p className="text-soft">{profileLine(named)}</p>
      {shared && <p className="text-caution">Every job that takes this profile goes by it from now on.</p>}
    </FormDialog>
  );
};
