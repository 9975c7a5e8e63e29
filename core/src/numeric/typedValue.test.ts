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
    ["3'-6 1/2\"", 42.5],
    ["3' 6-1/2", 42.5],
    ["2ft-4in", 28],
    ["10'-0 3/4\"", 120.75],
    ["4'-6", 54],
    ["3′-6½″", 42.5],
    ["3’ 6”", 42],
    ["6''", 6],
    ["6½", 6.5],
    ["⅜", 0.375],
    ["3' - (6)", 30],
    ["2 * pi", 2 * Math.PI],
  ])("reads %s in an inch job as %d", (text, value) => expect(read(text)).toEqual({ value }));

  it.each([
    ["12in", 304.8], // 12 in are 304.8 mm exactly: 1 in = 25.4 mm (ISO 80000-3)
    ["12cm", 120],
    ["1.2m", 1200],
    ["1-3/16in", 30.1625],
    ["2ft", 609.6],
    ["2' 4", 711.2], // a bare number behind feet is inches in any job
    ["0,250", 0.25],
    ["1250,5", 1250.5],
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
    ["--5", "value-unreadable", 1],
    ["5 - -3", "value-unreadable", 4],
    ["2ft 1ft", "value-unreadable", 5],
    ["1'200", "value-unreadable", 1],
    ["99999999999", "value-too-large", 0],
  ])("refuses %j with %s at place %s", (text, code, place) => {
    expect(read(text)).toMatchObject({ code, values: place === undefined ? {} : { place } });
  });

  it.each([
    ["1,250", "mm", ["1250", 1250], ["1.250", 1.25]],
    ["1 -3/16", "in", ["1-3/16", 1.1875], ["1 - 3/16", 0.8125]],
    ["3' - 6\"", "in", ["3'-6\"", 42], ["3' - (6\")", 30]],
    ["3' -6", "mm", ["3'-6", 1066.8], ["3' - (6)", 908.4]],
  ] as const)(
    "asks which of two readings of %s is meant, each of which reads as just that",
    (text, unit, one, other) => {
      const asked = read(text, unit) as { code: string; values: Record<string, string | number> };
      expect(asked).toMatchObject({ code: "value-asked", values: { one: one[0], other: other[0], first: one[1] } });
      if (!other[0].endsWith("(6)")) expect(asked.values.second).toBe(other[1]);
      expect(read(one[0], unit)).toEqual({ value: one[1] });
    },
  );

  it("reads what a little grammar of its own builds, with the value it was built with", () => {
    // numbers, mixed numbers, feet and inches, put together by + - * / and brackets; the sum is kept beside the text
    type Built = { readonly text: string; readonly value: number };
    const whole = fc.integer({ min: 1, max: 99 }).map((n): Built => ({ text: String(n), value: n }));
    const decimal = fc
      .tuple(fc.nat(999), fc.integer({ min: 0, max: 99 }), fc.constantFrom(".", ","))
      .map(([n, hundredths, mark]): Built => ({
        text: `${n}${mark}${String(hundredths).padStart(2, "0")}`,
        value: n + hundredths / 100,
      }));
    const fraction = fc
      .tuple(fc.integer({ min: 1, max: 5 }), fc.nat(31))
      .map(([power, n]): Built => ({ text: `${n % 2 ** power}/${2 ** power}`, value: (n % 2 ** power) / 2 ** power }));
    const mixed = fc
      .tuple(fc.integer({ min: 1, max: 99 }), fraction, fc.constantFrom(" ", "-"))
      .map(([n, part, mark]): Built => ({ text: `${n}${mark}${part.text}`, value: n + part.value }));
    const inches = fc.oneof(whole, mixed);
    const feet = fc
      .tuple(
        fc.integer({ min: 1, max: 40 }),
        fc.constantFrom("'", "ft", "′", " ft"),
        fc.constantFrom(" ", "-", ""),
        inches,
        fc.constantFrom('"', "in", "″", "", " in"),
      )
      .map(([n, foot, between, inch, mark]): Built => ({
        text: `${n}${foot}${foot.includes("t") && between === "" ? " " : between}${inch.text}${mark}`,
        value: 12 * n + inch.value,
      }));
    const number = fc.oneof(whole, decimal, fraction, mixed, feet);
    const sum = fc.letrec<{ all: Built }>((tie) => ({
      all: fc.oneof(
        { depthSize: "small" },
        number,
        fc.tuple(tie("all"), fc.constantFrom("+", "-"), tie("all")).map(([p, sign, q]): Built => ({
          text: `(${p.text}) ${sign} (${q.text})`,
          value: sign === "+" ? p.value + q.value : p.value - q.value,
        })),
        fc
          .tuple(fc.integer({ min: 2, max: 9 }), fc.constantFrom("*", "×"), tie("all"))
          .map(([n, sign, q]): Built => ({ text: `${n} ${sign} (${q.text})`, value: n * q.value })),
        fc
          .tuple(tie("all"), fc.integer({ min: 2, max: 9 }))
          .map(([p, n]): Built => ({ text: `(${p.text}) / ${n}`, value: p.value / n })),
      ),
    })).all;
    fc.assert(
      fc.property(sum, ({ text, value }) => {
        const outcome = readTypedValue(text, { unit: "in", expects: "length" });
        if (!outcome.ok) return outcome.refusal.code === "value-asked" && /\d,\d{3}/.test(text);
        return Math.abs(outcome.value.value - value) <= 1e-12 * (1 + Math.abs(value)) * text.length;
      }),
      { numRuns: 3000 },
    );
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
