import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readTypedValue, type Expectation } from "./typedValue.ts";
import { convertLength, type Unit } from "./units.ts";

const read = (text: string, unit: Unit = "in", expects: Expectation = "length"): unknown => {
  const outcome = readTypedValue(text, { unit, expects, kinds: true });
  return outcome.ok ? outcome.value : outcome.refusal;
};

describe("typed values", () => {
  it.each([
    ["12.5", 12.5],
    ["12,5", 12.5],
    [".5", 0.5],
    ["5/8", 0.625],
    ["1-3/16", 1.1875],
    ["1 3/16", 1.1875],
    ["1 − 3/16", 0.8125],
    ["6-5/8 + 1/4", 6.875],
    ["6 5/8 - 1/4", 6.375],
    ["2 * (1-1/2 + .25)", 3.5],
    ["10 / 4", 2.5],
    ["-1/2", -0.5],
    ["3/8in", 0.375],
    ["1'", 12],
    ["2ft 4-1/2in", 28.5],
    ["2' 4-1/2\"", 28.5],
    ["25.4mm", 1],
    ["10mm + 1/2", 10 / 25.4 + 0.5],
  ])("reads %s in an inch job as %d", (text, value) => expect(read(text)).toEqual({ value }));

  it.each([
    ["12in", 304.8], // 12 in are 304.8 mm exactly: 1 in = 25.4 mm (ISO 80000-3)
    ["12cm", 120],
    ["1.2m", 1200],
    ["1-3/16in", 30.1625],
    ["2ft", 609.6],
  ])("reads %s in a millimetre job as %d", (text, value) => expect(read(text, "mm")).toEqual({ value }));

  it.each([
    ["1-3/16d", 1.1875, "Ø"],
    ["d1-3/16", 1.1875, "Ø"],
    ["26 d", 26, "Ø"],
    ["ø26", 26, "Ø"],
    ["⌀ 26", 26, "Ø"],
    ["r13", 13, "R"],
    ["13R", 13, "R"],
    ["10mm d", 10 / 25.4, "Ø"],
  ])("takes the mark of %s", (text, value, kind) => expect(read(text)).toEqual({ value, kind }));

  it.each([
    ["", "value-empty", undefined],
    ["1-3/", "value-unreadable", 4],
    ["1..5", "value-unreadable", 2],
    ["12 parsecs", "value-unreadable", 3],
    ["(1 + 2", "value-unreadable", 6],
    ["1.5 3/4 5", "value-unreadable", 4],
    ["10-12/4", "value-two-ways", 3],
    ["5/0", "value-zero-division", 2],
    ["1 / (2 - 2)", "value-zero-division", 2],
    ["r5d", "value-two-kinds", 2],
    ["5 r 6", "value-unreadable", 2],
    ["2in * 3in", "value-not-a-length", 4],
    ["45°", "value-not-a-length", 2],
    ["99999999999", "value-too-large", 0],
  ])("refuses %j with %s at place %s", (text, code, place) => {
    expect(read(text)).toMatchObject({ code, values: place === undefined ? {} : { place } });
  });

  it("takes angles in degrees and counts as whole numbers, each in its own blank only", () => {
    expect(read("42.5°", "mm", "angle")).toEqual({ value: 42.5 });
    expect(read("22-1/2", "mm", "angle")).toEqual({ value: 22.5 });
    expect(read("3", "mm", "count")).toEqual({ value: 3 });
    expect(read("2.5", "mm", "count")).toMatchObject({ code: "value-not-a-count" });
    expect(read("0", "mm", "count")).toMatchObject({ code: "value-not-a-count" });
    expect(readTypedValue("r5", { unit: "mm", expects: "length" })).toMatchObject({
      refusal: { code: "value-kind-not-here" },
    });
  });

  it("never throws, and what it reads is finite, whatever is typed", () => {
    const scraps = fc.array(
      fc.constantFrom(
        "1",
        "3",
        "16",
        "/",
        "-",
        " ",
        ".",
        ",",
        "mm",
        "in",
        "'",
        '"',
        "d",
        "r",
        "ø",
        "(",
        ")",
        "+",
        "*",
        "°",
        "x",
      ),
      { maxLength: 9 },
    );
    fc.assert(
      fc.property(
        fc.oneof(
          scraps.map((parts) => parts.join("")),
          fc.string(),
        ),
        (text) => {
          const outcome = readTypedValue(text, { unit: "in", expects: "length", kinds: true });
          return outcome.ok ? Number.isFinite(outcome.value.value) : outcome.refusal.code.startsWith("value-");
        },
      ),
      { numRuns: 2000 },
    );
  });

  it("converts there and back within one rounding", () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-6, max: 1e6, noNaN: true }), (value) => {
        expect(Math.abs(convertLength(convertLength(value, "in", "mm"), "mm", "in") / value - 1)).toBeLessThan(5e-16);
      }),
    );
  });
});
