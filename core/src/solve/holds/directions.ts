import { distance, midpoint } from "../../geometry/point.ts";
import { toRadians } from "../../numeric/angle.ts";
import { agree, beside, NOUGHT, turnedBy } from "../equations.ts";
import type { Edge, Model } from "../model.ts";
import { askew, derivedEdges, exactly, type Finder, type Meant, type Relation } from "./relation.ts";

const QUARTER = Math.PI / 2;
/** Lines nearer to a direction than this are meant to have it in a rough drawing. */
const ROUGHLY = toRadians(4);

type Straight = { readonly edge: Edge; readonly angle: number; readonly length: number };

const straightOf = (model: Model, meant: Meant): readonly Straight[] => {
  const derived = meant === "rough" ? derivedEdges(model) : undefined;
  return model.edges
    .filter((edge) => edge.piece.bulge === 0 && !edge.layout && !derived?.has(edge))
    .map((edge) => {
      const { a, b } = edge.piece;
      return { edge, angle: Math.atan2(b.y - a.y, b.x - a.x), length: distance(a, b) };
    })
    .filter(({ length }) => length > model.near);
};

/** How far an angle is from the nearest quarter turn. */
const offQuarter = (angle: number): number => angle - QUARTER * Math.round(angle / QUARTER);

const isMeant = (model: Model, meant: Meant, off: number, length: number): boolean =>
  meant === "exact" ? Math.abs(off) * length <= exactly(model) : Math.abs(off) <= ROUGHLY;

const middle = ({ piece }: Edge) => midpoint(piece.a, piece.b);

/** Level and upright lines; those of one slant, and square to it, by the longest of them; edges end to end in line. */
export const directions: Finder = (model, meant) => {
  const found: Relation[] = [];
  const slanted: Straight[] = [];
  const lying: Record<"level" | "upright", Straight[]> = { level: [], upright: [] };
  const turn = meant === "rough" ? askew(model) : 0;
  for (const one of straightOf(model, meant)) {
    const { edge, length } = one;
    const angle = one.angle - turn;
    if (!isMeant(model, meant, offQuarter(angle), length)) {
      slanted.push(one);
      continue;
    }
    const kind = Math.abs(Math.cos(angle)) > 0.5 ? "level" : "upright";
    const along = kind === "level" ? "y" : "x";
    lying[kind].push(one);
    found.push({ kind, refs: [edge.ref], equations: [agree(edge.a[along], edge.b[along])], at: middle(edge) });
  }
  const inLine = (kind: "level" | "upright"): readonly Relation[] =>
    meant === "exact" ? inLineAlong(model, lying[kind], kind) : [];
  return [...found, ...slants(model, meant, slanted), ...inLine("level"), ...inLine("upright")];
};

/** Lines by their slant within a quarter turn, those of one together. */
const bySlant = (model: Model, meant: Meant, lines: readonly Straight[]): readonly (readonly Straight[])[] => {
  const turned = lines.map((one) => ({ ...one, off: offQuarter(one.angle) })).sort((p, q) => p.off - q.off);
  const groups: (typeof turned)[] = [];
  for (const one of turned) {
    const before = groups.at(-1)?.at(-1);
    const isOne = before && isMeant(model, meant, one.off - before.off, Math.max(one.length, before.length));
    if (isOne) groups.at(-1)!.push(one);
    else groups.push([one]);
  }
  // what ends at a quarter turn goes on where that begins
  const [first, last] = [groups[0]?.[0], groups.at(-1)?.at(-1)];
  const comesRound =
    groups.length > 1 && isMeant(model, meant, first!.off + QUARTER - last!.off, Math.max(first!.length, last!.length));
  return comesRound ? [[...groups.at(-1)!, ...groups[0]!], ...groups.slice(1, -1)] : groups;
};

/** Lines of one direction, or square to it, each tied to the longest. */
const slants = (model: Model, meant: Meant, lines: readonly Straight[]): readonly Relation[] =>
  bySlant(model, meant, lines).flatMap((group) => {
    const longest = group.reduce((most, one) => (one.length > most.length ? one : most));
    return group.flatMap((one): readonly Relation[] => {
      if (one === longest) return [];
      const isSquare = Math.round((one.angle - longest.angle) / QUARTER) % 2 !== 0;
      const ends = ({ edge }: Straight) => [edge.a, edge.b] as const;
      return [
        {
          kind: isSquare ? "square" : "parallel",
          refs: [longest.edge.ref, one.edge.ref],
          equations: [turnedBy(ends(longest), ends(one), isSquare ? QUARTER : 0, Math.PI, one.length)],
          at: middle(one.edge),
        },
      ];
    });
  });

/** Level (or upright) edges one after another on one line, with something between them. */
const inLineAlong = (model: Model, lines: readonly Straight[], kind: "level" | "upright"): readonly Relation[] => {
  const [across, way] = kind === "level" ? (["y", "x"] as const) : (["x", "y"] as const);
  const sorted = lines.toSorted(
    (p, q) => p.edge.piece.a[across] - q.edge.piece.a[across] || p.edge.piece.a[way] - q.edge.piece.a[way],
  );
  const found: Relation[] = [];
  for (let i = 1; i < sorted.length; i++) {
    const [one, other] = [sorted[i - 1]!.edge, sorted[i]!.edge];
    if (Math.abs(one.piece.a[across] - other.piece.a[across]) > exactly(model)) continue;
    found.push({
      kind: "in line",
      refs: [one.ref, other.ref],
      equations: [agree(one.a[across], other.a[across])],
      at: midpoint(middle(one), middle(other)),
    });
  }
  return found;
};

/** Centres and corners on layout lines; in a rough drawing only centres, the nearest line each way. */
export const onGuides: Finder = (model, meant) => {
  const reach = meant === "exact" ? exactly(model) : 0.04;
  const found: Relation[] = [];
  const places = [
    ...model.rounds.map(({ ref, centre, at }) => ({ refs: [ref], spot: centre, at })),
    ...(meant === "exact"
      ? model.edges.flatMap(({ ref, a, b, piece }) => [
          { refs: [{ ...ref, place: "start" } as const], spot: a, at: piece.a },
          { refs: [{ ...ref, place: "end" } as const], spot: b, at: piece.b },
        ])
      : []),
  ];
  const seen = new Map<unknown, Set<number>>();
  for (const { refs, spot, at } of places) {
    const taken: { readonly slant: number; readonly off: number; readonly guide: number }[] = [];
    model.guides.forEach(({ at: through, angle }, guide) => {
      const off = Math.cos(angle) * (at.y - through.y) - Math.sin(angle) * (at.x - through.x);
      if (Math.abs(off) <= reach) taken.push({ slant: angle, off: Math.abs(off), guide });
    });
    taken.sort((p, q) => p.off - q.off);
    const own = seen.get(spot.x) ?? new Set<number>();
    seen.set(spot.x, own);
    for (const { slant, guide } of taken.slice(0, 2)) {
      if (own.has(guide) || own.size >= 2) continue;
      if ([...own].some((one) => Math.abs(Math.sin(model.guides[one]!.angle - slant)) < 0.1)) continue;
      own.add(guide);
      const { ref, at: through, angle } = model.guides[guide]!;
      const isLevel = Math.abs(Math.sin(angle)) < 1e-12;
      const isUpright = Math.abs(Math.cos(angle)) < 1e-12;
      const line = model.lineOf(ref)!;
      const equation = isLevel
        ? agree(spot.y, { at: [], by: [], plus: through.y })
        : isUpright
          ? agree(spot.x, { at: [], by: [], plus: through.x })
          : beside(line[0], line[1], spot, NOUGHT);
      found.push({ kind: "on", refs: [...refs, ref], equations: [equation], at });
    }
  }
  return found;
};
