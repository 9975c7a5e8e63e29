/** The name of a release without its extension: the job's number and part, and which release it is; plain letters. */
export const releaseName = (job: string, part: string, release: number, most: number): string => {
  const words = `${job} ${part}`.replace(/[^\w]+/g, "-").toLowerCase();
  const end = ` r${release}`;
  return `${words.slice(0, most - end.length)}${end}`.replace(/[^\w]+/g, "-").replace(/^[-_]+/, "");
};

/** Letters of revisions: those that can't be taken for figures or for one another (ASME Y14.35, from memory). */
const LETTERS = "ABCDEFGHJKLMNPRTUVWY";

/** The letter of a release by its number, 1 for A; after the last letter AA. */
export const revisionLetter = (release: number): string => {
  let [left, word] = [release, ""];
  while (left > 0) {
    left -= 1;
    word = LETTERS[left % LETTERS.length]! + word;
    left = Math.floor(left / LETTERS.length);
  }
  return word;
};
