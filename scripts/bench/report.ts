const RUNS = 5;
export const median = (values: readonly number[]): number =>
  [...values].sort((p, q) => p - q)[Math.floor(values.length / 2)]!;

/**
 * Runs several works in turns, so that they share whatever the machine is doing, `warm` rounds of them before it
 * counts; medians in ms.
 */
export const race = (works: Record<string, () => unknown>, runs = RUNS, warm = 0): Record<string, number> => {
  for (let run = 0; run < warm; run++) for (const work of Object.values(works)) work();
  const times: Record<string, number[]> = Object.fromEntries(Object.keys(works).map((name) => [name, []]));
  for (let run = 0; run < runs; run++)
    for (const [name, work] of Object.entries(works)) {
      const start = performance.now();
      work();
      times[name]!.push(performance.now() - start);
    }
  return Object.fromEntries(Object.entries(times).map(([name, all]) => [name, median(all)]));
};

/** The report's lines, also printed as they come. */
export const lines: string[] = [];
export const say = (line = ""): void => {
  lines.push(line);
  console.log(line);
};

/** Times beside the first one's. */
export const table = (title: string, times: Record<string, number>): void => {
  const [first] = Object.values(times);
  say(`\n## ${title}\n`);
  say("| | median ms | against ours |");
  say("| --- | ---: | ---: |");
  for (const [name, time] of Object.entries(times))
    say(`| ${name} | ${time.toFixed(time < 10 ? 2 : 0)} | ${(time / first!).toFixed(2)} |`);
};
