import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { calloutsInText, unitOfText } from "./calloutsInText.ts";
import { readLedgerLine } from "./readLedgerLine.ts";

const lines = (text: string): readonly string[] => calloutsInText(text, unitOfText(text)).map(({ line }) => line);

/** Made-up letters as customers write, and the lines of the ledger that a drafter would take from them. */
const LETTERS: readonly (readonly [string, readonly string[]])[] = [
  [
    "Please quote for two flanges like the photo, 10 mm thick. Outside Ø 150, bore Ø 62, six holes Ø 11 on a Ø 122 " +
      "circle. Needed by 2027-02-08.",
    ["10 mm thk", "Ø 150 outside", "Ø 62 bore", "6 holes Ø 11", "Ø 122 circle"],
  ],
  [
    "Sill as on page 2: 920 wide, 210 deep, 30 mm slate slab. Front corners R 25.\n" +
      "The groove is 8 wide and 25 from the front.",
    ["920 wide", "210 deep", "30 mm thk", "R 25 front corners", "8 wide", "25 from the front"],
  ],
  ["Order no 5521 of the 12th, 4 off, within 10 days or 3 weeks.", []],
  ["Ring us on 01632 960123, or at 14:30. Drawing 880, rev 3, 24/11/2026, 5 % more.", []],
  ["six Ø 9 holes and four M8 tapped", ["6x Ø 9 holes", "4x M8 tapped"]],
  ["We would want a lever 14-1/2 in between centres, bosses R 1-1/4.", ["14-1/2 in between centres", "R 1-1/4 bosses"]],
  ["slot 9 x 40, corners 2 x 45° and R3 typ. on the rest", ["slot 9 x 40", "2 x 45° corners", "R3 typ on the rest"]],
  ["wall 12.5 ±0.1 and core 17.3..17.7, gap max 0.4", ["12.5 ±0.1 wall", "17.3..17.7 core", "max 0.4 gap"]],
  ["Bore Ø26 H7 x 40 long", ["Ø26 H7 bore", "40 long"]],
  ["3/8-16 tapped in the middle of 1/2 in plate", ["3/8-16 tapped in the middle", "1/2 in thk"]],
  ["Can you do it?", []],
  ["", []],
];

describe("the numbers of a letter", () => {
  it.each(LETTERS)("%j", (text, expected) => expect(lines(text)).toEqual(expected));

  it("takes what the ledger reads, each part of the text once, in its order, whatever the text is", () => {
    const bits = fc.constantFrom(
      ..."Ø|R|d|M8|6x|six|holes|12.5|1-3/16|±0.1|..|x|45°|on a|wide|mm|in|.|,|;|\n|(|)|-|2027-01-02|thk|slot".split(
        "|",
      ),
    );
    fc.assert(
      fc.property(fc.array(fc.oneof(bits, fc.string({ maxLength: 4 })), { maxLength: 30 }), (parts) => {
        const text = parts.join(" ");
        let end = 0;
        for (const { line, from, to } of calloutsInText(text, "mm")) {
          const read = readLedgerLine(line, "mm");
          expect(read.ok && read.value.doubt).toBeUndefined();
          expect(from).toBeGreaterThanOrEqual(end);
          expect(to).toBeGreaterThan(from);
          expect(/\d/.test(text.slice(from, to))).toBe(true);
          end = to;
        }
      }),
    );
  });
});
