import { expect, test, type Page } from "@playwright/test";
import { readSvg } from "@ash-edge/core/formats/svg";
import { piecePoint, smoothOf } from "@ash-edge/core/geometry";
import type { ReadShape } from "@ash-edge/core/formats";

type Box = readonly [minX: number, minY: number, maxX: number, maxY: number];

/** A file of 160 by 120 mm that shows 160 by 120 units, unless it says otherwise. */
const file = (inside: string, root = 'width="160mm" height="120mm" viewBox="0 0 160 120"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${root}>${inside}</svg>`;
const BOX = '<rect x="10" y="20" width="30" height="15"/>';
const MARK = '<path d="M5 5h6v3z"/>';

const ALIGNS = ["xMin", "xMid", "xMax"].flatMap((x) => ["YMin", "YMid", "YMax"].map((y) => x + y));
const style = (sheet: string, inside: string): string => file(`<style>${sheet}</style>${inside}`);

/** What the standard's engine is asked of, by name. */
const FILES: readonly (readonly [name: string, svg: string])[] = [
  ...[...ALIGNS.flatMap((align) => [`${align} meet`, `${align} slice`]), "none"].map(
    (fit) =>
      [
        `nested, ${fit}`,
        file(
          `${MARK}<svg x="20" y="10" width="90" height="40" viewBox="-5 -5 40 60" ` +
            `preserveAspectRatio="${fit}" overflow="visible">${BOX}</svg>`,
        ),
      ] as const,
  ),
  ["root meet", file(`${MARK}${BOX}`, 'width="160mm" height="50mm" viewBox="0 0 80 60"')],
  [
    "root slice",
    file(`${MARK}${BOX}`, 'width="160mm" height="50mm" viewBox="0 0 80 60" preserveAspectRatio="xMinYMin slice"'),
  ],
  ["root none", file(`${MARK}${BOX}`, 'width="160mm" height="50mm" viewBox="0 0 80 60" preserveAspectRatio="none"')],
  ["height alone", file(`${MARK}${BOX}`, 'height="90mm" viewBox="0 0 80 60"')],
  ["inches and no box", file(`${MARK}${BOX}`, 'width="4in" height="3in"')],
  ["nested without a box", file(`${MARK}<svg x="30" y="5">${BOX}</svg>`)],
  [
    "nested in nested",
    file(
      `<svg x="5" y="5" width="100" height="100" viewBox="0 0 50 50">${MARK}` +
        `<svg x="10%" y="20%" width="50%" height="40%" viewBox="0 0 60 40">${BOX}</svg></svg>`,
    ),
  ],
  [
    "symbol with a box",
    file(
      `${MARK}<symbol id="s" viewBox="0 0 60 60">${BOX}</symbol><use href="#s" x="20" y="30" width="40" height="20"/>`,
    ),
  ],
  [
    "symbol without a size",
    file(
      `${MARK}<symbol id="s" viewBox="0 0 60 60" width="30" height="30">${BOX}</symbol><use xlink:href="#s" x="4"/>`,
    ),
  ],
  [
    "use of a group",
    file(
      `${MARK}<defs><g id="s" transform="translate(3 4)">${BOX}</g></defs>` +
        '<use href="#s" x="20" y="7" transform="scale(2 1)"/>',
    ),
  ],
  ...["px", "mm", "cm", "in", "pt", "pc", "Q", ""].map(
    (unit) =>
      [
        `lengths in ${unit || "numbers"}`,
        file(
          `${MARK}<rect x="2${unit}" y="1${unit}" width="5${unit}" height="3${unit}"/>` +
            `<circle cx="9${unit}" cy="2${unit}" r="1.5${unit}"/>` +
            `<line x1="0" y1="1${unit}" x2="4${unit}" y2="6${unit}"/>`,
        ),
      ] as const,
  ),
  [
    "percentages",
    file(
      '<rect x="10%" y="25%" width="50%" height="10%"/><circle cx="50%" cy="50%" r="20%"/>' +
        '<ellipse cx="20%" cy="75%" rx="10%" ry="5%"/><line x1="0%" y1="100%" x2="100%" y2="0%"/>',
    ),
  ],
  ["an ellipse with one radius", file(`${MARK}<ellipse cx="40" cy="30" rx="12"/>`)],
  ["a rectangle with one radius", file(`${MARK}<rect x="30" y="30" width="50" height="30" ry="8"/>`)],
  ["radii too large", file(`${MARK}<rect x="30" y="30" width="20" height="20" rx="18"/>`)],
  ...[
    "translate(10px, 5px)",
    "rotate(30deg)",
    "rotate(0.5rad)",
    "rotate(.1turn)",
    "scale(2)",
    "scaleX(1.5) translateY(4px)",
    "skewX(20deg)",
    "matrix(1, .2, -.3, 1.1, 4, 5)",
    "translate(10mm) rotate(10grad)",
  ].map((transform) => [`style: ${transform}`, file(`${MARK}<g style="transform: ${transform}">${BOX}</g>`)] as const),
  [
    "style over the attribute",
    file(`${MARK}<g transform="translate(50 50)" style="transform: translate(5px, 6px)">${BOX}</g>`),
  ],
  ...[
    "translate(10-5)rotate(20)",
    "translate(10,5)scale(2-1)translate(0-40)",
    "translate( 4 ,5 ) , skewY(10)",
    "rotate(45 20,30)",
    "scale(1e0.5)",
    "translate(.5.5)",
  ].map((transform) => [`transform: ${transform}`, file(`${MARK}<g transform="${transform}">${BOX}</g>`)] as const),
  ["points run together", file(`<polygon points="10,10-5,20.5.5 30-4"/><polyline points="60 60 70-10"/>`)],
  ["points with an odd one", file(`${MARK}<polyline points="10,10 40,12 50,30 7"/>`)],
  ["class hides", style(".no{display:none}", `${MARK}<g class="a no">${BOX}</g>`)],
  ["type hides", style("circle { visibility : hidden }", `${MARK}<circle cx="50" cy="50" r="9"/>`)],
  ["id over class", style("#x{display:inline}.no{display:none}", `${MARK}<g id="x" class="no">${BOX}</g>`)],
  ["the later of two", style(".a{display:none}.a{display:inline}", `${MARK}<g class="a">${BOX}</g>`)],
  ["important", style(".a{display:none!important}", `${MARK}<g class="a" style="display:inline">${BOX}</g>`)],
  [
    "below and right below",
    style(
      "g.a rect{display:none} svg > g.b > circle{display:none}",
      `${MARK}<g class="a"><g>${BOX}</g></g>` +
        '<g class="b"><circle cx="9" cy="70" r="4"/><g><circle cx="60" cy="70" r="7"/></g></g>',
    ),
  ],
  ["a sheet moves", style("rect{transform:translate(30px,10px) rotate(15deg)} /* not .b */", `${MARK}${BOX}`)],
  [
    "a list and a comment",
    style(
      "/* x */ ellipse, .no, #z { display: none; fill: red }",
      `${MARK}<g id="z">${BOX}</g>${BOX}<ellipse cx="9" cy="9" rx="4" ry="2"/>`,
    ),
  ],
  [
    "sizes by style",
    style(
      "circle{r:9px;cx:50px} .b{width:40px}",
      `${MARK}<circle cy="60"/>${BOX}<rect class="b" height="5" style="x:70px;y:4px"/>`,
    ),
  ],
  ["a sheet for print", style("@media print{path{display:none}} @media screen{rect{display:none}}", `${MARK}${BOX}`)],
  [
    "visible in a hidden group",
    file(`${MARK}<g visibility="hidden">${BOX}<g visibility="visible"><circle cx="80" cy="40" r="11"/></g></g>`),
  ],
  [
    "attribute hides",
    file(`${MARK}<g display="none">${BOX}</g><rect visibility="collapse" x="90" y="90" width="9" height="9"/>`),
  ],
  ["style over attribute", file(`${MARK}<g display="none" style="display:inline">${BOX}</g>`)],
  [
    "switch by language",
    file(
      `${MARK}<switch><g systemLanguage="fr">${BOX}</g><circle systemLanguage="en" cx="70" cy="20" r="5"/>` +
        '<rect x="1" y="1" width="2" height="2"/></switch>',
    ),
  ],
  [
    "switch by default",
    file(`${MARK}<switch><g systemLanguage="zu">${BOX}</g><rect x="50" y="50" width="20" height="8"/></switch>`),
  ],
  [
    "what is only defined",
    file(`${MARK}<defs>${BOX}</defs><clipPath id="c"><circle r="9"/></clipPath><marker>${BOX}</marker>`),
  ],
];

/** What is seen of a corner by 8 000 places along a line, and of what a browser holds in single precision (mm). */
const NEAR = 0.03;

/** The boxes of all that the browser draws, in millimetres; of what is used, of the use. */
const drawn = (page: Page, svg: string): Promise<readonly Box[]> =>
  page.evaluate((markup) => {
    document.body.style.margin = "0";
    document.body.innerHTML = markup;
    const mm = 25.4 / 96;
    const boxOf = (points: readonly DOMPoint[]): [number, number, number, number] => {
      const [xs, ys] = [points.map(({ x }) => x * mm), points.map(({ y }) => y * mm)];
      return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
    };
    const shapes = [
      ...document.querySelectorAll<SVGGraphicsElement>("path,line,rect,circle,ellipse,polyline,polygon,use"),
    ];
    return shapes.flatMap((one) => {
      // what is not drawn has no place on the page
      const isDrawn = one.checkVisibility({ visibilityProperty: true }) && one.getClientRects().length > 0;
      const isAside = one.closest("defs,symbol,clipPath,marker") !== null;
      if (!isDrawn || isAside) return [];
      const m = one.getScreenCTM()!;
      if (one instanceof SVGGeometryElement) {
        const length = one.getTotalLength();
        if (length === 0) return []; // nothing is drawn of it
        return [
          boxOf(Array.from({ length: 8001 }, (_, i) => one.getPointAtLength((length * i) / 8000).matrixTransform(m))),
        ];
      }
      const { x, y, width, height } = one.getBBox();
      return [boxOf([new DOMPoint(x, y), new DOMPoint(x + width, y + height)].map((p) => p.matrixTransform(m)))];
    });
  }, svg);

const places = (shape: ReadShape): readonly { readonly x: number; readonly y: number }[] => {
  const parts = Array.from({ length: 401 }, (_, i) => i / 400);
  switch (shape.kind) {
    case "chain":
      return shape.pieces.flatMap((piece) => parts.map((t) => piecePoint(piece, t)));
    case "piece":
      return parts.map((t) => piecePoint(shape, t));
    case "circle":
      return parts.map((t) => ({
        x: shape.centre.x + shape.radius * Math.cos(2 * Math.PI * t),
        y: shape.centre.y + shape.radius * Math.sin(2 * Math.PI * t),
      }));
    case "point":
      return [shape.at];
    default:
      return parts.map((t) => smoothOf(shape).at(t));
  }
};

/** Boxes from the least corner of all, in an order of their own. */
const settled = (boxes: readonly Box[]): readonly Box[] => {
  const [x, y] = [Math.min(...boxes.map((box) => box[0])), Math.min(...boxes.map((box) => box[1]))];
  const moved = boxes.map(([a, b, c, d]): Box => [a - x, b - y, c - x, d - y]);
  const key = (box: Box): string => box.map((value) => (Math.round(value * 10) / 10 + 1e4).toFixed(1)).join(" ");
  return moved.sort((p, q) => key(p).localeCompare(key(q)));
};

test("made SVG files are read as the browser's own engine draws them", async ({ page }) => {
  await page.setContent("<!doctype html><body></body>");
  expect(FILES.length).toBeGreaterThanOrEqual(60);
  const wrong: string[] = [];
  for (const [name, svg] of FILES) {
    const read = readSvg(svg);
    if (!read.ok) {
      wrong.push(`${name}: ${read.refusal.code}`);
      continue;
    }
    // inches are told apart here, and y is up
    const mm = read.value.unit === "in" ? 25.4 : 1;
    const ours = settled(
      read.value.shapes.map((shape): Box => {
        const [xs, ys] = [places(shape).map(({ x }) => mm * x), places(shape).map(({ y }) => -mm * y)];
        return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
      }),
    );
    const theirs = settled(await drawn(page, svg));
    const same =
      ours.length === theirs.length &&
      ours.every((box, i) => box.every((value, k) => Math.abs(value - theirs[i]![k]!) < NEAR));
    const shown = (boxes: readonly Box[]): string =>
      boxes.map((box) => box.map((value) => value.toFixed(2)).join(" ")).join(" | ");
    if (!same) wrong.push(`${name}: ${shown(ours)} where the browser has ${shown(theirs)}`);
  }
  expect(wrong).toEqual([]);
});
