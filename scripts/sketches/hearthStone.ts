import { takePencil, type Hand } from "./pencil.ts";
import { head, type Sketch } from "./sketch.ts";

/** 0413: a hearth with a bowed front, notched back corners and a vent slot; photographed askew. */
export const hearthStone = (seed = 413, hand: Hand = {}): Sketch => {
  const pencil = takePencil(seed, hand);
  const [ox, oy, mm] = [175, 210, 0.62];
  const [width, depth] = [1380 * mm, 460 * mm];
  const [notchX, notchY] = [110 * mm, 75 * mm];
  const corner = 40 * mm;
  const right = ox + width;
  const front = oy + depth;
  pencil.line(ox + notchX, oy, right - notchX, oy);
  pencil.line(ox + notchX, oy, ox + notchX, oy + notchY);
  pencil.line(ox, oy + notchY, ox + notchX, oy + notchY);
  pencil.line(right - notchX, oy, right - notchX, oy + notchY);
  pencil.line(right - notchX, oy + notchY, right, oy + notchY);
  pencil.line(ox, oy + notchY, ox, front - corner);
  pencil.line(right, oy + notchY, right, front - corner);
  pencil.bow([
    { x: ox, y: front - corner },
    { x: ox, y: front },
    { x: ox + corner, y: front + 6 },
    { x: (ox + right) / 2, y: front + 2 * 60 * mm },
    { x: right - corner, y: front + 6 },
    { x: right, y: front },
    { x: right, y: front - corner },
  ]);
  const [sx, sy, end] = [(ox + right) / 2, oy + 150 * mm, 20 * mm];
  pencil.line(sx - 100 * mm + end, sy - end, sx + 100 * mm - end, sy - end);
  pencil.line(sx - 100 * mm + end, sy + end, sx + 100 * mm - end, sy + end);
  pencil.arc(sx - 100 * mm + end, sy, end, Math.PI / 2, (3 * Math.PI) / 2);
  pencil.arc(sx + 100 * mm - end, sy, end, -Math.PI / 2, Math.PI / 2);
  pencil.centreLine(sx, oy - 40, sx, front + 110);
  pencil.dimension(ox, front + 130, right, front + 130);
  pencil.dimension(ox - 62, oy, ox - 62, front);
  pencil.dimension(sx + 190, front, sx + 190, front + 58 * mm);
  pencil.dimension(ox + 2, oy - 40, ox + notchX, oy - 40);
  pencil.dimension(right + 40, oy, right + 40, oy + notchY);
  pencil.dimension(sx - 46, oy, sx - 46, sy);
  pencil.leader(right - 150, front - 70, right - 12, front - 12);
  pencil.leader(sx + 190, sy + 8, sx + 68, sy + 2);
  const pins = {
    width: pencil.text(sx - 60, front + 108, "1380"),
    depth: pencil.text(ox - 92, (oy + front) / 2, "460", 34, -90),
    bow: pencil.text(sx + 240, front + 22, "60"),
    corner: pencil.text(right - 190, front - 82, "R 40"),
    notchX: pencil.text(ox + 34, oy - 66, "110"),
    notchY: pencil.text(right + 80, oy + 24, "75"),
    slot: pencil.text(sx + 282, sy + 4, "vent 200 x 40", 30),
    back: pencil.text(sx - 78, (oy + sy) / 2, "150", 30),
  };
  pencil.text(ox + 150, 90, "HEARTH STONE", 40);
  pencil.text(right - 90, 90, "slate 30", 34);
  pencil.text(ox + 250, front - 60, "front bowed, one sweep", 28);
  return {
    id: "demo-0413",
    unit: "mm",
    head: head("0413", "Hearth stone", {
      material: "slate",
      thickness: "30 mm",
      due: "2027-01-25",
      customer: "Fernhollow station house",
    }),
    width: 1200,
    height: 700,
    svg: pencil.svg(),
    meant: pencil.meant(),
    askew: true,
    callouts: [
      { kind: "length", value: 1380, name: "width", pin: pins.width },
      { kind: "length", value: 460, name: "depth at the sides", pin: pins.depth },
      { kind: "length", value: 60, name: "bow of the front", pin: pins.bow },
      { kind: "radius", value: 40, name: "front corners", pin: pins.corner },
      { kind: "length", value: 110, name: "notch along the back", pin: pins.notchX },
      { kind: "length", value: 75, name: "notch deep", pin: pins.notchY },
      { kind: "length", value: 200, name: "vent long", pin: { x: pins.slot.x - 10, y: pins.slot.y } },
      { kind: "length", value: 40, name: "vent wide", pin: { x: pins.slot.x + 74, y: pins.slot.y } },
      { kind: "length", value: 150, name: "vent from the back", pin: pins.back },
    ],
  };
};
