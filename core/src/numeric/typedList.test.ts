import { describe, expect, it } from "vitest";
import { readList } from "./typedList.ts";

const read = (text: string): readonly number[] | string => {
  const list = readList(text);
  return list.ok ? [...list.value] : String(list.refusal.values?.found);
};

describe("a typed list", () => {
  it("takes numbers and ranges", () => {
    expect(read("3, 5-7;9 ")).toEqual([3, 5, 6, 7, 9]);
    expect(read("")).toEqual([]);
  });
  it("names the part that it cannot read", () => {
    expect(read("3, x")).toBe("x");
    expect(read("7-5")).toBe("7-5");
    expect(read("0")).toBe("0");
    expect(read("2 1-999999999")).toBe("1-999999999");
  });
});
