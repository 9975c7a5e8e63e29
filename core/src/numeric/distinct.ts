/** The numbers of a list, each once, in the order in which they come first. */
export const distinct = (list: readonly number[]): readonly number[] => {
  if (list.length > FEW) return [...new Set(list)];
  const found: number[] = [];
  for (let i = 0; i < list.length; i++) if (!found.includes(list[i]!)) found.push(list[i]!);
  return found;
};

/** So few are looked through faster than they are put in a set. */
const FEW = 8;
