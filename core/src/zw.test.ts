import { it } from "vitest";
import { filletCorner, largestFillet } from "./construct/index.ts";
it("x", () => {
  const p = { a: { x: -12.360514074267156, y: 0 }, b: { x: 0, y: 0 }, bulge: -0.13703859320884243 },
    q = { a: { x: 0, y: 0 }, b: { x: -2.931036773879775, y: 0.6395493961880027 }, bulge: 0.010000000000000004 };
  let last: boolean | undefined;
  const L = largestFillet(p, q);
  process.stdout.write(` L ${L} ${JSON.stringify(filletCorner(p, q, L! * 1.000001))}\n`);
  for (let k = 0; k < 20000; k++) {
    const r = 0.01 * 10 ** ((k / 20000) * 6);
    const m = filletCorner(p, q, r);
    if (m.ok !== last) {
      process.stdout.write(` L ${L} r ${r} ${m.ok} ${m.ok ? JSON.stringify(m.value.arc) : ""}\n`);
      last = m.ok;
    }
  }
});
