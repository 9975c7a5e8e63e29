import { entitiesOf } from "@ash-edge/core/drawing";
import { chainPieces } from "@ash-edge/core/contour";
import { pieceCentre, type Point } from "@ash-edge/core/geometry";
import { link, partOf } from "../../core/src/testing/parts.ts";
import { takePencil, type Hand } from "./pencil.ts";
import { head, type Sketch } from "./sketch.ts";

/** A link of three bosses with tangent flanks and a hollow below, on its own sizes. 8 pixels to the millimetre. */
export const brakeLink = (seed = 420, hand: Hand = {}): Sketch => {
  const pencil = takePencil(seed, hand);
  const [ox, oy, mm] = [560, 470, 8];
  const on = ({ x, y }: Point): Point => ({ x: ox + x * mm, y: oy - y * mm });
  const plan = link();
  for (const one of entitiesOf(partOf(plan))) {
    if (one.kind === "circle") {
      const { x, y } = on(one.centre);
      pencil.circle(x, y, one.radius * mm);
      pencil.centreLine(x - 3.2 * one.radius * mm, y, x + 3.2 * one.radius * mm, y);
      pencil.centreLine(x, y - 3.2 * one.radius * mm, x, y + 3.2 * one.radius * mm);
    }
    if (one.kind !== "chain") continue;
    for (const piece of chainPieces(one)) {
      const [a, b] = [on(piece.a), on(piece.b)];
      if (piece.bulge === 0) {
        pencil.line(a.x, a.y, b.x, b.y);
        continue;
      }
      const c = on(pieceCentre(piece)!);
      // on the page, y down, what turns left turns right
      const [first, sweep] = piece.bulge > 0 ? [b, 4 * Math.atan(piece.bulge)] : [a, -4 * Math.atan(piece.bulge)];
      const from = Math.atan2(first.y - c.y, first.x - c.x);
      pencil.arc(c.x, c.y, Math.hypot(a.x - c.x, a.y - c.y), from, from + sweep);
    }
  }
  const [left, right, top] = [on({ x: -40, y: 0 }), on({ x: 40, y: 0 }), on({ x: 0, y: 25.5 })];
  pencil.dimension(left.x, oy + 210, right.x, oy + 210);
  pencil.dimension(left.x - 150, oy, left.x - 150, top.y);
  pencil.leader(left.x - 70, oy + 140, left.x - 52, oy + 62);
  pencil.leader(right.x + 90, oy + 130, right.x + 24, oy + 34);
  pencil.leader(top.x + 190, top.y - 110, top.x + 76, top.y - 78);
  pencil.leader(top.x - 190, top.y - 110, top.x - 30, top.y - 46);
  pencil.leader(ox + 70, oy + 120, ox + 20, oy + 44);
  const pins = {
    low: pencil.text(left.x - 84, oy + 166, "R 10, 2 off"),
    centres: pencil.text(ox, oy + 186, "80"),
    high: pencil.text(top.x + 238, top.y - 122, "R 13.5"),
    rise: pencil.text(left.x - 190, oy - 102, "25.5"),
    hollow: pencil.text(ox + 92, oy + 140, "R 49"),
    eye: pencil.text(right.x + 120, oy + 152, "Ø 10, 2 off"),
    bore: pencil.text(top.x - 240, top.y - 124, "Ø 13.5"),
  };
  pencil.text(250, 60, "BRAKE LINK", 40);
  pencil.text(930, 60, "steel 8, 2 off", 32);
  return {
    id: "brake-link",
    unit: "mm",
    head: head("0420", "Brake link", { material: "steel", thickness: "8 mm", quantity: 2 }),
    width: 1200,
    height: 760,
    svg: pencil.svg(),
    meant: pencil.meant(),
    callouts: plan.calls.map(({ kind, value, name, axis, times }) => ({
      kind,
      value,
      name,
      ...(axis ? { axis } : {}),
      ...(times === undefined ? {} : { times }),
      pin: pins[name as keyof typeof pins],
    })),
  };
};
