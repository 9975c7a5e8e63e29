import { answerCallout } from "@ash-edge/core/callouts";
import { applyEdit, calloutsOf, type Drawing } from "@ash-edge/core/drawing";
import { profileOf } from "@ash-edge/core/profile";
import { makeTrue, numbersStanding, proposeLinks } from "@ash-edge/core/solve";
import { relationsIn, type Relation } from "../../core/src/solve/holds/index.ts";
import { linAt } from "../../core/src/solve/lin.ts";
import { modelOf, type Model } from "../../core/src/solve/model.ts";
import { randomFrom } from "../../core/src/testing/contours.ts";
import { partIfAny, partOf, PARTS, rack, roughened, saysAsWell } from "../../core/src/testing/parts.ts";
import { median, say } from "./report.ts";

const SEEDS = 60;
const FACTORS = [1.05, 0.95, 1.3, 0.7, 0.5, 2];

const timed = <T>(work: () => T, into: number[]): T => {
  const start = performance.now();
  const made = work();
  into.push(performance.now() - start);
  return made;
};

const areasOf = (drawing: Drawing): readonly number[] => profileOf(drawing).contours.map(({ area }) => area);

/** All areas alike but that of what only its thread calls. */
const sameAreas = (p: Drawing, q: Drawing, without: number): boolean => {
  const [one, other] = [p, q].map((d) => [...areasOf(d)].sort((a, b) => b - a));
  return one!.slice(0, one!.length - without).every((area, i) => Math.abs(area / other![i]! - 1) < 1e-10);
};

const revisions = (plan: (typeof PARTS)[string]): readonly (string | number)[] => {
  const drawing = partOf(plan());
  const times: number[] = [];
  let [right, refused, wrong] = [0, 0, 0];
  for (const callout of calloutsOf(drawing))
    for (const factor of FACTORS) {
      const value = factor * callout.value;
      const values = new Map([[callout.id, value]]);
      const answer = timed(() => makeTrue(drawing, { callouts: [callout.id], values }), times);
      const exact = partIfAny(() => plan({ [callout.name]: value }));
      if (!answer.ok) {
        if (exact && answer.refusal.code !== "true-spoils") wrong++;
        else refused++;
      } else if (exact && sameAreas(applyEdit(drawing, answer.value.edit), exact, 0)) right++;
      else wrong++;
    }
  return [right, refused, wrong, median(times).toFixed(0)];
};

/** Whether what was found in a rough drawing is true of the exact part; undefined for what is not counted. */
const isTrueOf = (exact: Model, known: ReadonlySet<string>, one: Relation): boolean | undefined => {
  const at = (lin: { at: readonly number[]; by: readonly number[]; plus: number }): number => linAt(lin, exact.start);
  const [p, q] = one.refs.map((ref) => exact.roundOf(ref));
  switch (one.kind) {
    case "tangent":
    case "level":
    case "upright":
      return known.has(keyOf(one));
    case "same centre":
      return Math.hypot(at(p!.centre.x) - at(q!.centre.x), at(p!.centre.y) - at(q!.centre.y)) < 1e-8;
    case "equal":
      return Math.abs(at(p!.radius) - at(q!.radius)) < 1e-8;
    default:
      return undefined;
  }
};
const keyOf = ({ kind, refs }: Relation): string => `${kind} ${JSON.stringify(refs)}`;

const roughs = (name: string, plan: (typeof PARTS)[string]): readonly (string | number)[] => {
  const exact = partOf(plan());
  const model = modelOf(exact);
  const known = new Set(relationsIn(model, "exact").map(keyOf));
  const wanted = [...known].filter((key) => /^(tangent|level|upright) /.test(key)).length;
  const times: number[] = [];
  let [right, found, strange] = [0, 0, 0];
  for (let seed = 1; seed <= SEEDS; seed++) {
    const drawing = roughened(exact, randomFrom(seed));
    for (const one of relationsIn(modelOf(drawing), "rough")) {
      const isTrue = isTrueOf(model, known, one);
      if (isTrue === false) strange++;
      if (isTrue && /^(tangent|level|upright)$/.test(one.kind)) found++;
    }
    const ids = calloutsOf(drawing).map(({ id }) => id);
    const answer = timed(() => makeTrue(drawing, { callouts: ids }), times);
    if (answer.ok && sameAreas(applyEdit(drawing, answer.value.edit), exact, name === "rocker" ? 1 : 0)) right++;
  }
  const recall = wanted === 0 ? "" : `${((100 * found) / (wanted * SEEDS)).toFixed(1)} %`;
  return [`${right} of ${SEEDS}`, median(times).toFixed(0), recall, (strange / SEEDS).toFixed(2)];
};

const proposals = (): readonly [right: number, wrong: number, asked: number] => {
  let [right, wrong, asked] = [0, 0, 0];
  for (const plan of Object.values(PARTS))
    for (let seed = 1; seed <= 20; seed++) {
      const exact = partOf(plan());
      const drawing = roughened(exact, randomFrom(seed));
      const bare = calloutsOf(drawing).reduce((now, { id }) => applyEdit(now, answerCallout(now, id, [])!), drawing);
      for (const { callout, is } of proposeLinks(bare)) {
        if (!is) asked++;
        else if (saysAsWell(exact, callout, is)) right++;
        else wrong++;
      }
    }
  return [right, wrong, asked];
};

/** Numbers made true: how often, how fast, what holds found in rough drawings, chains of many pieces. */
export const numbers = (): void => {
  say("\n## Numbers made true\n");
  say(
    "Each number of a part by ±5 %, ±30 %, halved, doubled: made and held against the part's closed form, refused " +
      "where that has no answer or is spoiled, or wrong. Drawn by hand: turned by 3°, places off by 2 to 5 % of what " +
      "lies beside them, radii by 10 %, 60 times: areas by closed form; tangent, level and upright found of those " +
      "that hold; and relations found that don't hold, a drawing.\n",
  );
  say("| part | right | refused | wrong | ms | by hand, right | ms | found | false |");
  say("| --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |");
  for (const [name, plan] of Object.entries(PARTS))
    say(`| ${[name, ...revisions(plan), ...roughs(name, plan)].join(" | ")} |`);
  const [right, wrong, asked] = proposals();
  say("\nWhere callouts belong, 20 drawings by hand of each:");
  say(`${right} proposed rightly, ${wrong} wrongly, ${asked} asked.\n`);
  say("| a rack of tangent lines and arcs, holes in a chain | one length revised, ms | left open, ms |");
  say("| --- | ---: | ---: |");
  for (const count of [150, 300, 600]) {
    const drawing = partOf(rack(count));
    const { id } = calloutsOf(drawing).find(({ name }) => name === "low 3")!;
    const [looks, stands]: [number[], number[]] = [[], []];
    for (let run = 0; run < 3; run++) {
      timed(() => makeTrue(drawing, { callouts: [id], values: new Map([[id, 11]]) }), looks);
      timed(() => numbersStanding(drawing), stands);
    }
    say(`| ${count} pieces | ${median(looks).toFixed(0)} | ${median(stands).toFixed(0)} |`);
  }
};
