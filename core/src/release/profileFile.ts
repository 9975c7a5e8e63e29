import Joi from "joi";
import { done, refuse, type Outcome } from "../numeric/outcome.ts";
import {
  LAYER_USES,
  MACHINE_FORMATS,
  MOST_DECIMALS,
  PROFILE_UNITS,
  TAPPED_WAYS,
  wrongParts,
  type MachineProfile,
} from "./machineProfile.ts";

const layer = Joi.object({
  name: Joi.string().allow("").max(300).required(),
  colour: Joi.number().integer().min(1).max(255).required(),
}).required();

const schema = Joi.object<MachineProfile>({
  name: Joi.string().max(60).required(),
  format: Joi.valid(...MACHINE_FORMATS).required(),
  layersBy: Joi.valid("role", "own").required(),
  layers: Joi.object(Object.fromEntries(LAYER_USES.map((use) => [use, layer]))).required(),
  tapped: Joi.valid(...TAPPED_WAYS).required(),
  unit: Joi.valid(...PROFILE_UNITS).required(),
  decimals: Joi.alternatives(Joi.valid("exact"), Joi.number().integer().min(0).max(MOST_DECIMALS)).required(),
  arcs: Joi.valid("bulges", "entities").required(),
  chains: Joi.valid("one", "loose").required(),
  origin: Joi.valid("datum", "corner").required(),
}).required();

/** What is wrong with what should be a profile: its form, else what it would write; undefined where nothing is. */
export const unsoundProfile = (value: unknown): string | undefined =>
  schema.validate(value, { convert: false }).error?.message ?? wrongParts(value as MachineProfile)[0]?.says;

/** The profiles among what was stored. */
export const soundProfiles = (stored: unknown): readonly MachineProfile[] =>
  (Array.isArray(stored) ? (stored as unknown[]) : []).filter(
    (one): one is MachineProfile => unsoundProfile(one) === undefined,
  );

const KIND = "ash-edge machine profile";
const VERSION = 1;

/** A profile as a file that another browser, and the command line, read. */
export const writeProfileFile = (profile: MachineProfile): string =>
  `${JSON.stringify({ kind: KIND, version: VERSION, profile }, null, 2)}\n`;

/** The profile that a file holds, or why it holds none. */
export const readProfileFile = (text: string): Outcome<MachineProfile> => {
  let read: { kind?: unknown; version?: unknown; profile?: unknown } | null;
  try {
    read = JSON.parse(text) as typeof read;
  } catch {
    return refuse("profile-unreadable");
  }
  if (read?.kind !== KIND) return refuse("profile-unreadable");
  if (typeof read.version !== "number" || read.version > VERSION) return refuse("profile-newer");
  const wrong = unsoundProfile(read.profile);
  return wrong === undefined ? done(read.profile as MachineProfile) : refuse("profile-wrong", { wrong });
};
