import { rename, writeFile } from "node:fs/promises";
import { calloutText, changeCallout } from "@ash-edge/core/callouts";
import { calloutsOff } from "@ash-edge/core/checks";
import { applyEdit, calloutsOf, unitOf, type Callout, type Drawing } from "@ash-edge/core/drawing";
import { readTypedValue, showLength, type Id } from "@ash-edge/core/numeric";
import {
  calloutName,
  followsWords,
  heldWords,
  movesWords,
  nothingOpenWords,
  oddsWords,
  openWords,
  relationWords,
  sayRefusal,
} from "@ash-edge/core/say";
import { lookTrue, numbersStanding, oddsIn, type Held, type TrueLook } from "@ash-edge/core/solve";
import type { Arguments } from "./arguments.ts";
import { openJob } from "./openFile.ts";
import { Unusable } from "./unusable.ts";

type Told = { readonly code: 0 | 1; readonly text: string };

/** The callout that `R 14 belly`, `R 14` or `belly` names; the words must fit one alone. */
const calloutNamed = (drawing: Drawing, words: string): Callout => {
  const plain = (text: string): string => text.replace(/\s+/g, " ").trim().toLowerCase();
  const wanted = plain(words);
  const found = calloutsOf(drawing).filter((one) => {
    const text = calloutText(one, unitOf(drawing));
    return [text, one.name, `${text} ${one.name}`].some((name) => plain(name) === wanted);
  });
  const [only, ...more] = found;
  if (!only) throw new Unusable(`--set: no callout is called ${words}`);
  if (more.length > 0)
    throw new Unusable(`--set: ${found.length} callouts are called ${words}; write its name as well`);
  return only;
};

/** The drawing with its numbers revised, and which they are. */
const revised = (
  drawing: Drawing,
  sets: readonly string[],
): { readonly drawing: Drawing; readonly ids: readonly Id[] } => {
  const ids: Id[] = [];
  let now = drawing;
  for (const set of sets) {
    const at = set.lastIndexOf("=");
    if (at < 1) throw new Unusable(`--set takes a callout and its number, such as --set "R 14 belly=15", not ${set}`);
    const callout = calloutNamed(now, set.slice(0, at));
    const read = readTypedValue(set.slice(at + 1), {
      unit: unitOf(now),
      expects: callout.kind === "angle" ? "angle" : callout.kind === "count" ? "count" : "length",
    });
    if (!read.ok) throw new Unusable(`--set ${set}: ${sayRefusal(read.refusal, unitOf(now))}`);
    const { id, links: _, ...written } = callout;
    const edit = changeCallout(now, id, { ...written, value: read.value.value });
    if (edit) now = applyEdit(now, edit);
    ids.push(id);
  }
  return { drawing: now, ids };
};

const said = (drawing: Drawing, look: TrueLook): readonly string[] => {
  if (look.ok) {
    const counts = new Map<Held["kind"], number>();
    for (const { kind } of look.holds) counts.set(kind, (counts.get(kind) ?? 0) + 1);
    const holding = [...counts].map(([kind, count]) => heldWords(kind, count)).join(", ");
    return [
      movesWords(look.moves),
      ...(look.rough
        ? ["taken as not exact yet: what is nearly level, tangent or alike comes to be (--as-drawn)"]
        : []),
      ...(holding ? [`held: ${holding}`] : []),
      ...look.letGo.filter(({ kind }) => kind !== "size").map((one) => `let go: ${relationWords(drawing, one)}`),
      ...look.lost.map((id) => `holds no more: ${calloutName(drawing, id)}`),
      ...look.doubtful.map((id) => `is it right? ${calloutName(drawing, id)} is far from what is drawn`),
    ];
  }
  const unit = unitOf(drawing);
  return [
    look.odds ? oddsWords(drawing, look.odds.callouts) : sayRefusal(look.refusal, unit),
    ...(look.odds?.relations ?? []).map((one) => `as long as it holds: ${relationWords(drawing, one)}`),
    ...(look.limit === undefined ? [] : [`it goes to ${showLength(look.limit, unit)}`]),
  ];
};

/** What the numbers of a job leave open, which follow from others, and which can't all be true. */
const listed = (drawing: Drawing, json: boolean): Told => {
  const standing = numbersStanding(drawing);
  const off = calloutsOff(drawing);
  const look = off.length > 0 ? lookTrue(drawing, { callouts: off }) : undefined;
  const odds = oddsIn(look).flat();
  const code = standing.rough || standing.open.length > 0 || odds.length > 0 ? 1 : 0;
  if (json) {
    const name = (id: Id): string => calloutName(drawing, id);
    const open = standing.open.map(({ what, of, value, at }) => ({ what, of, value, at: [at.x, at.y] }));
    const follows = standing.follows.map(({ callout, from }) => ({ callout: name(callout), from: from.map(name) }));
    const { rough } = standing;
    const found = { units: unitOf(drawing), rough, open, follows, atOdds: odds.map(name) };
    return { code, text: `${JSON.stringify(found)}\n` };
  }
  const lines = [
    ...(standing.rough ? ["not exact yet: what is left open is told once the numbers are true"] : []),
    ...standing.open.map((one) => `left open: ${openWords(drawing, one)}`),
    ...standing.follows.map((one) => followsWords(drawing, one)),
    ...(odds.length > 0 ? [oddsWords(drawing, odds)] : []),
  ];
  return { code, text: `${lines.length > 0 ? lines.join("\n") : `left open: ${nothingOpenWords(standing.unseen)}`}\n` };
};

/** Makes the numbers of a saved job true and writes the job; or lists what they leave open. */
export const makeJobTrue = async ({ inputs, out, json, set, open, asDrawn }: Arguments): Promise<Told> => {
  const [input, ...more] = inputs;
  if (input === undefined || more.length > 0) throw new Unusable("true takes one saved job; see --help");
  const { drawing: before, head, sketches } = await openJob(input);
  if (open) return listed(before, json);
  const { drawing, ids } = revised(before, set);
  const asked = ids.length > 0 ? ids : calloutsOff(drawing);
  const nothing = asked.length === 0;
  const look = nothing ? undefined : lookTrue(drawing, { callouts: asked, asDrawn });
  const lines = look ? said(drawing, look) : ["every placed number is true already"];
  const made = look?.ok ? applyEdit(drawing, look.edit) : drawing;
  const written = !look || look.ok;
  if (written) {
    const { writeJobFile } = await import("@ash-edge/core/formats/job");
    const text = writeJobFile(head, made, sketches);
    if (out === "-") return { code: 0, text };
    try {
      await writeFile(`${out}.part`, text);
      await rename(`${out}.part`, out!);
    } catch (reason) {
      throw new Unusable(`${out}: it can't be written there (${(reason as NodeJS.ErrnoException).code ?? "unknown"})`);
    }
  }
  const names = asked.map((id) => calloutName(drawing, id));
  const text = json
    ? JSON.stringify({ made: written ? names : [], file: written ? out : null, said: lines })
    : [...(written ? names.map((name) => `true: ${name}`) : []), ...lines, written ? out : "nothing was written"].join(
        "\n",
      );
  return { code: written ? 0 : 1, text: `${text}\n` };
};
