import { arcsByPicks } from "@ash-edge/core/construct";
import { curveAt, draftEdit, entityOf, type Drawing, type EditDraft, type Ref } from "@ash-edge/core/drawing";
import { curveNearest, partOfPiece, pieceNearest, type Curve, type Piece, type Point } from "@ash-edge/core/geometry";
import { refuse, RESOLUTION } from "@ash-edge/core/numeric";
import { linkCallout } from "./linking.ts";
import { touchingTwo } from "./roundTools.ts";
import { nothing, refused, type PreviewShape, type Tool } from "./tool.ts";

const touches = (curve: Curve, at: Point): boolean =>
  curve.kind !== "piece" || curve.bulge === 0 || curveNearest(curve, at).distance <= RESOLUTION;

/** A single piece run or cut to the touching point, keeping the side that was picked; circles and chains stay as they are. */
const trimmedTo = (curve: Curve, picked: Point, touch: Point): Piece | undefined => {
  if (curve.kind !== "piece") return undefined;
  const t = pieceNearest(curve, touch).t;
  const end = curve.bulge === 0 && (t === 0 || t === 1) ? (t === 0 ? "a" : "b") : undefined;
  if (end) return { ...curve, [end]: touch }; // the line is prolonged to the touching point
  return pieceNearest(curve, picked).t < t
    ? partOfPiece(curve, 0, t, undefined, touch)
    : partOfPiece(curve, t, 1, touch, undefined);
};

const trim = (drawing: Drawing, draft: EditDraft, ref: Ref, piece: Piece | undefined): void => {
  const entity = entityOf(drawing, ref.id);
  if (piece && entity?.kind === "piece") draft.replace({ ...entity, a: piece.a, b: piece.b, bulge: piece.bulge });
};

export const tangentArc: Tool = {
  kind: "tool",
  id: "tangent-arc",
  name: "Tangent arc",
  bank: "KeyR",
  help: "Pick two of line, circle, arc and ellipse, each near where the arc should touch, with R or Ø typed. Space shows the next solution: outside or inside, short or long way round. Single lines and arcs are trimmed to it if wanted; circles stay whole.",
  drawing: ["M5 9 Q12 16 19 9", "M9 6 A4 4 0 1 1 1 6 A4 4 0 1 1 9 6 M23 6 A4 4 0 1 1 15 6 A4 4 0 1 1 23 6"],
  parts: [
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "line or circle", takes: "curve" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "line or circle", takes: "curve" },
    { kind: "words", text: "with" },
    { kind: "size", name: "size", first: "R" },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "trim",
      label: "edges",
      options: [
        ["trim", "trim both"],
        ["keep", "keep"],
      ],
    },
  ],
  propose: (given, { drawing, layer }) => {
    const { from, to } = given.picks;
    const radius = given.radius("size");
    if (!from?.ref || !to?.ref || !given.isFirm("from")) return nothing;
    if (radius === undefined)
      return given.isFirm("to") ? refused(refuse("value-empty")) : { ways: [], note: "Type R or Ø" };
    const [a, b] = [curveAt(drawing, from.ref), curveAt(drawing, to.ref)];
    if (!a || !b) return refused(refuse("not-a-curve"));
    const found = touchingTwo(a, b, radius, from.at, to.at);
    if (!found.ok) return refused(found);
    const arcs = arcsByPicks(
      found.value.filter(({ onA, onB }) => touches(a, onA) && touches(b, onB)),
      from.at,
      to.at,
    );
    if (arcs.length === 0) return refused(refuse("no-tangent"));
    const [refA, refB] = [from.ref, to.ref];
    const ways = arcs.map((arc) => {
      const trimming = given.choice("trim") === "trim";
      const [pieceA, pieceB] = trimming ? [trimmedTo(a, from.at, arc.a), trimmedTo(b, to.at, arc.b)] : [];
      const shape = { kind: "piece", a: arc.a, b: arc.b, bulge: arc.bulge } as const;
      const preview: PreviewShape[] = [{ shape }];
      const edit = () => {
        const draft = draftEdit(drawing, "Tangent arc", "tangent-arc");
        trim(drawing, draft, refA, pieceA);
        trim(drawing, draft, refB, pieceB);
        const id = draft.add(shape, layer);
        linkCallout(draft, given.callout("size"), [{ id }]);
        return draft.finish();
      };
      return { preview, edit };
    });
    return { ways };
  },
};
