import { jsPDF } from "jspdf";
import { arcOf, piecePoint, type Piece } from "../../geometry/piece.ts";
import { subtract, type Point } from "../../geometry/point.ts";
import { toDegrees } from "../../numeric/angle.ts";
import { fontSize, type Mark, type PaperPage } from "../page.ts";

/** Points of a typographer, 72 to the inch. */
const POINTS_IN_MM = 72 / 25.4;

/** An arc of no more than this turn is a cubic curve within 8e-7 of its radius. */
const MOST_TURN = Math.PI / 6;

/** A picture of a page, by its name: its bytes and what they are. */
export type PagePicture = { readonly bytes: Uint8Array; readonly type: "PNG" | "JPEG" };

const FONT = "Lettering";

/**
 * Pages as a PDF: vectors, text that can be selected, the font embedded. `font` is a TrueType file. Arcs are cubic
 * curves of no more than 30°, off by no more than 8e-7 of their radius (4/27 sin⁶(θ/4) / cos²(θ/4), elementary). The
 * format is ISO 32000, by jsPDF.
 */
export const writePdf = (
  pages: readonly PaperPage[],
  { font, pictures = {}, title }: { font: Uint8Array; pictures?: Readonly<Record<string, PagePicture>>; title: string },
): Uint8Array => {
  const [first] = pages;
  if (!first) throw new RangeError("A document has a page");
  const size = ({ width, height }: PaperPage): [number, number] => [width, height];
  const way = ({ width, height }: PaperPage): "landscape" | "portrait" => (width > height ? "landscape" : "portrait");
  const paper = { unit: "mm", format: size(first), orientation: way(first) } as const;
  const pdf = new jsPDF({ ...paper, compress: true, putOnlyUsedFonts: true });
  pdf.addFileToVFS("lettering.ttf", binary(font));
  pdf.addFont("lettering.ttf", FONT, "normal");
  pdf.setProperties({ title, creator: "Ash Edge" });
  pages.forEach((page, i) => {
    if (i > 0) pdf.addPage(size(page), way(page));
    pdf.setFont(FONT, "normal");
    pdf.setLineCap("butt");
    for (const { clip, marks } of page.groups) {
      pdf.saveGraphicsState();
      if (clip) {
        pdf.rect(clip.minX, page.height - clip.maxY, clip.maxX - clip.minX, clip.maxY - clip.minY, null);
        pdf.clip();
        pdf.discardPath();
      }
      for (const mark of marks) draw(pdf, mark, page.height, pictures);
      pdf.restoreGraphicsState();
    }
  });
  return new Uint8Array(pdf.output("arraybuffer"));
};

const draw = (pdf: jsPDF, mark: Mark, height: number, pictures: Readonly<Record<string, PagePicture>>): void => {
  if (mark.kind === "text") {
    pdf.setFontSize(fontSize(mark.height) * POINTS_IN_MM);
    pdf.text(mark.text, mark.at.x, height - mark.at.y, { angle: toDegrees(mark.angle) });
    return;
  }
  if (mark.kind === "picture") {
    const picture = pictures[mark.name];
    const { minX, minY, maxX, maxY } = mark.box;
    if (picture) pdf.addImage(picture.bytes, picture.type, minX, height - maxY, maxX - minX, maxY - minY);
    return;
  }
  pdf.setLineWidth(mark.width);
  pdf.setLineDashPattern([...(mark.dashes ?? [])], 0);
  for (const run of runsOf(mark.pieces)) {
    const [start] = run;
    const steps = run.flatMap((piece) => curvesOf(piece).map((curve) => stepOf(curve)));
    const isClosed = mark.closed === true && run.length === mark.pieces.length;
    pdf.lines(steps, start!.a.x, height - start!.a.y, [1, 1], mark.filled ? "FD" : "S", isClosed);
  }
};

/** Pieces end to end, as one stroke; what does not go on from the last begins another. */
const runsOf = (pieces: readonly Piece[]): readonly (readonly Piece[])[] => {
  const runs: Piece[][] = [];
  for (const piece of pieces) {
    const end = runs.at(-1)?.at(-1)?.b;
    const goesOn = end && Math.hypot(end.x - piece.a.x, end.y - piece.a.y) <= 1e-9;
    if (goesOn) runs.at(-1)!.push(piece);
    else runs.push([piece]);
  }
  return runs;
};

type Curve = { readonly a: Point; readonly b: Point; readonly controls?: readonly [Point, Point] };

/** A piece as straight lines and cubic curves: the controls stand off the ends by 4/3 tan(turn / 4) of the radius. */
const curvesOf = (piece: Piece): readonly Curve[] => {
  const arc = arcOf(piece);
  if (!arc) return [piece];
  const parts = Math.max(1, Math.ceil(Math.abs(arc.sweep) / MOST_TURN));
  const turn = arc.sweep / parts;
  const off = (4 / 3) * Math.tan(turn / 4) * arc.radius;
  const at = (k: number): Point => (k === 0 ? piece.a : k === parts ? piece.b : piecePoint(piece, k / parts));
  return Array.from({ length: parts }, (_, k) => {
    const [a, b] = [at(k), at(k + 1)];
    const [from, to] = [arc.from + k * turn, arc.from + (k + 1) * turn];
    return {
      a,
      b,
      controls: [
        { x: a.x - off * Math.sin(from), y: a.y + off * Math.cos(from) },
        { x: b.x + off * Math.sin(to), y: b.y - off * Math.cos(to) },
      ],
    };
  });
};

/** A step from where the pen is, y down. */
const stepOf = ({ a, b, controls }: Curve): number[] =>
  [...(controls ?? []), b].flatMap((p) => {
    const { x, y } = subtract(p, a);
    return [x, -y];
  });

/** Bytes as a text of their codes, as jsPDF takes a font. */
const binary = (bytes: Uint8Array): string => {
  let text = "";
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return text;
};
