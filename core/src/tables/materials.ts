import { readTypedValue } from "../numeric/typedValue.ts";
import type { Unit } from "../numeric/units.ts";

/** A material by its names, with its density in kg/m³. */
export type Material = { readonly name: string; readonly also: readonly string[]; readonly density: number };

/** Densities from memory of handbooks, common practice; stone, wood and sheets vary by some per cent. */
export const MATERIALS: readonly Material[] = [
  { name: "steel", also: ["mild steel", "plate", "s235", "s355"], density: 7850 },
  { name: "stainless steel", also: ["stainless", "1.4301", "304", "316"], density: 7930 },
  { name: "cast iron", also: ["grey iron"], density: 7200 },
  { name: "aluminium", also: ["aluminum", "alu", "5083", "6061"], density: 2700 },
  { name: "brass", also: ["cuzn39pb3"], density: 8470 },
  { name: "bronze", also: ["cusn8"], density: 8800 },
  { name: "copper", also: [], density: 8940 },
  { name: "lead", also: [], density: 11340 },
  { name: "granite", also: ["stone"], density: 2700 },
  { name: "slate", also: [], density: 2800 },
  { name: "marble", also: ["limestone"], density: 2700 },
  { name: "quartz stone", also: ["quartz composite"], density: 2400 },
  { name: "glass", also: [], density: 2500 },
  { name: "gasket sheet", also: ["gasket", "fibre gasket"], density: 1800 },
  { name: "rubber", also: ["nbr", "epdm"], density: 1300 },
  { name: "cork", also: [], density: 240 },
  { name: "PTFE", also: [], density: 2180 },
  { name: "acrylic", also: ["pmma"], density: 1190 },
  { name: "polyethylene", also: ["hdpe", "pe"], density: 950 },
  { name: "plywood", also: ["birch plywood"], density: 680 },
  { name: "oak", also: [], density: 700 },
  { name: "MDF", also: [], density: 750 },
];

/**
 * The thinnest wall that a material of some thickness is asked for, in thicknesses: brittle ones break where metal
 * stands. Common practice; a job may ask for another.
 */
const WALL_PARTS: readonly (readonly [part: number, names: ReadonlySet<string>])[] = [
  [2, new Set(["granite", "slate", "marble", "quartz stone", "glass"])],
  [0.5, new Set(["rubber", "cork", "gasket sheet", "PTFE"])],
];

/** The thinnest wall of a material, in the unit of its thickness. */
export const leastWall = (material: string, thickness: number): number => {
  const name = findMaterial(material)?.name ?? "";
  return thickness * (WALL_PARTS.find(([, names]) => names.has(name))?.[0] ?? 1);
};

/** The material that a job's words name: the one with the longest name in them; undefined where none is known. */
export const findMaterial = (words: string): Material | undefined => {
  const text = ` ${words.toLowerCase().replace(/[^a-z0-9.]+/g, " ")} `;
  let best: { material: Material; size: number } | undefined;
  for (const material of MATERIALS)
    for (const name of [material.name, ...material.also])
      if (text.includes(` ${name.toLowerCase()} `) && name.length > (best?.size ?? 0))
        best = { material, size: name.length };
  return best?.material;
};

const METRES = { mm: 1e-3, in: 0.0254 } as const;

/**
 * The weight in kg of an area in the job's unit squared, from the job's words for material and thickness; undefined
 * where they tell none.
 */
export const weightOf = (area: number, unit: Unit, material: string, thickness: string): number | undefined => {
  const found = findMaterial(material);
  const thick = thicknessOf(thickness, unit);
  return found && thick && area * METRES[unit] ** 2 * thick * METRES[unit] * found.density;
};

/** A job's words for its thickness in its unit; undefined where they tell none. */
export const thicknessOf = (words: string, unit: Unit): number | undefined => {
  const read = readTypedValue(words.replace(/\.$/, ""), { unit, expects: "length" });
  return read.ok && read.value.value > 0 ? read.value.value : undefined;
};
