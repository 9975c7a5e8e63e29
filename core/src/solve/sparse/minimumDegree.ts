/**
 * An order in which to take unknowns out of a system so that little fills in: whichever has the fewest neighbours left
 * goes next (minimum degree, approximately: Amestoy, Davis and Duff 1996). Those of a clique are all neighbours of each
 * other. What is taken out is kept as a clique of what was beside it, never spelled out as pairs, so this takes time as
 * the cliques' sizes.
 */
export const minimumDegree = (size: number, cliques: readonly (readonly number[])[]): Int32Array => {
  const elements: (readonly number[] | undefined)[] = [];
  const inside = Array.from({ length: size }, (): number[] => []);
  for (const clique of cliques) {
    if (clique.length < 2) continue;
    for (const i of clique) inside[i]!.push(elements.length);
    elements.push(clique);
  }
  // those of one degree hang in a list each, so that the next is found at once
  const heads = new Int32Array(size + 1).fill(-1);
  const [next, before, degrees] = [new Int32Array(size), new Int32Array(size), new Int32Array(size)];
  const hang = (i: number, degree: number): void => {
    degrees[i] = degree;
    before[i] = -1;
    next[i] = heads[degree]!;
    if (next[i]! >= 0) before[next[i]!] = i;
    heads[degree] = i;
  };
  const unhang = (i: number): void => {
    if (before[i]! >= 0) next[before[i]!] = next[i]!;
    else heads[degrees[i]!] = next[i]!;
    if (next[i]! >= 0) before[next[i]!] = before[i]!;
  };
  for (let i = size - 1; i >= 0; i--) {
    const degree = inside[i]!.reduce((sum, e) => sum + elements[e]!.length - 1, 0);
    hang(i, Math.min(size - 1, degree));
  }
  const order = new Int32Array(size);
  const marked = new Int32Array(size).fill(-1);
  /** How many of an element lie outside the newest, as counted at a step. */
  const outside: number[] = [];
  const countedAt: number[] = [];
  let least = 0;
  for (let k = 0; k < size; k++) {
    while (heads[least]! < 0) least++;
    const out = heads[least]!;
    unhang(out);
    order[k] = out;
    marked[out] = k;
    const left: number[] = [];
    for (const e of inside[out]!) {
      for (const i of elements[e]!)
        if (marked[i] !== k) {
          marked[i] = k;
          left.push(i);
        }
      elements[e] = undefined;
    }
    const own = elements.length;
    elements.push(left);
    for (const i of left) {
      const alive = inside[i]!.filter((e) => elements[e]);
      for (const e of alive) {
        if (countedAt[e] !== k) {
          countedAt[e] = k;
          outside[e] = elements[e]!.length;
        }
        outside[e]!--;
      }
      inside[i] = alive;
    }
    for (const i of left) {
      // what lies within the newest says nothing more
      const alive = inside[i]!.filter((e) => outside[e]! > 0);
      const degree = alive.reduce((sum, e) => sum + outside[e]!, left.length - 1);
      alive.push(own);
      inside[i] = alive;
      unhang(i);
      hang(i, Math.min(size - k - 1, degree));
      least = Math.min(least, degrees[i]!);
    }
  }
  return order;
};
