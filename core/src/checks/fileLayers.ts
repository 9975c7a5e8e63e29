import { plainName } from "../numeric/plainName.ts";

/** Letters that do not fall into a plain one and a mark by themselves. */
const LETTERS: Readonly<Record<string, string>> = { Ø: "O", ø: "o", ß: "ss", Æ: "AE", æ: "ae", Ł: "L", ł: "l" };

/** What DXF keeps for itself, and what its versions up to R2000 hold only by a code page that readers guess at. */
const NOT_NEW = /[<>/\\":;?*|=`]|[^ -~]/g;
/** What no version has in a name. */
const NOT_ANY = /[<>/\\":;?*|=`\p{C}]/gu;
/** Releases up to 12 have capitals, digits and three signs, and no more than 31 of them. */
const [NOT_OLD, OLD_LENGTH] = [/[^A-Z0-9$_-]/g, 31];

/**
 * The letters that a file has for names: of releases up to 12; of those up to R2000, plain ones; or any, as in newer
 * ones and in SVG.
 */
export type NameLetters = "old" | "plain" | "any";

const oneName = (name: string, letters: NameLetters): string => {
  if (letters === "any") return plainName(name).replace(NOT_ANY, "_").trim() || "0";
  const plainLetters = plainName(name)
    .replace(/[^ -~]/g, (letter) => LETTERS[letter] ?? letter)
    .normalize("NFKD")
    .replace(/\p{M}/gu, "");
  const plain =
    letters === "old"
      ? plainLetters.toUpperCase().replace(NOT_OLD, "_").slice(0, OLD_LENGTH)
      : plainLetters.replace(NOT_NEW, "_");
  return plain || "0";
};

/**
 * A drawing's own names of layers as a file may hold them, each its own: two that would read alike are told apart by a
 * number, so that what lies on two layers never comes onto one.
 */
export const fileLayerNames = (names: readonly string[], letters: NameLetters = "plain"): readonly string[] => {
  const taken = new Set<string>();
  return names.map((name) => {
    const plain = oneName(name, letters);
    let own = plain;
    for (let n = 2; taken.has(own.toUpperCase()); n++) {
      const end = `_${n}`;
      own = `${letters === "old" ? plain.slice(0, OLD_LENGTH - end.length) : plain}${end}`;
    }
    taken.add(own.toUpperCase());
    return own;
  });
};
