import { exampleBox } from "../example/exampleShapes.ts";
import { arcsByRadius, bowTowards } from "@ash-edge/core/construct";
import { curveAt } from "@ash-edge/core/drawing";
import { bendPiece } from "@ash-edge/core/edits";
import { distance, pieceRadius, type Piece, type Point } from "@ash-edge/core/geometry";
import { done, refuse, RESOLUTION } from "@ash-edge/core/numeric";
import { linkCallout } from "../linking.ts";
import { pieceShape } from "../making.ts";
import { nothing, refused, type Tool } from "../tool.ts";

/**
 * The one of a radius' arcs that bows to the side of `to`: the short way, unless the pointer lies beyond the half
 * circle.
 */
const bowByRadius = ({ a, b }: Piece, radius: number, to: Point) => {
  const arcs = arcsByRadius(a, b, radius);
  if (!arcs.ok) return arcs;
  const wanted = bowTowards(a, b, to).bulge;
  const side = arcs.value.filter(({ bulge }) => bulge > 0 === wanted > 0);
  const [best] = side.sort((p, q) => Math.abs(p.bulge - wanted) - Math.abs(q.bulge - wanted));
  return { ok: true as const, value: best ?? arcs.value[0]! };
};

export const bow: Tool = {
  kind: "tool",
  id: "bow",
  name: "Bow",
  help:
    "Click a line or an arc, loose or in a chain, then pull it into the arc you want: its R is shown, and can be " +
    "typed. Its ends stay.",
  drawing: ["M4 17 A11 11 0 0 1 20 17", "M4 17 L20 17 M12 17 L12 12 M10 14 L12 11.5 L14 14"],
  example: {
    cut: [exampleBox(0, 0, 70, 40)],
    clicks: [
      [35, 40],
      [35, 55],
    ],
  },
  parts: [
    { kind: "pick", name: "piece", label: "line or arc", takes: "curve" },
    { kind: "words", text: "into an arc with" },
    { kind: "size", name: "size", first: "R" },
    { kind: "pick", name: "to", label: "bowed to", takes: "point", silent: true },
  ],
  propose: (given, { drawing }) => {
    const { piece: picked } = given.picks;
    const curve = picked?.ref && curveAt(drawing, picked.ref);
    const to = given.picks.to?.at ?? given.pointer;
    if (!picked?.ref || !curve || !to || !given.isFirm("piece")) return nothing;
    if (curve.kind !== "piece") return refused(refuse("not-a-piece"));
    const radius = given.radius("size");
    const made =
      radius === undefined
        ? { ok: true as const, value: bowTowards(curve.a, curve.b, to) }
        : bowByRadius(curve, radius, to);
    if (!made.ok) return refused(made);
    if (Math.abs(made.value.bulge) * distance(curve.a, curve.b) <= RESOLUTION) return nothing;
    const bent = bendPiece(drawing, picked.ref, made.value.bulge, "Bow");
    if (!bent.ok) return refused(bent);
    const link = given.callout("size");
    return {
      ways: [
        {
          preview: [{ shape: pieceShape(made.value) }],
          edit: () => done(bendPieceLinked(bent.value, link, picked.ref!)),
        },
      ],
      ...(radius === undefined ? { live: { size: pieceRadius(made.value) } } : {}),
    };
  },
};

type Bent = Extract<ReturnType<typeof bendPiece>, { ok: true }>["value"];
const bendPieceLinked = (
  bent: Bent,
  callout: Parameters<typeof linkCallout>[1],
  ref: Parameters<typeof linkCallout>[2][number],
) => bent((draft) => linkCallout(draft, callout, [ref]));
