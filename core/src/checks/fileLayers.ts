import { plainName } from "../numeric/plainName.ts";

/** Letters that do not fall into a plain one and a mark by themselves. */
const LETTERS: Readonly<Record<string, string>> = { Ø: "O", ø: "o", ß: "ss", Æ: "AE", æ: "ae", Ł: "L", ł: "l" };

/** What DXF keeps for itself, and what its versions up to R2000 hold only by a code page that readers guess at. */
const NOT_NEW = /[<>/\\":;?*|=`]|[^ -~]/g;
/** Releases up to 12 have capitals, digits and three signs, and no more than 31 of them. */
const [NOT_OLD, OLD_LENGTH] = [/[^A-Z0-9$_-]/g, 31];

const oneName = (name: string, old: boolean): string => {
  const letters = plainName(name)
    .replace(/[^ -~]/g, (letter) => LETTERS[letter] ?? letter)
    .normalize("NFKD")
    .replace(/\p{M}/gu, "");
  const plain = old ? letters.toUpperCase().replace(NOT_OLD, "_").slice(0, OLD_LENGTH) : letters.replace(NOT_NEW, "_");
  return plain || "0";
};

/**
 * A drawing's own names of layers as a file may hold them, each its own: two that would read alike are told apart by a
 * number, so that what lies on two layers never comes onto one.
 */
export const fileLayerNames = (names: readonly string[], old = false): readonly string[] => {
  const taken = new Set<string>();
  return names.map((name) => {
    const plain = oneName(name, old);
    let own = plain;
    for (let n = 2; taken.has(own.toUpperCase()); n++) {
      const end = `_${n}`;
      own = `${old ? plain.slice(0, OLD_LENGTH - end.length) : plain}${end}`;
    }
    taken.add(own.toUpperCase());
    return own;
  });
};
