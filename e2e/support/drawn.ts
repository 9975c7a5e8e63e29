import { noDemo } from "./demo.ts";
import { typeOver, type Bench, type Place } from "./bench.ts";

export type Vertex = { readonly at: Place; readonly bulge: number };
/** A row of the drawing as it is saved to a file. */
export type Row = {
  readonly id: number;
  readonly kind: string;
  readonly layer: number;
  readonly closed?: boolean;
  readonly vertices?: readonly Vertex[];
  readonly a?: Place;
  readonly b?: Place;
  readonly bulge?: number;
  readonly centre?: Place;
  readonly radius?: number;
  readonly at?: Place;
};

export const rowsOf = async (bench: Bench): Promise<readonly Row[]> =>
  (JSON.parse(await bench.content()) as { entity: Row[] }).entity;

/** The closed chains of the drawing, largest first, each with its length and its area. */
export const contoursOf = (
  rows: readonly Row[],
): readonly { readonly row: Row; readonly length: number; readonly area: number }[] =>
  rows
    .filter(({ kind, closed }) => kind === "chain" && closed)
    .map((row) => ({ row, ...measured(row.vertices!) }))
    .sort((p, q) => q.area - p.area);

/**
 * Length and area of a closed chain, side by side: sweep = 4 atan bulge, r = c (1 + b²) / 4|b|, and the circular
 * segment r² (sweep - sin sweep) / 2 (Machinery's Handbook), over the shoelace formula.
 */
export const measured = (vertices: readonly Vertex[]): { readonly length: number; readonly area: number } => {
  let [length, area] = [0, 0];
  vertices.forEach(({ at: a, bulge }, i) => {
    const b = vertices[(i + 1) % vertices.length]!.at;
    const chord = Math.hypot(b.x - a.x, b.y - a.y);
    area += (a.x * b.y - a.y * b.x) / 2;
    if (bulge === 0) return void (length += chord);
    const sweep = 4 * Math.atan(bulge);
    const radius = (chord * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
    length += radius * Math.abs(sweep);
    area += ((radius * radius) / 2) * (sweep - Math.sin(sweep));
  });
  return { length, area: Math.abs(area) };
};

/**
 * The area and length of a closed run given by its corners and, side by side, the radius of an arc (0: straight; left
 * turn positive).
 */
export const closedForm = (
  corners: readonly Place[],
  radii: readonly number[],
): { readonly length: number; readonly area: number } => {
  let [length, area] = [0, 0];
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length]!;
    const chord = Math.hypot(b.x - a.x, b.y - a.y);
    area += (a.x * b.y - a.y * b.x) / 2;
    const r = radii[i]!;
    if (r === 0) return void (length += chord);
    const sweep = 2 * Math.asin(chord / 2 / Math.abs(r));
    length += Math.abs(r) * sweep;
    area += (Math.sign(r) * r * r * (sweep - Math.sin(sweep))) / 2;
  });
  return { length, area: Math.abs(area) };
};

/** A new job, by the dialog. */
export const newJob = async (bench: Bench, number: string, unit: "mm" | "in" = "mm", thickness = ""): Promise<void> => {
  const { page } = bench;
  await noDemo(page);
  await page.goto("/jobs");
  await page.getByRole("button", { name: "New job" }).click();
  const dialog = page.getByRole("dialog", { name: "New job" });
  await typeOver(dialog.getByLabel("Part"), `Part ${number}`);
  await typeOver(dialog.getByLabel("Job number"), number);
  await dialog.getByRole("radio", { name: unit, exact: true }).click();
  if (thickness) await typeOver(dialog.getByLabel("Thickness"), thickness);
  await dialog.getByRole("button", { name: "Make the job" }).click();
  await bench.ready();
};

/** Types a point into the lit point blank: x and y from the datum. */
export const typePoint = async (bench: Bench, blank: string, { x, y }: Place): Promise<void> => {
  const { page } = bench;
  await page.getByRole("textbox", { name: blank, exact: true }).click();
  await typeOver(page.getByRole("textbox", { name: "x", exact: true }), String(x));
  await typeOver(page.getByRole("textbox", { name: "y", exact: true }), String(y));
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
};
