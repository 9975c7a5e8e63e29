import { useState } from "react";
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

/** Asks for a machine profile, part by part; what is wrong with a part is said beside it. */
export const ProfileForm = ({
  profile: former,
  title,
  submit,
  taken,
  onKeep,
  onClose,
}: {
  profile: MachineProfile;
  title: string;
  submit: string;
  /** The names of the other profiles. */
  taken: readonly string[];
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
  const decimals = profile.decimals === "exact" ? "exact" : "rounded";
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
        <Part
          label="Format"
          value={profile.format}
          options={MACHINE_FORMATS.map((one) => [one, one === "SVG" ? one : `DXF ${one}`])}
          onChange={(format) => put({ format: format as MachineProfile["format"] })}
        />
        <Part
          label="Unit"
          value={profile.unit}
          options={[
            ["job", "the job’s"],
            ["mm", "mm"],
            ["in", "inch"],
          ]}
          onChange={(unit) => put({ unit: unit as MachineProfile["unit"] })}
        />
        <Part
          label="Numbers"
          value={decimals}
          options={[
            ["exact", "exact"],
            ["rounded", "with decimals"],
          ]}
          onChange={(to) => put({ decimals: to === "exact" ? "exact" : 4 })}
        />
        {profile.decimals !== "exact" && (
          <>
            <span />
            <Field
              label={`Decimals, 0 to ${MOST_DECIMALS}`}
              value={typed.decimals ?? String(profile.decimals)}
              inputMode="numeric"
              error={says("decimals")}
              onChange={(event) => put({ decimals: number("decimals", event.target.value) })}
            />
          </>
        )}
        <Part
          label="Arcs"
          value={profile.arcs}
          options={[
            ["bulges", "as bulges"],
            ["entities", "as ARC"],
          ]}
          onChange={(arcs) => put({ arcs: arcs as MachineProfile["arcs"] })}
        />
        <Part
          label="Contours"
          value={profile.chains}
          options={[
            ["one", "one polyline each"],
            ["loose", "pieces by themselves"],
          ]}
          onChange={(chains) => put({ chains: chains as MachineProfile["chains"] })}
        />
        <Wrong says={says("chains")} />
        <Part
          label="0, 0 at"
          value={profile.origin}
          options={[
            ["datum", "the datum"],
            ["corner", "the lower left"],
          ]}
          onChange={(origin) => put({ origin: origin as MachineProfile["origin"] })}
        />
        <Part
          label="Tapped holes"
          value={profile.tapped}
          options={[
            ["cut", "cut as drawn"],
            ["layer", "on their layer"],
            ["point", "as points there"],
          ]}
          onChange={(tapped) => put({ tapped: tapped as MachineProfile["tapped"] })}
        />
        <Wrong says={says("tapped")} />
        <Part
          label="Layers"
          value={profile.layersBy}
          options={[
            ["role", "by what is cut how"],
            ["own", "as drawn"],
          ]}
          onChange={(layersBy) => put({ layersBy: layersBy as MachineProfile["layersBy"] })}
        />
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
    </FormDialog>
  );
};

const Part = ({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange: (to: string) => void;
}) => (
  <>
    <span className="text-soft">{label}</span>
    <Segmented label={label} options={options} value={value} onChange={onChange} />
  </>
);

const Wrong = ({ says }: { says: string | undefined }) =>
  says === undefined ? null : (
    <p role="alert" className="col-span-2 text-fault">
      {says}
    </p>
  );
