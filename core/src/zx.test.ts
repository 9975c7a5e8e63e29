import { it } from "vitest";
import { filletCorner, largestFillet, cornerSide } from "./construct/index.ts";
import { randomFrom } from "./testing/contours.ts";
import type { Piece } from "./geometry/piece.ts";
it("fillets", () => {
  let small = 0,
    none = 0,
    notok = 0,
    n = 0;
  const bad: string[] = [];
  for (let t = 0; t < 4000; t++) {
    const random = randomFrom(31 + t * 977);
    const bow = () => (random() < 0.3 ? 0 : (random() - 0.5) * 2 * 0.95);
    const ang = 0.15 + 2.8 * random(),
      turn = random() < 0.5 ? ang : -ang,
      a = 3 + 40 * random(),
      b = 3 + 40 * random();
    const p: Piece = { a: { x: -a, y: 0 }, b: { x: 0, y: 0 }, bulge: bow() };
    const q: Piece = { a: { x: 0, y: 0 }, b: { x: b * Math.cos(turn), y: b * Math.sin(turn) }, bulge: bow() };
    if (cornerSide(p, q) === 0) continue;
    n++;
    const L = largestFillet(p, q);
    let best = 0;
    for (let k = 0; k < 150; k++) {
      const r = 0.01 * 10 ** ((k / 150) * 5);
      if (filletCorner(p, q, r).ok) best = r;
    }
    if (L === Infinity) continue;
    if (L === undefined) {
      if (best > 0) {
        none++;
        bad.push(`${t} none but ${best} bulges ${p.bulge} ${q.bulge}`);
      }
      continue;
    }
    if (!filletCorner(p, q, L).ok) {
      notok++;
      bad.push(`${t} L ${L} not ok`);
    }
    if (filletCorner(p, q, L * 1.000001).ok || best > L * 1.000001) {
      small++;
      bad.push(`${t} small L ${L} best ${best} ${filletCorner(p, q, L * 1.000001).ok} ${p.bulge} ${q.bulge}`);
    }
  }
  process.stdout.write(`fillets ${n}: small ${small} none ${none} notok ${notok}\n${bad.slice(0, 8).join("\n")}\n`);
}, 6e5);
