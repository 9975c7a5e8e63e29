import { takePencil, type Hand } from "./pencil.ts";
import { head, type Sketch } from "./sketch.ts";

/** 0414: two bosses, a tangent line above, a full-bellied arc below. About 118 pixels to the inch, as drawn by hand. */
export const rockerPlate = (seed = 414, hand: Hand = {}): Sketch => {
  const pencil = takePencil(seed, hand);
  const [ox, oy, inch] = [250, 400, 106];
  const far = ox + 6.625 * inch;
  const [big, small] = [1.125 * inch, 0.75 * inch];
  pencil.circle(ox, oy, big);
  pencil.circle(far, oy, small);
  pencil.circle(ox, oy, 0.594 * inch);
  pencil.circle(far, oy, 0.3125 * inch);
  pencil.line(ox + 6, oy - big - 1, far + 5, oy - small + 1);
  // the belly: its ends and a point a third of an arrow's height down
  pencil.bow([
    { x: ox - 22, y: oy + big - 2 },
    { x: (ox + far) / 2 + 10, y: oy + big + 62 },
    { x: far + 24, y: oy + small - 4 },
  ]);
  pencil.centreLine(ox - big - 50, oy, far + small + 60, oy);
  pencil.centreLine(ox, oy - big - 50, ox, oy + big + 170);
  pencil.centreLine(far, oy - small - 50, far, oy + small + 210);
  const hole = ox + 2.5 * inch;
  pencil.circle(hole, oy, 0.19 * inch);
  pencil.line(hole, oy - 26, hole, oy - 84, { strokeWidth: 1.3, disableMultiStroke: true });
  pencil.dimension(ox, oy + big + 150, far, oy + big + 150);
  pencil.dimension(ox + 3, oy - 74, hole, oy - 74);
  pencil.leader(ox - 150, oy - big - 62, ox - big * 0.72, oy - big * 0.72);
  pencil.leader(ox - 165, oy + 98, ox - 0.56 * inch, oy + 22);
  pencil.leader(far + 105, oy - 150, far + small * 0.66, oy - small * 0.76);
  pencil.leader(far + 118, oy + 110, far + 0.26 * inch, oy + 18);
  pencil.leader((ox + far) / 2 + 40, oy + big - 8, (ox + far) / 2 + 22, oy + big + 24);
  pencil.leader(hole + 70, oy - 44, hole + 16, oy - 14);
  const pins = {
    big: pencil.text(ox - 158, oy - big - 88, "Ø 2 1/4"),
    small: pencil.text(far + 128, oy - 175, "Ø 1 1/2"),
    bigHole: pencil.text(ox - 160, oy + 124, "Ø 1 3/16"),
    smallHole: pencil.text(far + 132, oy + 138, "Ø 5/8"),
    centres: pencil.text((ox + far) / 2, oy + big + 126, "6 5/8"),
    belly: pencil.text((ox + far) / 2 + 62, oy + big - 34, "R 14"),
    along: pencil.text((ox + hole) / 2 + 66, oy - 50, "2 1/2", 30),
    thread: pencil.text(hole + 148, oy - 56, "3/8-16 tap", 28),
  };
  pencil.text(330, 68, "ROCKER PLATE", 40);
  pencil.text(980, 68, "3/8 plate, 4 off", 32);
  pencil.text(860, 735, "both bosses inside the R 14 and touching", 25);
  return {
    id: "demo-0414",
    unit: "in",
    head: head("0414", "Rocker plate", {
      material: "steel plate",
      thickness: "3/8 in",
      quantity: 4,
      due: "2027-01-18",
      customer: "Fernhollow pump house",
    }),
    width: 1200,
    height: 780,
    svg: pencil.svg(),
    meant: pencil.meant(),
    callouts: [
      { kind: "diameter", value: 2.25, name: "big boss", pin: pins.big },
      { kind: "diameter", value: 1.5, name: "small boss", pin: pins.small },
      { kind: "centres", value: 6.625, name: "boss centres", pin: pins.centres },
      { kind: "diameter", value: 1.1875, name: "big hole", pin: pins.bigHole },
      { kind: "diameter", value: 0.625, name: "small hole", pin: pins.smallHole },
      { kind: "radius", value: 14, name: "belly", pin: pins.belly },
      { kind: "length", value: 2.5, name: "tapped hole", pin: pins.along },
      { kind: "thread", value: 0.375, thread: "3/8-16", name: "tapped hole", pin: pins.thread },
    ],
  };
};
