import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { afterEach, expect, it, vi } from "vitest";
import { drawingFromRows, type Drawing } from "@ash-edge/core/drawing";
import { readJobFile, writeJobFile } from "@ash-edge/core/formats/job";
import { profileOf } from "@ash-edge/core/profile";
import { partOf, rocker, stepped } from "../../core/src/testing/parts.ts";
import { file, folder, run } from "./testing/calls.ts";

afterEach(() => void vi.restoreAllMocks());

const HEAD = { number: "0914", name: "Rocker plate", customer: "", material: "", thickness: "", quantity: 1, due: "" };
const saved = (drawing: Drawing): string => file(writeJobFile(HEAD, drawing, []), "part.ashedge.json");
const outlineIn = (path: string) => {
  const job = readJobFile(readFileSync(path, "utf8"));
  if (!job.ok) throw new Error(job.refusal.code);
  return profileOf(drawingFromRows(job.value.drawing as never, job.value.nextId)).contours[0]!;
};
const areaIn = (path: string): number => outlineIn(path).area;

it("revised numbers are made true, written, and read back as their closed form has them", async () => {
  const out = join(folder(), "out.ashedge.json");
  const job = saved(partOf(rocker()));
  const { code, out: said } = await run("true", job, "--set", "R 14 belly=15", "--set", "centres=6-3/4", "-o", out);
  expect([code, said]).toEqual([0, expect.stringContaining("true: R 15 belly")]);
  const exact = profileOf(partOf(rocker({ belly: 15, centres: 6.75 }))).contours[0]!.area;
  expect(Math.abs(areaIn(out) / exact - 1)).toBeLessThan(1e-12);
  // what is true already is written as it is
  const again = join(folder(), "again.ashedge.json");
  expect((await run("true", out, "-o", again)).out).toContain("every placed number is true already");
  expect(readFileSync(again, "utf8")).toBe(readFileSync(out, "utf8"));
});

it("a number that goes no farther is refused with how far it goes, and nothing is written", async () => {
  const out = join(folder(), "out.ashedge.json");
  const { code, out: said } = await run("true", saved(partOf(rocker())), "--set", "belly=3", "-o", out);
  expect(code).toBe(1);
  expect(said).toContain("it goes to ≈ 4.2");
  expect(existsSync(out)).toBe(false);
});

it("lists what is left open, what follows, and numbers that fight with all their names", async () => {
  const plan = rocker();
  const without = saved(partOf({ ...plan, calls: plan.calls.filter(({ name }) => name !== "tap") }));
  expect(await run("true", without, "--open")).toMatchObject({
    code: 1,
    out: expect.stringContaining("x of the hole"),
  });
  expect((await run("true", saved(partOf(stepped(160, 130, 30))), "--open")).out).toContain(
    "30 other follows from 160 whole and 130 one",
  );
  const fights = await run("true", saved(partOf(stepped(160, 130, 40))), "--open", "--json");
  expect(JSON.parse(fights.out)).toMatchObject({ atOdds: ["160 whole", "130 one", "40 other"] });
});

it("what it took for not exact yet is said, and left as it is drawn where that is asked", async () => {
  const edges = [
    [0, 0],
    [100, 2],
    [98, 61],
    [-1, 60],
  ].map(([x, y]) => ({ x: x!, y: y! }));
  const outline = edges.map((a, i) => ({ name: `edge ${i}`, a, b: edges[(i + 1) % 4]!, bulge: 0 }));
  const calls = [{ name: "long", kind: "length" as const, value: 105, of: ["edge 0"] }];
  const job = saved(partOf({ unit: "mm", outlines: [outline], circles: {}, calls }));
  const [meant, drawn] = [join(folder(), "meant.ashedge.json"), join(folder(), "drawn.ashedge.json")];
  expect((await run("true", job, "-o", meant)).out).toContain("(--as-drawn)");
  expect((await run("true", job, "--as-drawn", "-o", drawn)).out).not.toContain("as-drawn)");
  // a rectangle 105 long, or the slants as they are
  const slants = (path: string): number =>
    outlineIn(path).pieces.filter(({ a, b }) => Math.min(Math.abs(b.x - a.x), Math.abs(b.y - a.y)) > 1e-9).length;
  expect([slants(meant), slants(drawn)]).toEqual([0, 4]);
});

it.each([
  [["--set", "belly"], "a callout and its number"],
  [["--set", "spoke=3"], "no callout is called spoke"],
  [["--set", "belly=wide"], "--set belly=wide"],
  [[], "needs -o"],
  [["--open", "-o", "x"], "writes nothing"],
])("%j can't be used, and it is said why", async (words, why) => {
  const out = words.includes("--set") ? ["-o", join(folder(), "out.ashedge.json")] : [];
  const { code, err } = await run("true", saved(partOf(rocker())), ...words, ...out);
  expect([code, err]).toEqual([2, expect.stringContaining(why)]);
});
