// Draws docs/architecture.svg from the imports that are really there: `npm run architecture`.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const WORDS: Readonly<Record<string, string>> = {
  ...(JSON.parse(readFileSync(join(root, "core", "rooms.json"), "utf8")) as Record<string, string>),
  tools: "the tools and their driver: pure, they choose",
  cli: "ash-edge, the command line",
  server: "serves the built application",
  web: "the page: board, panels, store, workers",
};
const ROOMS = Object.keys(WORDS).filter((node) => !["tools", "cli", "server", "web"].includes(node));
const FLOORS = ["core", "tools", "cli", "server", "web"] as const;

const sources = (folder: string): readonly string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name) && !/\.test\.|\.d\.ts$/.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name));

/** The node of the picture that a file belongs to: a room of the core, or a floor. */
const nodeOf = (file: string): string | undefined => {
  const [floor, src, room] = relative(root, file).split("/");
  if (floor !== "core") return FLOORS.find((one) => one === floor);
  return src === "src" ? ROOMS.find((one) => one === room) : undefined;
};

const targetOf = (from: string, spec: string): string | undefined => {
  const own = /^@ash-edge\/(core\/([\w-]+)|tools)/.exec(spec);
  if (own) return own[2] ?? "tools";
  return spec.startsWith(".") ? nodeOf(resolve(dirname(from), spec)) : undefined;
};

const NODES = [...ROOMS, "tools", "cli", "server", "web"];
const counts = new Map<string, number>();
const files = new Map<string, number>();
for (const floor of FLOORS)
  for (const file of sources(join(root, floor, "src"))) {
    const from = nodeOf(file);
    if (!from) continue;
    files.set(from, (files.get(from) ?? 0) + 1);
    for (const [, spec] of readFileSync(file, "utf8").matchAll(/\bfrom "([^"]+)"/g)) {
      const to = targetOf(file, spec!);
      if (to && to !== from) counts.set(`${from} ${to}`, (counts.get(`${from} ${to}`) ?? 0) + 1);
    }
  }

const [ROW, LEFT, BOX] = [26, 400, 130];
const y = (node: string): number => 30 + (NODES.length - 1 - NODES.indexOf(node)) * ROW;
const arcs = [...counts]
  .map(([key, count]) => ({ from: key.split(" ")[0]!, to: key.split(" ")[1]!, count }))
  .map(({ from, to, count }) => {
    const down = NODES.indexOf(to) < NODES.indexOf(from);
    const [y0, y1] = [y(from), y(to)];
    const reach = 14 + Math.abs(y1 - y0) * 0.45;
    const [x, side] = down ? [LEFT + BOX, 1] : [LEFT, -1];
    const width = Math.min(5, 0.6 + Math.log2(count) * 0.6).toFixed(2);
    const path = `M${x} ${y0} C${x + side * reach} ${y0} ${x + side * reach} ${y1} ${x} ${y1}`;
    return (
      `<path d="${path}" fill="none" stroke="${down ? "#5b6b73" : "#a8231c"}" stroke-width="${width}" ` +
      `opacity="0.45"/>`
    );
  });
const boxes = NODES.map((node) => {
  const tone = ROOMS.includes(node) ? "#fbfaf7" : "#f3e3d8";
  const text = `<text x="${LEFT + 10}" y="${y(node) + 5}">${node}</text>`;
  const count =
    `<text x="${LEFT + BOX - 10}" y="${y(node) + 5}" text-anchor="end" ` + `fill="#636a70">${files.get(node)}</text>`;
  const box =
    `<rect x="${LEFT}" y="${y(node) - 11}" width="${BOX}" height="22" rx="4" ` + `fill="${tone}" stroke="#d3cdc0"/>`;
  const words =
    `<text x="${LEFT - 12}" y="${y(node) + 5}" text-anchor="end" fill="#636a70" ` +
    `font-size="12">${WORDS[node]}</text>`;
  return box + text + count + words;
});
const height = 40 + NODES.length * ROW;
const upwards = [...counts.keys()].filter((key) => {
  const [from, to] = key.split(" ") as [string, string];
  return NODES.indexOf(to) > NODES.indexOf(from);
});
const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 800 ${height}"
 font-family="sans-serif" font-size="13">
<rect width="800" height="${height}" fill="#ffffff"/>
<text x="${LEFT + BOX + 12}" y="14" fill="#636a70" font-size="12">
what it uses below it, by the number of imports; above it: ${upwards.length}</text>
${arcs.join("\n")}
${boxes.join("\n")}
</svg>
`;
writeFileSync(join(root, "docs", "architecture.svg"), svg);
console.log(`docs/architecture.svg: ${counts.size} ways, ${upwards.length} of them upwards ${upwards.join(", ")}`);
