// Draws what came with the messages of the stand-in mailbox, and writes the messages beside it: server/inbox/.
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import type { ReadShape } from "@ash-edge/core/formats";
import { writeShapes } from "@ash-edge/core/formats/dxf";
import { arcBetween, line, type Piece } from "@ash-edge/core/geometry";
import { takePencil } from "./pencil.ts";
import { LETTERING, openBrowser, paperPage, type Drawn } from "./paper.ts";

const target = join(dirname(dirname(dirname(fileURLToPath(import.meta.url)))), "server", "inbox");

/** A flange with six holes, pencilled. */
const flange = (): Drawn => {
  const pencil = takePencil(611);
  const [ox, oy, mm] = [520, 420, 3.6];
  pencil.circle(ox, oy, 75 * mm);
  pencil.circle(ox, oy, 31 * mm);
  for (let i = 0; i < 6; i++) {
    const turn = (i * Math.PI) / 3;
    pencil.circle(ox + 61 * mm * Math.cos(turn), oy + 61 * mm * Math.sin(turn), 5.5 * mm);
  }
  pencil.centreLine(ox - 340, oy, ox + 340, oy);
  pencil.centreLine(ox, oy - 330, ox, oy + 330);
  pencil.leader(ox + 390, oy - 250, ox + 53 * mm, oy - 53 * mm);
  pencil.leader(ox + 60, oy + 46, ox + 22 * mm, oy + 22 * mm);
  pencil.leader(ox - 340, oy - 300, ox - 33 * mm, oy - 55 * mm);
  pencil.text(ox + 440, oy - 276, "Ø 150");
  pencil.text(ox + 6, oy + 34, "Ø 62");
  pencil.text(ox - 330, oy - 326, "6 x Ø 11 on Ø 122");
  pencil.text(220, 800, "SIGHT GLASS FLANGE", 38);
  return { svg: pencil.svg(), width: 1120, height: 860 };
};

/** A sill with two rounded corners and a groove, pencilled. */
const sill = (): Drawn => {
  const pencil = takePencil(612);
  const [x, y, mm] = [120, 260, 0.62];
  const [w, d, r] = [920 * mm, 210 * mm, 25 * mm];
  pencil.line(x, y, x + w, y);
  pencil.line(x, y, x, y + d - r);
  pencil.line(x + w, y, x + w, y + d - r);
  pencil.line(x + r, y + d, x + w - r, y + d);
  pencil.arc(x + r, y + d - r, r, Math.PI / 2, Math.PI);
  pencil.arc(x + w - r, y + d - r, r, 0, Math.PI / 2);
  const thin = { strokeWidth: 1.3 };
  for (const off of [25, 33]) pencil.line(x + 20, y + d - off * mm, x + w - 20, y + d - off * mm, thin);
  pencil.dimension(x, y - 60, x + w, y - 60);
  pencil.dimension(x + w + 60, y, x + w + 60, y + d);
  pencil.text(x + w / 2, y - 88, "920");
  pencil.text(x + w + 92, y + d / 2, "210", 34, -90);
  pencil.text(x + 70, y + d + 40, "R 25 both");
  pencil.text(x + w / 2 + 110, y + d + 40, "groove 8, 25 from front", 28);
  return { svg: pencil.svg(), width: 820, height: 580 };
};

const LETTER = `<!doctype html><style>${LETTERING} @page { margin: 0; size: 820px 580px; }
body { margin: 70px; font: 24px/1.5 Kalam; color: #3d4148; }</style>
<h1 style="font-size:34px">Tolverne Stoneworks</h1>
<p>To Quillmere Cutting Works</p><p>Please find the sill for the goods office drawn on the next page.
Slate, as before. We fetch it ourselves.</p>`;

const at = (x: number, y: number): { x: number; y: number } => ({ x, y });

/** A bracket 120 by 80 with rounded corners, a slot and two holes; one side is in the file twice. */
const bracket = (): string => {
  const [w, h, r] = [120, 80, 6];
  const sides: Piece[] = [
    line(at(r, 0), at(w - r, 0)),
    arcBetween(at(w - r, 0), at(w, r), at(w - r, r), true),
    line(at(w, r), at(w, h - r)),
    arcBetween(at(w, h - r), at(w - r, h), at(w - r, h - r), true),
    line(at(w - r, h), at(r, h)),
    arcBetween(at(r, h), at(0, h - r), at(r, h - r), true),
    line(at(0, h - r), at(0, r)),
    arcBetween(at(0, r), at(r, 0), at(r, r), true),
    line(at(40, 25.5), at(80, 25.5)),
    arcBetween(at(80, 25.5), at(80, 34.5), at(80, 30), true),
    line(at(80, 34.5), at(40, 34.5)),
    arcBetween(at(40, 34.5), at(40, 25.5), at(40, 30), true),
  ];
  const shapes: ReadShape[] = [...sides, sides[2]!].map((piece) => ({ kind: "piece", layer: "BRACKET", ...piece }));
  for (const x of [20, 100]) shapes.push({ kind: "circle", layer: "BRACKET", centre: at(x, 62), radius: 4.5 });
  return writeShapes(shapes, "mm");
};

const MESSAGES = [
  {
    id: "flange",
    from: "Marram Lane Dairy",
    subject: "Sight glass flange",
    date: "2026-11-30",
    text:
      "Please quote for two flanges like the photo, 10 mm thick, stainless.\n\nOutside Ø 150, bore Ø 62, " +
      "six holes Ø 11 on a Ø 122 circle.\n\nOur order no. is 5521, needed by 2027-02-08.",
    attachments: [{ name: "flange.jpg", type: "image/jpeg" }],
  },
  {
    id: "sill",
    from: "Tolverne Stoneworks",
    subject: "Goods office sill",
    date: "2026-11-27",
    text:
      "The sill is on page 2 of what is attached: 920 wide, 210 deep, 30 mm slate slab, front corners R 25.\n\n" +
      "The groove is 8 wide and 25 from the front.",
    attachments: [{ name: "goods-office-sill.pdf", type: "application/pdf" }],
  },
  {
    id: "bracket",
    from: "Fernhollow line, carriage shed",
    subject: "Fan bracket, file attached",
    date: "2026-11-26",
    text:
      "Here is the bracket as our draughting office has it; 4 off, please. The slot must be 9 wide and 40 centres, " +
      "with corners R 6 and two Ø 9 holes, whatever the file says.",
    attachments: [{ name: "fan-bracket.dxf", type: "application/dxf" }],
  },
  {
    id: "lever",
    from: "Pikehole Boilerworks",
    subject: "Can you cut a lever?",
    date: "2026-11-24",
    text:
      "Do you cut 5/8 in plate? We would want a lever 14-1/2 in between centres, bosses R 1-1/4 and two holes " +
      "Ø 1 in, with a 3/8-16 tapped hole in the middle. Nothing is drawn yet: what do you need of us?",
    attachments: [],
  },
];

mkdirSync(target, { recursive: true });
const browser = await openBrowser();
const photo = await browser.newPage({ viewport: { width: 1120, height: 860 } });
await photo.setContent(paperPage(flange(), true));
await photo.evaluate(() => document.fonts.ready);
await photo.screenshot({ path: join(target, "flange.jpg"), type: "jpeg", quality: 82 });
const page = await browser.newPage();
const drawn = sill();
await page.setContent(
  `${LETTER}<div style="break-before: page; margin: -70px">` +
    `<svg viewBox="0 0 ${drawn.width} ${drawn.height}" width="${drawn.width}" height="${drawn.height}">` +
    `${drawn.svg}</svg></div>`,
);
await page.evaluate(() => document.fonts.ready);
await page.pdf({ path: join(target, "goods-office-sill.pdf"), preferCSSPageSize: true, printBackground: true });
await browser.close();
writeFileSync(join(target, "fan-bracket.dxf"), bracket());
writeFileSync(join(target, "messages.json"), `${JSON.stringify({ messages: MESSAGES }, null, 2)}\n`);
console.log(`${MESSAGES.length} messages written into server/inbox`);
