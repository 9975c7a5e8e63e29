import { describe, expect, it } from "vitest";
import { rgbOf, type Rgb } from "@ash-edge/core/drawing";
import { contrastOf, fileColour } from "./fileColour.ts";

const parts = (shown: string): Rgb => /^rgb\((\d+) (\d+) (\d+)\)$/.exec(shown)!.slice(1).map(Number) as unknown as Rgb;

describe("colours that files name", () => {
  it("are those of the standard palette: the first, hues in steps of 15°, paler and darker ones, greys", () => {
    // DXF reference, colour numbers 1 to 7; 10, 90, 170 begin the hues 0°, 120°, 240° (from memory)
    expect(["1", "3", "5", "7", "0", "256", "red", "10", "90", "170", "11", "14"].map(rgbOf)).toEqual([
      [255, 0, 0],
      [0, 255, 0],
      [0, 0, 255],
      undefined,
      undefined,
      undefined,
      undefined,
      [255, 0, 0],
      [0, 255, 0],
      [0, 0, 255],
      [255, 128, 128],
      [128, 0, 0],
    ]);
    expect(rgbOf("#1e90ff")).toEqual([0x1e, 0x90, 0xff]);
  });

  it("can be told from the board in both themes, every one of them", () => {
    for (const [board, ink] of [
      ["#f2f1ec", "#22262b"],
      ["#1d2126", "#e8e6df"],
    ] as const)
      for (let number = 1; number < 256; number++) {
        const shown = fileColour(String(number), board, ink);
        if (number === 7) expect(shown).toBeUndefined();
        else expect(contrastOf(parts(shown!), rgbOf(board)!)).toBeGreaterThanOrEqual(3);
      }
  });
});
