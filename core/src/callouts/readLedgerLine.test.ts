import { describe, expect, it } from "vitest";
import { readTypedValue } from "../numeric/typedValue.ts";
import { findThread } from "../tables/threads.ts";
import { numberText, readLedgerLine, writtenCallout, type WrittenCallout } from "./index.ts";

const KEYS = [
  "other",
  "angle",
  "times",
  "fit",
  "thread",
  "tolerance",
  "bound",
  "between",
  "throughout",
  "reference",
] as const;
/** A callout in few words: `diameter 26 fit=H7 +0.021 -0 "bore"`. */
const told = ({ kind, value, name, limits, ...rest }: WrittenCallout): string =>
  [
    kind,
    Number(value.toFixed(6)),
    ...KEYS.flatMap((key) => (rest[key] === undefined ? [] : [`${key}=${rest[key]}`])),
    ...(limits ? [`${limits.low}..${limits.high}`] : []),
    `"${name}"`,
  ].join(" ");
const read = (text: string, unit: "mm" | "in" = "mm"): string => {
  const line = readLedgerLine(text, unit);
  if (!line.ok) return line.refusal.code;
  const { callouts, thickness, doubt } = line.value;
  return [
    ...callouts.map(told),
    ...(thickness === undefined ? [] : [`thickness ${thickness}`]),
    ...(doubt ? [doubt] : []),
  ].join(" + ");
};

/** Lines as sketches carry them, made up, with what a reader in the shop would take them for. */
const LINES: readonly (readonly [string, string])[] = [
  ["26 d bore", 'diameter 26 "bore"'],
  ["d26 bore", 'diameter 26 "bore"'],
  ["26d", 'diameter 26 ""'],
  ["Ø26 bore", 'diameter 26 "bore"'],
  ["Ø 26 bore", 'diameter 26 "bore"'],
  ["⌀26", 'diameter 26 ""'],
  ["26 dia bore", 'diameter 26 "bore"'],
  ["26 dia. bore", 'diameter 26 "bore"'],
  ["dia 26 bore", 'diameter 26 "bore"'],
  ["26 diameter", 'diameter 26 ""'],
  ["26 diam spigot", 'diameter 26 "spigot"'],
  ["8.5Ø", 'diameter 8.5 ""'],
  ["8,5 d", 'diameter 8.5 ""'],
  ["r12.5 corner", 'radius 12.5 "corner"'],
  ["R 12.5", 'radius 12.5 ""'],
  ["12.5 r", 'radius 12.5 ""'],
  ["12.5 rad", 'radius 12.5 ""'],
  ["rad 40 front", 'radius 40 "front"'],
  ["radius 40", 'radius 40 ""'],
  ["r12.5 corner, 4 off", 'radius 12.5 "corner, 4 off"'],
  ["1380 width", 'length 1380 "width"'],
  ["240 wide", 'length 240 "wide"'],
  ["150 high", 'length 150 "high"'],
  ["150 long", 'length 150 "long"'],
  ["30 deep", 'length 30 "deep"'],
  ["wide 240", 'length 240 "wide"'],
  ["height 150", 'length 150 "height"'],
  ["80 from left", 'length 80 "from left"'],
  ["40mm wall", 'length 40 "wall"'],
  ["4 cm step", 'length 40 "step"'],
  ["1in lip", 'length 25.4 "lip"'],
  ["1-3/16in lip", 'length 30.1625 "lip"'],
  ["1250 long", 'length 1250 "long"'],
  ["1,250 long", "value-asked"],
  ["2' 4 overall", 'length 711.2 "overall"'],
  ["40 c/c", 'centres 40 "c/c"'],
  ["40 C/C", 'centres 40 "C/C"'],
  ["40 ctrs", 'centres 40 "ctrs"'],
  ["40 crs", 'centres 40 "crs"'],
  ["40 centres", 'centres 40 "centres"'],
  ["40 centers", 'centres 40 "centers"'],
  ["centres 40", 'centres 40 "centres"'],
  ["ctrs 40", 'centres 40 "ctrs"'],
  ["69 slot above centre", 'centres 69 "slot above centre"'],
  ["60.5 hole ctrs", 'centres 60.5 "hole ctrs"'],
  ["Ø26 H7 bore", 'diameter 26 fit=H7 0..0.021 "bore"'],
  ["26 H7", 'diameter 26 fit=H7 0..0.021 ""'],
  ["26 d H7 bore", 'diameter 26 fit=H7 0..0.021 "bore"'],
  ["Ø8 H11", 'diameter 8 fit=H11 0..0.09 ""'],
  ["Ø120 H8", 'diameter 120 fit=H8 0..0.054 ""'],
  ["Ø20 g6 spigot", 'diameter 20 fit=g6 -0.02..-0.007 "spigot"'],
  ["Ø20 h9", 'diameter 20 fit=h9 -0.052..0 ""'],
  ["Ø50 f7", 'diameter 50 fit=f7 -0.05..-0.025 ""'],
  ["Ø10 js7", 'diameter 10 fit=js7 -0.0075..0.0075 ""'],
  ["Ø20 P9 key", 'diameter 20 fit=P9 "key"'],
  ["Ø600 H7", 'diameter 600 fit=H7 ""'],
  ["26 H7 ±0.01", 'diameter 26 fit=H7 tolerance=0.01 ""'],
  ["12.5 ±0.1 wall", 'length 12.5 tolerance=0.1 "wall"'],
  ["12.5±0.1", 'length 12.5 tolerance=0.1 ""'],
  ["12.5 ± 0.1 wall", 'length 12.5 tolerance=0.1 "wall"'],
  ["14 d +-0.05 holes", 'diameter 14 tolerance=0.05 "holes"'],
  ["14 d +/-0.05 holes", 'diameter 14 tolerance=0.05 "holes"'],
  ["45° ±0.5°", 'angle 45 tolerance=0.5 ""'],
  ["25 +0.1 -0.05", 'length 25 -0.05..0.1 ""'],
  ["25 +0.1/-0.05 wall", 'length 25 -0.05..0.1 "wall"'],
  ["25 +0.1", 'length 25 0..0.1 ""'],
  ["25 +0.1 key", 'length 25 0..0.1 "key"'],
  ["25 -0.2", 'length 25 -0.2..0 ""'],
  ["25 -0.2 key", 'length 25 -0.2..0 "key"'],
  ["25 -0.2 +0.1", 'length 25 -0.2..0.1 ""'],
  ["25 +0/-0.2", 'length 25 -0.2..0 ""'],
  ["20 +0.2 -0 key", 'length 20 0..0.2 "key"'],
  ["Ø20 +.2 -.1", 'diameter 20 -0.1..0.2 ""'],
  ["r8 +0.1/-0.05 corner", 'radius 8 -0.05..0.1 "corner"'],
  ["17.3..17.7", 'length 17.5 between=true -0.2..0.2 ""'],
  ["17.3..17.7 core", 'length 17.5 between=true -0.2..0.2 "core"'],
  ["17.3 .. 17.7 core", 'length 17.5 between=true -0.2..0.2 "core"'],
  ["17.3-17.7 max/min", 'length 17.5 between=true -0.2..0.2 ""'],
  ["17.3 to 17.7 limits core", 'length 17.5 between=true -0.2..0.2 "core"'],
  ["Ø17.294..17.744", 'diameter 17.519 between=true -0.225..0.225 ""'],
  ["ø17..18 core", 'diameter 17.5 between=true -0.5..0.5 "core"'],
  ["max 12", 'length 12 bound=max ""'],
  ["12 max", 'length 12 bound=max ""'],
  ["12 max gap", 'length 12 bound=max "gap"'],
  ["min 3", 'length 3 bound=min ""'],
  ["min 3 wall", 'length 3 bound=min "wall"'],
  ["R 3 max", 'radius 3 bound=max ""'],
  ["3 x holes", 'count 3 "holes"'],
  ["3x", 'count 3 ""'],
  ["4 off", 'count 4 ""'],
  ["4 off bosses", 'count 4 "bosses"'],
  ["6x Ø9 holes", 'diameter 9 times=6 "holes"'],
  ["6 x Ø9", 'diameter 9 times=6 ""'],
  ["6xØ9", 'diameter 9 times=6 ""'],
  ["6 holes 9 dia", 'diameter 9 times=6 "holes"'],
  ["6 holes Ø9", 'diameter 9 times=6 "holes"'],
  ["4 off 8.5 d", 'diameter 8.5 times=4 ""'],
  ["4 off R18", 'radius 18 times=4 ""'],
  ["3 × R18", 'radius 18 times=3 ""'],
  ["3 × R18 bosses", 'radius 18 times=3 "bosses"'],
  ["1 off 26 d bore", 'diameter 26 "bore"'],
  ["4 x M8", 'thread 8 times=4 thread=M8 ""'],
  ["2 slots 8 wide", 'length 8 times=2 "wide slots"'],
  ["2 x 45° chamfer", 'chamfer 2 angle=45 "chamfer"'],
  ["2 × 45°", 'chamfer 2 angle=45 ""'],
  ["2x45", 'chamfer 2 angle=45 ""'],
  ["1.5 x 30°", 'chamfer 1.5 angle=30 ""'],
  ["30 x 30 cut corner", 'chamfer 30 other=30 "cut corner"'],
  ["20 x 35 corner", 'chamfer 20 other=35 "corner"'],
  ["R3 typ", 'radius 3 throughout=true ""'],
  ["R3 typ.", 'radius 3 throughout=true ""'],
  ["R3 all corners", 'radius 3 throughout=true "all corners"'],
  ["8 d all holes", 'diameter 8 throughout=true "all holes"'],
  ["15°", 'angle 15 ""'],
  ["15 deg", 'angle 15 ""'],
  ["15 deg 30'", 'angle 15.5 ""'],
  ["15° 30' lean", 'angle 15.5 "lean"'],
  ["22.5° start", 'angle 22.5 "start"'],
  ["45 degrees", 'angle 45 ""'],
  ["M8", 'thread 8 thread=M8 ""'],
  ["M8 tapped", 'thread 8 thread=M8 "tapped"'],
  ["m20x1.5", 'thread 20 thread=M20x1.5 ""'],
  ["M8 x 1.25 - 6H", 'thread 8 fit=6H thread=M8x1.25 ""'],
  ["M8-6H tapped", 'thread 8 fit=6H thread=M8 "tapped"'],
  ["slot 8 x 30", 'length 8 "slot width" + length 30 "slot length"'],
  ["slot 8 wide 30 ctrs", 'length 8 "slot width" + centres 30 "slot centres"'],
  ["slot 8 wide 30 long", 'length 8 "slot width" + length 30 "slot length"'],
  ["t=6", "thickness 6"],
  ["t = 6 mm", "thickness 6"],
  ["6 thk", "thickness 6"],
  ["6 mm thick", "thickness 6"],
  ["20 ref", 'length 20 reference=true ""'],
  ["(20)", 'length 20 reference=true ""'],
  ["(Ø20) boss", 'diameter 20 reference=true "boss"'],
  ["20 ref. overall", 'length 20 reference=true "overall"'],
  ["26 bore 30 deep", 'length 26 "bore 30 deep" + number-left'],
  // what can't be read is refused, not guessed
  ["", "value-empty"],
  ["bore", "value-unreadable"],
  ["0 gap", "value-not-positive"],
  ["-5 step", "value-not-positive"],
  ["12 ±x", "value-unreadable"],
  ["12 ±0", "value-not-positive"],
  ["12 +0 -0", "value-not-positive"],
  ["18..17 core", "value-not-positive"],
  ["1'200", "value-unreadable"],
];
const INCHES: readonly (readonly [string, string])[] = [
  ["1-3/16d big hole", 'diameter 1.1875 "big hole"'],
  ["6 5/8 centres", 'centres 6.625 "centres"'],
  ["6-5/8 c/c", 'centres 6.625 "c/c"'],
  ["3/8-16 tapped", 'thread 0.375 thread=3/8-16 "tapped"'],
  ["3/8-16 UNC", 'thread 0.375 thread=3/8-16 ""'],
  ["1-8", 'thread 1 thread=1-8 ""'],
  ["10mm slot", 'length 0.393701 "slot"'],
  ["3'-6 1/2\" overall", 'length 42.5 "overall"'],
  ["2ft-4in", 'length 28 ""'],
  ["1/2 rad", 'radius 0.5 ""'],
  ["1 -3/16", "value-asked"],
  ["5/8 ±1/64", 'length 0.625 tolerance=0.015625 ""'],
  ["1-3/16 +1/64", 'length 1.1875 0..0.015625 ""'],
  ["17-18 core", "value-unreadable"],
];

describe("the ledger's reader", () => {
  it.each(LINES)("%j", (text, expected) => expect(read(text)).toBe(expected));
  it.each(INCHES)("%j in inches", (text, expected) => expect(read(text, "in")).toBe(expected));

  it("writes each back as a line that reads the same", () => {
    for (const [unit, lines] of [["mm", LINES] as const, ["in", INCHES] as const])
      for (const [text] of lines) {
        const line = readLedgerLine(text, unit);
        if (!line.ok || line.value.doubt) continue;
        for (const callout of line.value.callouts) {
          const again = readLedgerLine(writtenCallout(callout, unit), unit);
          expect([text, writtenCallout(callout, unit), again.ok && again.value.callouts.map(told)]).toEqual([
            text,
            writtenCallout(callout, unit),
            [told(callout)],
          ]);
        }
      }
  });

  it("gives of each the number alone, which a blank reads back to it, or its thread", () => {
    for (const [unit, lines] of [["mm", LINES] as const, ["in", INCHES] as const])
      for (const [text] of lines) {
        const line = readLedgerLine(text, unit);
        for (const callout of line.ok ? line.value.callouts : []) {
          const number = numberText({ ...callout, id: 1, links: [] }, unit);
          const expects = callout.kind === "angle" ? "angle" : callout.kind === "count" ? "count" : "length";
          const value = callout.kind === "thread" ? undefined : readTypedValue(number, { unit, expects });
          const found = callout.kind === "thread" ? findThread(number).ok : value?.ok && value.value.value;
          expect([text, number, found]).toEqual([text, number, callout.kind === "thread" || callout.value]);
        }
      }
  });
});
