// Reads, tidies and writes a soup of as many lines as asked, in a process of its own: ms of each step and the most
// memory, as JSON.
import { shapesOf, thingsOf } from "@ash-edge/core/formats";
import { readDxf, writeShapes } from "@ash-edge/core/formats/dxf";
import { tidy } from "@ash-edge/core/tidy";
import { SOUP_OPTIONS, soupText } from "./soup.ts";

const text = soupText(Number(process.argv[2]));
const clock: number[] = [performance.now()];
const read = readDxf(text);
if (!read.ok) throw new Error(read.refusal.code);
clock.push(performance.now());
const { things } = tidy(thingsOf(read.value).things, SOUP_OPTIONS);
clock.push(performance.now());
writeShapes(shapesOf(things), "mm");
clock.push(performance.now());
const [reading, tidying, writing] = clock.slice(1).map((at, i) => at - clock[i]!);
console.log(JSON.stringify({ reading, tidying, writing, memory: process.resourceUsage().maxRSS * 1024 }));
