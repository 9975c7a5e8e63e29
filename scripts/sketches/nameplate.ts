import { takePencil, type Hand } from "./pencil.ts";
import { head, type Sketch } from "./sketch.ts";

/** 0418: a plate with a round-ended opening and a disc in it, two scribed lines, and eight tapped holes on a grid. */
export const nameplate = (seed = 418, hand: Hand = {}): Sketch => {
  const pencil = takePencil(seed, hand);
  const [ox, oy, mm] = [600, 400, 2.9];
  const [w, h, r] = [130 * mm, 70 * mm, 12 * mm];
  for (const side of [-1, 1]) {
    pencil.line(ox - w + r, oy + side * h, ox + w - r, oy + side * h);
    pencil.line(ox + side * w, oy - h + r, ox + side * w, oy + h - r);
  }
  for (const [sx, sy, from] of [
    [1, 1, 0],
    [-1, 1, 0.5],
    [-1, -1, 1],
    [1, -1, 1.5],
  ] as const)
    pencil.arc(ox + sx * (w - r), oy + sy * (h - r), r, from * Math.PI, (from + 0.5) * Math.PI);
  const [half, end] = [30 * mm, 30 * mm];
  for (const side of [-1, 1]) pencil.line(ox - half, oy + side * end, ox + half, oy + side * end);
  pencil.arc(ox - half, oy, end, Math.PI / 2, (3 * Math.PI) / 2);
  pencil.arc(ox + half, oy, end, -Math.PI / 2, Math.PI / 2);
  pencil.circle(ox, oy, 20 * mm);
  for (const x of [-105, -35, 35, 105])
    for (const y of [-50, 50]) {
      pencil.circle(ox + x * mm, oy + y * mm, 3 * mm);
      pencil.line(ox + x * mm - 16, oy + y * mm, ox + x * mm + 16, oy + y * mm, { strokeWidth: 1.2 });
      pencil.line(ox + x * mm, oy + y * mm - 16, ox + x * mm, oy + y * mm + 16, { strokeWidth: 1.2 });
    }
  for (const side of [-1, 1])
    pencil.line(ox - 100 * mm, oy + side * 62 * mm, ox + 100 * mm, oy + side * 62 * mm, { strokeWidth: 1.2 });
  pencil.centreLine(ox - w - 40, oy, ox + w + 40, oy);
  pencil.centreLine(ox, oy - h - 40, ox, oy + h + 40);
  pencil.dimension(ox - w, oy + h + 74, ox + w, oy + h + 74);
  pencil.dimension(ox - w - 64, oy - h, ox - w - 64, oy + h);
  pencil.dimension(ox - half - end, oy + 118, ox + half + end, oy + 118);
  pencil.dimension(ox + 35 * mm, oy - h - 46, ox + 105 * mm, oy - h - 46);
  pencil.dimension(ox + w + 62, oy - 50 * mm, ox + w + 62, oy + 50 * mm);
  pencil.leader(ox - w - 40, oy - h - 40, ox - w + 12, oy - h + 12);
  pencil.leader(ox - 86, oy - 26, ox - 57, oy - 14);
  pencil.leader(ox - 150, oy - h - 60, ox - 36 * mm, oy - 52 * mm);
  pencil.leader(ox - 150, oy + h + 24, ox - 30 * mm, oy + 63 * mm);
  const pins = {
    wide: pencil.text(ox + 150, oy + h + 50, "260"),
    high: pencil.text(ox - w - 92, oy - 40, "140", 34, -90),
    corner: pencil.text(ox - w - 72, oy - h - 58, "R 12 typ"),
    long: pencil.text(ox + 62, oy + 138, "120", 30),
    end: pencil.text(ox + half + end + 62, oy + 20, "60 wide", 28),
    disc: pencil.text(ox - 116, oy - 40, "Ø 40", 28),
    along: pencil.text(ox + 70 * mm, oy - h - 70, "70"),
    up: pencil.text(ox + w + 92, oy - 20, "100", 34, -90),
    holes: pencil.text(ox - 180, oy - h - 78, "M6 tap, 8 off"),
    scribed: pencil.text(ox - 290, oy + h + 40, "scribed 200 long, 8 in", 26),
  };
  pencil.text(250, 60, "LAMP ROOM PLATE", 40);
  pencil.text(900, 760, "brass 4, disc stays loose", 28);
  return {
    id: "demo-0418",
    unit: "mm",
    head: head("0418", "Lamp room nameplate", {
      material: "brass",
      thickness: "4 mm",
      quantity: 1,
      due: "2027-02-01",
      customer: "Fernhollow station house",
    }),
    width: 1200,
    height: 800,
    svg: pencil.svg(),
    meant: pencil.meant(),
    callouts: [
      { kind: "length", value: 260, name: "wide", pin: pins.wide },
      { kind: "length", value: 140, name: "high", pin: pins.high },
      { kind: "radius", value: 12, name: "corners", throughout: true, pin: pins.corner },
      { kind: "length", value: 120, name: "opening long", pin: pins.long },
      { kind: "length", value: 60, name: "opening wide", pin: pins.end },
      { kind: "diameter", value: 40, name: "disc", pin: pins.disc },
      { kind: "centres", value: 70, name: "holes along", pin: pins.along },
      { kind: "centres", value: 100, name: "holes up", pin: pins.up },
      { kind: "thread", value: 6, thread: "M6", name: "holes", times: 8, pin: pins.holes },
      { kind: "length", value: 200, name: "scribed line", pin: { x: pins.scribed.x - 40, y: pins.scribed.y } },
      { kind: "length", value: 8, name: "scribed line in", pin: { x: pins.scribed.x + 108, y: pins.scribed.y } },
    ],
  };
};
