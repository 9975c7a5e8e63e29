/**
 * The cheapest way to give each row a column of its own: which column each row has. `costs[row][column]`; no fewer
 * columns than rows. The Hungarian method with potentials (Kuhn 1955, Munkres 1957), rows² times columns.
 */
export const assignment = (costs: readonly (readonly number[])[]): readonly number[] => {
  const rows = costs.length;
  const columns = costs[0]?.length ?? 0;
  const [rowPrice, columnPrice] = [new Float64Array(rows + 1), new Float64Array(columns + 1)];
  const rowOf = new Int32Array(columns + 1);
  const way = new Int32Array(columns + 1);
  for (let row = 1; row <= rows; row++) {
    rowOf[0] = row;
    let at = 0;
    const least = new Float64Array(columns + 1).fill(Infinity);
    const used = new Uint8Array(columns + 1);
    do {
      used[at] = 1;
      const own = rowOf[at]!;
      let [step, next] = [Infinity, 0];
      for (let column = 1; column <= columns; column++) {
        if (used[column]) continue;
        const cost = costs[own - 1]![column - 1]! - rowPrice[own]! - columnPrice[column]!;
        if (cost < least[column]!) {
          least[column] = cost;
          way[column] = at;
        }
        if (least[column]! < step) [step, next] = [least[column]!, column];
      }
      for (let column = 0; column <= columns; column++)
        if (used[column]) {
          rowPrice[rowOf[column]!]! += step;
          columnPrice[column]! -= step;
        } else least[column]! -= step;
      at = next;
    } while (rowOf[at] !== 0);
    for (; at !== 0; at = way[at]!) rowOf[at] = rowOf[way[at]!]!;
  }
  const found = new Array<number>(rows).fill(-1);
  for (let column = 1; column <= columns; column++) if (rowOf[column]! > 0) found[rowOf[column]! - 1] = column - 1;
  return found;
};
