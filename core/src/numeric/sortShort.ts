/**
 * Sorts a list in place, as its own `sort` does; one of a few entries without the memory that takes, where there are
 * very many of them.
 */
export const sortShort = <T>(list: T[], order: (p: T, q: T) => number): T[] => {
  if (list.length > FEW) return list.sort(order);
  for (let i = 1; i < list.length; i++) {
    const one = list[i]!;
    let at = i;
    for (; at > 0 && order(list[at - 1]!, one) > 0; at--) list[at] = list[at - 1]!;
    list[at] = one;
  }
  return list;
};

const FEW = 8;
