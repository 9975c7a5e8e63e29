import { TRACED_SHAPES, tracedRightly } from "../../core/src/testing/tracings.ts";
import { say } from "./report.ts";

/** Tracings of eight outlines: how many get the outline's own lines and arcs, how many radii lie within 3 errors. */
const [SEEDS, SCATTERS] = [25, [0.01, 0.05, 0.1, 0.2]] as const;

export const tracings = (): void => {
  say("\n## Tracings fitted\n");
  say(`| tracings, step 0.5, ${SEEDS} seeds each | scatter ${SCATTERS.join(" | ")} |`);
  say(`| --- |${SCATTERS.map(() => " --- |").join("")}`);
  let [off, radii] = [0, 0];
  for (const name of Object.keys(TRACED_SHAPES)) {
    const counts = SCATTERS.map((scatter) => {
      const tried = Array.from({ length: SEEDS }, (_, i) => tracedRightly(name, scatter, 104729 * (i + 1)));
      for (const errors of tried.flatMap((one) => one.off)) {
        radii += 1;
        if (errors > 3) off += 1;
      }
      return tried.filter(({ right }) => right).length;
    });
    say(`| ${name} | ${counts.join(" | ")} |`);
  }
  say(`\nRadii within 3 standard errors: ${radii - off} of ${radii}.`);
};
