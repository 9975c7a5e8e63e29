import { enlarged, tracePicture, type PictureTrace } from "@ash-edge/core/picture/trace";
import { CONDITIONS, openDecoder, scoreOf, SKETCHES, type Score } from "../sketches/known.ts";
import { openBrowser } from "../sketches/paper.ts";
import { photoOf } from "../sketches/photo.ts";
import { median, say } from "./report.ts";

/** Seeds on which nothing was tuned. */
const SEEDS = [8101, 8102] as const;

/** Sketches as pictures under hard conditions, traced; how much of what was meant was found. */
export const pictures = async (): Promise<void> => {
  const browser = await openBrowser();
  const decoded = await openDecoder(browser);
  say("\n## Pictures traced\n");
  say(
    `Six made sketches, ${SEEDS.length} hands each that nothing was tuned on. Found: of the right kind, within ` +
      "0.5 % of the picture's longer side. False: proposed as outline, and none of it.\n",
  );
  say("| pictures | pieces meant | found | false | most in one | lettering | median s | not traced |");
  say("| --- | --- | --- | --- | --- | --- | --- | --- |");
  let [all, right] = [0, 0];
  for (const [name, conditions] of Object.entries(CONDITIONS)) {
    const scores: Score[] = [];
    const times: number[] = [];
    let refused = 0;
    for (const draw of Object.values(SKETCHES))
      for (const seed of SEEDS) {
        const sketch = draw(seed, conditions.hand ?? {});
        const photo = await photoOf(browser, sketch, conditions);
        const per = photo.per;
        const pixels = await decoded(photo, Math.round(sketch.width * per), Math.round(sketch.height * per));
        const start = performance.now();
        const traced = tracePicture(pixels);
        times.push(performance.now() - start);
        if (!traced.ok) refused++;
        scores.push(scoreOf(sketch, photo, onSheet(traced.ok ? traced.value : undefined, sketch.width / pixels.width)));
      }
    const sum = (key: "meant" | "found" | "wrong" | "letters"): number =>
      scores.reduce((total, one) => total + one[key], 0);
    all += sum("meant");
    right += sum("found");
    const most = Math.max(...scores.map(({ wrong }) => wrong));
    say(
      `| ${name} | ${sum("meant")} | ${sum("found")} | ${sum("wrong")} | ${most} | ${sum("letters")} | ` +
        `${(median(times) / 1000).toFixed(1)} | ${refused} |`,
    );
  }
  say(`\nIn all ${right} of ${all}, ${((100 * right) / all).toFixed(1)} %.`);
  await browser.close();
};

const onSheet = (trace: PictureTrace | undefined, by: number): PictureTrace =>
  trace ? enlarged(trace, by) : { proposals: [], lettering: [], stroke: 0 };
