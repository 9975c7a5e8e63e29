import { calloutsOff } from "../checks/verdict.ts";
import type { Drawing } from "../drawing/drawing.ts";
import { lookTrue, oddsIn, type TrueLook } from "../solve/lookTrue.ts";
import { numbersStanding, type NumbersStanding } from "../solve/standing.ts";
import { oddsWords, openWords } from "./sayTrue.ts";

/** What is to be asked of the customer, a line each: which of numbers that fight is right, and what is left open. */
export const customerQuestions = (
  drawing: Drawing,
  { open }: NumbersStanding,
  look: TrueLook | undefined,
): readonly string[] => [
  ...oddsIn(look).map((callouts) => `${oddsWords(drawing, callouts)} Which of them is right?`),
  ...open.map((measure) => `What is the ${openWords(drawing, measure).replace(/, now (.*)$/, "? It is drawn as $1.")}`),
];

/** The same of a drawing as it stands, all numbers asked that are off. */
export const questionsOf = (drawing: Drawing): readonly string[] => {
  const off = calloutsOff(drawing);
  const look = off.length > 0 ? lookTrue(drawing, { callouts: off }) : undefined;
  return customerQuestions(drawing, numbersStanding(drawing), look);
};
