import { takePencil, type Hand } from "./pencil.ts";
import { head, type Sketch } from "./sketch.ts";

/**
 * 0417: two tapered hands with rounded tips, hub rings and a counterweight each. About 2.4 pixels to the millimetre.
 */
export const clockHands = (seed = 417, hand: Hand = {}): Sketch => {
  const pencil = takePencil(seed, hand);
  const mm = 2.4;
  const oneHand = (
    ox: number,
    oy: number,
    long: number,
    wide: number,
    tip: number,
    tail: number,
    weight: number,
  ): void => {
    const [end, w, t] = [ox + long * mm, (wide / 2) * mm, (tip / 2) * mm];
    pencil.line(ox + 28 * mm, oy - w + 2, end, oy - t);
    pencil.line(ox + 28 * mm, oy + w - 1, end, oy + t + 1);
    pencil.arc(end, oy, t, -Math.PI / 2, Math.PI / 2);
    pencil.circle(ox, oy, 30 * mm);
    pencil.circle(ox, oy, 12 * mm);
    pencil.line(ox - 29 * mm, oy - 9 * mm, ox - (tail - weight / 2) * mm, oy - 9 * mm + 1);
    pencil.line(ox - 29 * mm, oy + 9 * mm, ox - (tail - weight / 2) * mm, oy + 9 * mm);
    pencil.circle(ox - tail * mm, oy, (weight / 2) * mm);
    pencil.centreLine(ox - (tail + weight) * mm, oy, end + 60, oy);
    pencil.centreLine(ox, oy - 100, ox, oy + 150);
  };
  const [ox, minute, hour] = [390, 230, 560];
  oneHand(ox, minute, 300, 26, 10, 90, 40);
  oneHand(ox, hour, 200, 34, 14, 90, 52);
  pencil.dimension(ox, minute + 128, ox + 300 * mm, minute + 128);
  pencil.dimension(ox, hour + 128, ox + 200 * mm, hour + 128);
  pencil.dimension(ox - 90 * mm, hour + 128, ox, hour + 128);
  pencil.leader(ox + 120, minute - 128, ox + 20 * mm, minute - 22 * mm);
  pencil.leader(ox - 120, minute - 118, ox - 7 * mm, minute - 9 * mm);
  pencil.leader(ox + 250, minute - 84, ox + 40 * mm, minute - 12 * mm);
  pencil.leader(ox + 300 * mm - 60, minute - 84, ox + 292 * mm, minute - 5 * mm);
  pencil.leader(ox - 90 * mm - 60, minute + 96, ox - 100 * mm, minute + 17 * mm);
  pencil.leader(ox + 260, hour - 92, ox + 40 * mm, hour - 16 * mm);
  pencil.leader(ox + 200 * mm + 10, hour - 92, ox + 196 * mm, hour - 7 * mm);
  pencil.leader(ox - 90 * mm - 70, hour - 96, ox - 104 * mm, hour - 22 * mm);
  pencil.leader(ox - 52 * mm, hour - 96, ox - 50 * mm, hour - 9 * mm);
  const pins = {
    long: pencil.text(ox + 150 * mm, minute + 106, "300 to the tip's centre", 30),
    ring: pencil.text(ox + 170, minute - 146, "Ø 60"),
    bore: pencil.text(ox - 150, minute - 138, "Ø 24"),
    wide: pencil.text(ox + 300, minute - 98, "26 wide"),
    tip: pencil.text(ox + 300 * mm - 110, minute - 100, "10 wide"),
    weight: pencil.text(ox - 90 * mm - 80, minute + 118, "Ø 40"),
    hourLong: pencil.text(ox + 110 * mm, hour + 106, "200", 32),
    tail: pencil.text(ox - 45 * mm, hour + 106, "90 both", 30),
    hourWide: pencil.text(ox + 310, hour - 106, "34 wide"),
    hourTip: pencil.text(ox + 200 * mm + 60, hour - 106, "14 wide"),
    hourWeight: pencil.text(ox - 90 * mm - 90, hour - 112, "Ø 52"),
    tailWide: pencil.text(ox - 50 * mm, hour - 116, "18 both", 30),
  };
  pencil.text(250, 44, "STATION CLOCK HANDS", 40);
  pencil.text(1010, 44, "2 mm brass, 1 pair", 32);
  pencil.text(1010, 720, "tips round, hubs and bores alike", 26);
  return {
    id: "demo-0417",
    unit: "mm",
    head: head("0417", "Station clock hands", {
      material: "brass",
      thickness: "2 mm",
      quantity: 1,
      due: "2027-02-08",
      customer: "Fernhollow station house",
    }),
    width: 1200,
    height: 760,
    svg: pencil.svg(),
    meant: pencil.meant(),
    callouts: [
      { kind: "diameter", value: 60, name: "hub rings, 2 off", pin: pins.ring },
      { kind: "diameter", value: 24, name: "bores, 2 off", pin: pins.bore },
      { kind: "length", value: 300, name: "minute hand", pin: pins.long },
      { kind: "length", value: 26, name: "minute hand at the hub", pin: pins.wide },
      { kind: "length", value: 10, name: "minute hand at the tip", pin: pins.tip },
      { kind: "diameter", value: 40, name: "minute counterweight", pin: pins.weight },
      { kind: "length", value: 200, name: "hour hand", pin: pins.hourLong },
      { kind: "length", value: 34, name: "hour hand at the hub", pin: pins.hourWide },
      { kind: "length", value: 14, name: "hour hand at the tip", pin: pins.hourTip },
      { kind: "diameter", value: 52, name: "hour counterweight", pin: pins.hourWeight },
      { kind: "length", value: 90, name: "tails, 2 off", pin: pins.tail },
      { kind: "length", value: 18, name: "tails wide, 2 off", pin: pins.tailWide },
    ],
  };
};
