import { FIRST_PROFILES, soundProfiles, type MachineProfile } from "@ash-edge/core/release";
import type { Database } from "./database.ts";

/** The name under which the shop's machine profiles are stored. */
const PROFILES_KEY = "profiles";

/** The shop's machine profiles, and which of them a job takes: by name, which no two of them share. */
export type KeptProfiles = {
  readonly list: readonly MachineProfile[];
  readonly chosen: Readonly<Record<string, string>>;
  /** What was chosen last, for jobs that have chosen none. */
  readonly last?: string | undefined;
};

const textsOf = (value: unknown): Record<string, string> =>
  typeof value === "object" && value !== null
    ? Object.fromEntries(
        Object.entries(value as Record<string, unknown>).filter(
          (one): one is [string, string] => typeof one[1] === "string",
        ),
      )
    : {};

/** What is stored of machine profiles, without what is damaged; those that came with it where none is left. */
export const keptProfiles = async (database: Database): Promise<KeptProfiles> => {
  const stored = (await database.settings.get(PROFILES_KEY).catch(() => undefined))?.value as
    Partial<Record<keyof KeptProfiles, unknown>> | undefined;
  const list = soundProfiles(stored?.list);
  const last = typeof stored?.last === "string" ? stored.last : undefined;
  return { list: list.length > 0 ? list : FIRST_PROFILES, chosen: textsOf(stored?.chosen), last };
};

/** Changes what is stored of machine profiles, from what is stored now. */
export const changeProfiles = (database: Database, change: (kept: KeptProfiles) => KeptProfiles): Promise<void> =>
  database.transaction("rw", database.settings, async () => {
    await database.settings.put({ key: PROFILES_KEY, value: change(await keptProfiles(database)) });
  });

/**
 * The profile that a job takes: its own choice, else the last one made, else the first there is. `gone` is the name of
 * its own choice where that is not there any more.
 */
export const profileFor = (
  { list, chosen, last }: KeptProfiles,
  job: string,
): { readonly profile: MachineProfile; readonly gone?: string } => {
  const named = (name: string | undefined): MachineProfile | undefined => list.find((one) => one.name === name);
  const own = chosen[job];
  const profile = named(own) ?? named(last) ?? list[0]!;
  return own !== undefined && profile.name !== own ? { profile, gone: own } : { profile };
};

/** A job takes a profile from now on. */
export const chooseProfile = (database: Database, job: string, name: string): Promise<void> =>
  changeProfiles(database, (kept) => ({ ...kept, chosen: { ...kept.chosen, [job]: name }, last: name }));

/** Puts a profile in the place of the one that had a name, or after the others; jobs that chose that one go with it. */
export const withProfile = (kept: KeptProfiles, profile: MachineProfile, former?: string): KeptProfiles => {
  const at = former === undefined ? -1 : kept.list.findIndex(({ name }) => name === former);
  const list = at < 0 ? [...kept.list, profile] : kept.list.map((one, i) => (i === at ? profile : one));
  const renamed = (name: string): string => (name === former ? profile.name : name);
  const chosen = Object.fromEntries(Object.entries(kept.chosen).map(([job, name]) => [job, renamed(name)]));
  return { list, chosen, last: kept.last === undefined ? undefined : renamed(kept.last) };
};

/** A name that no profile has yet: this one, or with a number. */
export const freeName = (list: readonly MachineProfile[], name: string): string => {
  const taken = (own: string): boolean => list.some((one) => one.name.toLowerCase() === own.toLowerCase());
  for (let n = 2, own = name; ; n++) {
    if (!taken(own)) return own;
    own = `${name.slice(0, 54)} ${n}`;
  }
};
