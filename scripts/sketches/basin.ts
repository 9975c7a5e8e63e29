import { freeThrough } from "@ash-edge/core/construct";
import { smoothOf } from "@ash-edge/core/geometry";
import { BASIN } from "../../e2e/support/demoJobs.ts";
import { takePencil, type Hand } from "./pencil.ts";
import { head, type Sketch } from "./sketch.ts";

/**
 * 0415: a lopsided oval through given points, a tap hole behind it and a rebate round it. About 1.6 pixels to the
 * millimetre.
 */
export const basin = (seed = 415, hand: Hand = {}): Sketch => {
  const pencil = takePencil(seed, hand);
  const mm = 1.6;
  const [ox, oy] = [560, 470];
  const made = freeThrough(BASIN, {}, true);
  if (!made.ok) throw new Error(made.refusal.code);
  const curve = smoothOf({ kind: "free", ...made.value });
  const round = (grow: number): string =>
    Array.from({ length: 49 }, (_, i) => {
      const [{ x, y }, first] = [curve.at(i / 48), curve.first(i / 48)];
      const length = Math.hypot(first.x, first.y);
      const [u, v] = [x - (first.y / length) * grow, y + (first.x / length) * grow];
      return `${i === 0 ? "M" : "L"}${(ox + u * mm).toFixed(1)} ${(oy - v * mm).toFixed(1)}`;
    }).join("");
  pencil.path(round(0));
  pencil.path(round(12), { roughness: 0.9, strokeWidth: 1.4, disableMultiStroke: true });
  pencil.circle(ox, oy - 235 * mm, 17.5 * mm);
  pencil.centreLine(ox - 420, oy, ox + 460, oy);
  pencil.centreLine(ox, oy - 430, ox, oy + 300);
  BASIN.forEach(({ x, y }) => {
    pencil.circle(ox + x * mm, oy - y * mm, 3, { roughness: 0.5 });
    const [dx, dy] = [x < 0 ? 78 : -78, y > 60 ? 26 : y < -60 ? -24 : -30];
    pencil.text(ox + x * mm + dx, oy - y * mm + dy, `${x}, ${y}`, 24);
  });
  pencil.dimension(ox + 420, oy, ox + 420, oy - 235 * mm);
  pencil.line(ox + 40, oy - 235 * mm, ox + 440, oy - 235 * mm, { strokeWidth: 1, disableMultiStroke: true });
  pencil.leader(ox - 190, oy - 235 * mm - 10, ox - 17.5 * mm - 4, oy - 235 * mm);
  pencil.leader(ox - 380, oy + 250, ox - 196 * mm, oy + 62 * mm);
  const pins = {
    tap: pencil.text(ox - 260, oy - 235 * mm - 16, "Ø 35 tap"),
    back: pencil.text(ox + 462, oy - 118 * mm, "235", 32, -90),
    rebate: pencil.text(ox - 380, oy + 276, "12 rebate all round", 30),
  };
  pencil.text(240, 44, "BASIN OPENING", 40);
  pencil.text(930, 44, "20 mm stone, template", 32);
  pencil.text(930, 720, "through the points, x then y", 26);
  return {
    id: "demo-0415",
    unit: "mm",
    head: head("0415", "Basin opening template", {
      material: "granite",
      thickness: "20 mm",
      quantity: 1,
      due: "2027-01-29",
      customer: "Fernhollow station house",
    }),
    width: 1200,
    height: 780,
    svg: pencil.svg(),
    meant: pencil.meant(),
    callouts: [
      { kind: "diameter", value: 35, name: "tap hole", pin: pins.tap },
      { kind: "length", value: 235, name: "tap hole behind", pin: pins.back },
      { kind: "length", value: 12, name: "rebate", pin: pins.rebate },
    ],
  };
};
