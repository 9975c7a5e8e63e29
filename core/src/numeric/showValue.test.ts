import { describe, expect, it } from "vitest";
import { showAngle, showLength, showLengthUnit, showTelling } from "./showValue.ts";

describe("shown numbers", () => {
  it.each([
    [1.1875, "in", "1 3/16"],
    [0.625, "in", "5/8"],
    [-2.015625, "in", "-2 1/64"],
    [6, "in", "6"],
    [0, "in", "0"],
    [1.749, "in", "1.749"],
    [1 / 3, "in", "≈ 0.3333"],
    [12.5, "mm", "12.5"],
    [304.8, "mm", "304.8"],
    [1.1875, "mm", "≈ 1.188"], // never passes for what it is not
    [-1e-9, "mm", "0"],
    [0.00042, "mm", "≈ 0.00042"],
    [-3e-7, "in", "≈ -0.0000003"],
  ] as const)("%d %s is shown as %s", (value, unit, text) => expect(showLength(value, unit)).toBe(text));

  it.each([
    [3.42e-6, "mm", "≈ 0.0000034"],
    [-1e-9, "in", "≈ -0.000000001"],
    [0.0005, "mm", "≈ 0.001"],
    [0, "mm", "0"],
    [0.25, "in", "1/4"],
  ] as const)("%d %s tells why something is wrong as %s", (value, unit, text) =>
    expect(showTelling(value, unit)).toBe(text),
  );

  it("carries its unit or its sign of kind", () => {
    expect([showLengthUnit(3.125, "in"), showLengthUnit(12.5, "mm"), showAngle(42.5)]).toEqual([
      "3 1/8 in",
      "12.5 mm",
      "42.5°",
    ]);
  });
});
