import { takePencil, type Hand } from "./pencil.ts";
import { head, type Sketch } from "./sketch.ts";

/** 0412: ring, three bosses, tangent arcs between, a slot above the centre. */
export const coverPlate = (seed = 412, hand: Hand = {}): Sketch => {
  const pencil = takePencil(seed, hand);
  const [ox, oy, mm] = [560, 520, 3.15];
  const ring = 78 * mm;
  const boss = 18 * mm;
  pencil.circle(ox, oy, 60 * mm);
  // where ring and boss circles carry on between the R 25 arcs: half angles seen from the centre and from the boss
  const [d, p, q] = [95, 78 + 25, 18 + 25];
  const atRing = Math.acos((d * d + p * p - q * q) / (2 * d * p));
  const atBoss = Math.acos((d * d + q * q - p * p) / (2 * d * q));
  for (const degrees of [90, 210, 330]) {
    const turn = (-degrees * Math.PI) / 180;
    const [bx, by] = [ox + 95 * mm * Math.cos(turn), oy + 95 * mm * Math.sin(turn)];
    pencil.arc(bx, by, boss, turn - (Math.PI - atBoss), turn + (Math.PI - atBoss));
    pencil.circle(bx, by, 7 * mm);
    pencil.arc(ox, oy, ring, turn + atRing, turn + (2 * Math.PI) / 3 - atRing);
    for (const side of [1, -1]) {
      const [cx, cy] = [ox + p * mm * Math.cos(turn + side * atRing), oy + p * mm * Math.sin(turn + side * atRing)];
      const [u, v] = [Math.atan2(oy - cy, ox - cx), Math.atan2(by - cy, bx - cx)];
      const sweep = Math.atan2(Math.sin(v - u), Math.cos(v - u));
      pencil.arc(cx, cy, 25 * mm, Math.min(u, u + sweep), Math.max(u, u + sweep));
    }
    pencil.centreLine(ox, oy, ox + 128 * mm * Math.cos(turn), oy + 128 * mm * Math.sin(turn));
  }
  pencil.centreLine(ox - 290, oy, ox + 290, oy);
  // the boss circle, in long dashes
  for (let i = 0; i < 24; i++)
    pencil.arc(ox, oy, 95 * mm, (i * Math.PI) / 12, ((i + 0.68) * Math.PI) / 12, {
      roughness: 0.6,
      strokeWidth: 1.2,
      disableMultiStroke: true,
    });
  const slot = oy - 69 * mm;
  pencil.line(ox - 15 * mm, slot - 4 * mm, ox + 15 * mm, slot - 4 * mm);
  pencil.line(ox - 15 * mm, slot + 4 * mm, ox + 15 * mm, slot + 4 * mm);
  pencil.arc(ox - 15 * mm, slot, 4 * mm, Math.PI / 2, (3 * Math.PI) / 2);
  pencil.arc(ox + 15 * mm, slot, 4 * mm, -Math.PI / 2, Math.PI / 2);
  pencil.dimension(ox - 46, oy, ox - 46, slot);
  pencil.leader(ox + 66, oy + 50, ox + 60 * mm * 0.7, oy + 60 * mm * 0.714);
  pencil.leader(ox + 360, oy - 60, ox + ring * 0.985, oy - ring * 0.17);
  pencil.leader(ox + 210, 130, ox + boss * 0.8, oy - 95 * mm - boss * 0.6);
  pencil.leader(ox - 190, 130, ox - 7 * mm * 0.7, oy - 95 * mm - 7 * mm * 0.7);
  pencil.leader(ox - 335, oy - 170, ox - 92, oy - 244);
  pencil.leader(ox + 330, oy - 160, ox + 66, slot + 4);
  pencil.leader(ox - 380, oy + 40, ox - 95 * mm * 0.985, oy + 40);
  const pins = {
    bore: pencil.text(ox + 20, oy + 36, "Ø 120"),
    ring: pencil.text(ox + 412, oy - 68, "R 78"),
    boss: pencil.text(ox + 268, 118, "R 18, 3 off"),
    circle: pencil.text(ox - 425, oy + 38, "Ø 190"),
    blend: pencil.text(ox - 390, oy - 182, "R 25 typ"),
    holes: pencil.text(ox - 262, 118, "Ø 14, 3 off"),
    width: pencil.text(ox + 400, oy - 176, "slot 8 wide"),
    between: pencil.text(ox + 400, oy - 134, "30 centres"),
    above: pencil.text(ox - 82, oy - 100, "69", 34, -88),
  };
  pencil.text(210, 940, "STRAINER COVER", 38);
  pencil.text(840, 945, "6 mm plate, 2 off", 30);
  return {
    id: "demo-0412",
    unit: "mm",
    head: head("0412", "Strainer cover plate", {
      material: "steel plate",
      thickness: "6 mm",
      quantity: 2,
      due: "2027-01-11",
      customer: "Fernhollow pump house",
    }),
    width: 1120,
    height: 1000,
    svg: pencil.svg(),
    meant: pencil.meant(),
    callouts: [
      { kind: "diameter", value: 120, name: "bore", pin: pins.bore },
      { kind: "radius", value: 78, name: "outer ring", pin: pins.ring },
      { kind: "radius", value: 18, name: "bosses, 3 off", pin: pins.boss },
      { kind: "diameter", value: 190, name: "boss circle", pin: pins.circle },
      { kind: "radius", value: 25, name: "ring to boss", pin: pins.blend },
      { kind: "diameter", value: 14, name: "holes, 3 off", pin: pins.holes },
      { kind: "length", value: 8, name: "slot width", pin: pins.width },
      { kind: "centres", value: 30, name: "slot centres", pin: pins.between },
      { kind: "length", value: 69, name: "slot above centre", pin: pins.above },
    ],
  };
};
