/**
 * The blocks (biconnected components) of parts that meet at nodes: two parts share one exactly where a loop goes
 * through both that passes no node twice. A part that leads nowhere, or only from one loop to another, is one alone.
 * `nodeOf` gives the node of every end (2 · part, +1 for its end), numbers below its length. Linear. After Hopcroft and
 * Tarjan, "Algorithm 447: efficient algorithms for graph manipulation", Communications of the ACM 16 (1973).
 */
export const blocksOf = (nodeOf: Int32Array): Int32Array => {
  const parts = nodeOf.length / 2;
  const { starts, ends } = endsAtNodes(nodeOf);
  const blockOf = new Int32Array(parts).fill(-1);
  const seen = new Int32Array(nodeOf.length); // the order in which a node was come to, from 1
  const low = new Int32Array(nodeOf.length); // the first node that is reached from it or from what follows
  const next = starts.slice(0, nodeOf.length); // the end at a node that is looked at next
  const taken = new Uint8Array(parts);
  const stack: number[] = []; // parts gone along that are in no block yet
  const way: number[] = []; // the ends by which the nodes on the way were entered, -1 for the first
  let [blocks, order] = [0, 0];
  for (let root = 0; root < nodeOf.length; root++) {
    if (seen[root] !== 0 || starts[root] === starts[root + 1]) continue;
    seen[root] = low[root] = ++order;
    way.push(-1);
    let node = root;
    while (way.length > 0) {
      if (next[node]! < starts[node + 1]!) {
        const end = ends[next[node]!++]!;
        const part = end >> 1;
        if (taken[part] === 1) continue;
        taken[part] = 1;
        const there = nodeOf[end ^ 1]!;
        if (there === node) blockOf[part] = blocks++;
        else if (seen[there] === 0) {
          stack.push(part);
          seen[there] = low[there] = ++order;
          way.push(end ^ 1);
          node = there;
        } else {
          stack.push(part);
          low[node] = Math.min(low[node]!, seen[there]!);
        }
        continue;
      }
      const entered = way.pop()!;
      if (entered < 0) continue;
      const before = nodeOf[entered ^ 1]!;
      low[before] = Math.min(low[before]!, low[node]!);
      if (low[node]! >= seen[before]!) {
        let part: number;
        do blockOf[(part = stack.pop()!)] = blocks;
        while (part !== entered >> 1);
        blocks += 1;
      }
      node = before;
    }
  }
  return blockOf;
};

/** The ends at every node, one node's after another's; those of a node lie from its start to that of the next. */
const endsAtNodes = (nodeOf: Int32Array): { readonly starts: Int32Array; readonly ends: Int32Array } => {
  const starts = new Int32Array(nodeOf.length + 1);
  nodeOf.forEach((node) => void (starts[node + 1]! += 1));
  for (let node = 0; node < nodeOf.length; node++) starts[node + 1]! += starts[node]!;
  const at = starts.slice();
  const ends = new Int32Array(nodeOf.length);
  nodeOf.forEach((node, end) => void (ends[at[node]!++] = end));
  return { starts, ends };
};
