import { describe, expect, it } from "vitest";
import { FITS, findThread, searchThreads, THREADS, threadLength } from "./threads.ts";

const named = (text: string) => {
  const found = findThread(text);
  if (!found.ok) throw new Error(found.refusal.code);
  return found.value;
};

describe("threads", () => {
  it("M20 x 2.5 - 6H has its minor diameter between 17.294 and 17.744 (ISO 965-1); drill 17.5", () => {
    const m20 = named("M20x2.5");
    expect(m20.minor).toEqual([17.294, 17.744]);
    expect([m20.drill, m20.diameter, m20.clearance!.medium]).toEqual([17.5, 20, 22]);
  });
  it("every metric drill lies within the 6H limits of its minor diameter (ISO 965-1), every pitch has some", () => {
    for (const thread of THREADS.filter(({ unit }) => unit === "mm")) {
      const [least, most] = thread.minor!;
      expect(thread.drill, thread.name).toBeGreaterThanOrEqual(least - 0.005);
      expect(thread.drill, thread.name).toBeLessThanOrEqual(most + 0.005);
    }
  });
  it("every unified drill leaves 55 to 90 % of a full thread, 1.299038 / n high (Machinery's Handbook)", () => {
    for (const thread of THREADS.filter(({ unit }) => unit === "in")) {
      const part = (thread.diameter - thread.drill) / (1.299038 * thread.pitch);
      expect(part, thread.name).toBeGreaterThan(0.55);
      expect(part, thread.name).toBeLessThan(0.9);
    }
  });
  it("clearance holes grow from fine to coarse and are all larger than the bolt", () => {
    for (const { clearance, diameter, name } of THREADS) {
      if (!clearance) continue;
      const sizes = [diameter, ...FITS.map((fit) => clearance[fit])];
      expect(sizes, name).toEqual([...sizes].sort((p, q) => p - q));
      expect(new Set(sizes).size, name).toBe(4);
    }
  });
  it.each([
    ["m12", "M12"],
    ["M 12 x 1,75", "M12"],
    ["M12×1.25", "M12x1.25"],
    ["3/8-16", "3/8-16"],
    ["10-24", "#10-24"],
    ["#10-32", "#10-32"],
    ["1 1/8-7", "1-1/8-7"],
    ["1-8", "1-8"],
  ])("%j is %s", (text, name) => expect(named(text).name).toBe(name));
  it.each(["", "M13", "3/8-17", "fine"])("%j is refused", (text) =>
    expect(findThread(text)).toMatchObject({ refusal: { code: "thread-unknown" } }),
  );
  it("are searched by how they begin, and convert into the other unit exactly", () => {
    expect(searchThreads("M1", 20).map(({ name }) => name)).toContain("M10");
    expect(searchThreads("3/8", 9).map(({ name }) => name)).toEqual(["3/8-16", "3/8-24"]);
    expect(
      searchThreads("", 500, "in")
        .slice(0, 3)
        .map(({ unit }) => unit),
    ).toEqual(["in", "in", "in"]);
    expect(searchThreads("", 500, "in")).toHaveLength(THREADS.length);
    expect(threadLength(named("1/2-13"), 0.5, "mm")).toBe(12.7);
  });
});
