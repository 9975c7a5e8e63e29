import { expose } from "comlink";
import { surveyOf, type ReleaseAsked, type ReleasePlan, type Survey } from "@ash-edge/core/checks";
import { settingsOf, type Drawing } from "@ash-edge/core/drawing";
import type { FoundSvg } from "@ash-edge/core/formats/svg";
import type { Point } from "@ash-edge/core/geometry";
import { profileOf, thicknessAlong, type AlongPlace } from "@ash-edge/core/profile";
import {
  compareDxf,
  compareMachineSvg,
  lettersOf,
  machineFile,
  machineText,
  PLAIN_PROFILE,
  type Comparison,
  type MachineFile,
  type MachineProfile,
} from "@ash-edge/core/release";
import { sayRefusal } from "@ash-edge/core/say";
import type { Thumbnail } from "../store/index.ts";
import { filePicture } from "./filePicture.ts";

/** What is asked of a release, and the machine that it is for. */
export type AskedFor = Omit<ReleaseAsked, "letters" | "layers" | "tappedApart"> & {
  readonly profile?: MachineProfile;
  /** Nobody looks at the picture of the file: it is not made. */
  readonly unseen?: true;
};

/**
 * What is known of a drawing before it is cut, with the picture of what the file holds, read again; or why there would
 * be none.
 */
export type Looked = Survey & { readonly picture: Thumbnail | undefined; readonly refused?: string };

const asked = ({ profile = PLAIN_PROFILE, unseen: _, ...rest }: AskedFor): ReleaseAsked => ({
  ...rest,
  layers: profile.layersBy,
  letters: lettersOf(profile.format),
  tappedApart: profile.tapped !== "cut",
});

type Planned = Pick<ReleasePlan, "contours" | "unit" | "layers">;

/** The file of a plan and its text; a refusal as an error in words. */
const fileOf = (plan: Planned, profile: MachineProfile, datum: Point): { file: MachineFile; text: string } => {
  const file = machineFile(plan, profile, datum);
  if (!file.ok) throw new Error(sayRefusal(file.refusal, plan.unit));
  const text = machineText(file.value);
  if (!text.ok) throw new Error(sayRefusal(text.refusal, plan.unit));
  return { file: file.value, text: text.value };
};

/** The long work of a release: sorting and checking the drawing, writing the file, reading it back. */
export const worker = {
  look: (drawing: Drawing, of: AskedFor): Looked => {
    const survey = surveyOf(drawing, asked(of));
    if (of.unseen || survey.plan.contours.length === 0) return { ...survey, picture: undefined };
    try {
      const { file, text } = fileOf(survey.plan, of.profile ?? PLAIN_PROFILE, settingsOf(drawing).datum);
      return { ...survey, picture: filePicture(file, text) };
    } catch (reason) {
      return { ...survey, picture: undefined, refused: (reason as Error).message };
    }
  },
  thickness: (drawing: Drawing, which: number): readonly AlongPlace[] =>
    thicknessAlong(profileOf(drawing).contours, which),
  write: (plan: Planned, profile: MachineProfile, datum: Point): { text: string; comparison?: Comparison } => {
    const { file, text } = fileOf(plan, profile, datum);
    return profile.format === "SVG" ? { text } : { text, comparison: compareDxf(file, text) };
  },
  /** What the browser's own engine and our reader find in an SVG. */
  compareSvg: (plan: Planned, profile: MachineProfile, datum: Point, text: string, found: FoundSvg): Comparison =>
    compareMachineSvg(fileOf(plan, profile, datum).file, text, found),
};
export type ReleaseWorker = typeof worker;
expose(worker);
