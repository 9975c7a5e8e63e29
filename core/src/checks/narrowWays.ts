import { narrowPlaces, type NarrowPlace } from "../contour/narrowPlaces.ts";
import { leastWall } from "../tables/materials.ts";
import { lengthIn, slackOf, type Check, type Fault, type Subject } from "./check.ts";

/** The thinnest wall that is asked for: as the job says, else by material and thickness; undefined where neither. */
export const wallLimit = ({ making, stock }: Pick<Subject, "making" | "stock">): number | undefined =>
  making.wall ?? (stock.thickness === undefined ? undefined : leastWall(stock.material, stock.thickness));

const placesIn = (
  { profile, drawing }: Subject,
  of: NarrowPlace["of"],
  limit: number,
): readonly (NarrowPlace & { ids: Fault["ids"] })[] => {
  const cut = profile.contours.flatMap((one) => (one.role === "mark" ? [] : [{ ...one, role: one.role }]));
  const slack = slackOf(drawing);
  return narrowPlaces(cut, limit)
    .filter((place) => place.of === of && place.length < limit - slack)
    .map((place) => ({ ...place, ids: [...new Set(place.boundaries.flatMap((i) => cut[i]!.ids))] }));
};

/** Walls between contours, and within one, that are thinner than the material stands. */
export const thinWalls: Check = {
  id: "walls",
  name: "No wall too thin",
  source: "Common practice: one thickness in metal and wood, two in stone and glass, half in rubber and gasket sheet.",
  slow: true,
  find: (subject) => {
    const limit = wallLimit(subject);
    if (limit === undefined) return [];
    return placesIn(subject, "material", limit).map(({ from, to, length, ids }) => ({
      code: "thin-wall",
      severity: "warning",
      at: from,
      to,
      ids,
      values: { length, limit },
    }));
  },
  says: {
    "thin-wall": ({ length, limit }, unit) =>
      `A wall is only ${lengthIn(length, unit)} ${unit} thick; ${lengthIn(limit, unit)} is asked for.`,
  },
};

/** Strips of waste between contours, or within one, that the tool does not fit into. */
export const narrowSlots: Check = {
  id: "slots",
  name: "The tool fits everywhere",
  source: "Definition: a tool of some width needs that width.",
  slow: true,
  find: (subject) => {
    const { tool } = subject.making;
    if (!tool) return [];
    return placesIn(subject, "waste", tool.diameter).map(({ from, to, length, ids }) => ({
      code: "narrow-slot",
      severity: "error",
      at: from,
      to,
      ids,
      values: { length, tool: tool.name, diameter: tool.diameter },
    }));
  },
  says: {
    "narrow-slot": ({ length, tool, diameter }, unit) =>
      `Only ${lengthIn(length, unit)} ${unit} of room here: ${tool} (${lengthIn(diameter, unit)}) does not fit.`,
  },
};
