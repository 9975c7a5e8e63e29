import type { Point } from "../../geometry/point.ts";
import type { ReadLeader } from "../readShapes.ts";
import { pointsOf, sound, textOf, type Groups } from "./records.ts";
import { plainWords } from "./words.ts";

/** No drawing that anyone reads has more leaders, or words that they could have. */
const MOST = 20_000;

type Bare = { readonly tip: Point; readonly line: Point; readonly words: string };

/**
 * The leaders of a file and the words that they name by their handles, which may come before or after them. Each is
 * told as it comes; what belongs together is known at the end.
 */
export class Leaders {
  private readonly leaders: Bare[] = [];
  private readonly words = new Map<string, string>();

  /** Takes a LEADER that names words; false where it names none or has no two sound points. */
  leader(groups: Groups): boolean {
    const points = pointsOf(groups, 10);
    const [tip, line, words] = [points[0], points.at(-1), handleOf(groups, 340)];
    if (points.length < 2 || !points.every((p) => sound(p.x) && sound(p.y)) || words === undefined) return false;
    if (this.leaders.length >= MOST) return false;
    this.leaders.push({ tip: tip!, line: line!, words });
    return true;
  }

  /** Remembers the words of a TEXT or an MTEXT; long ones come in parts. */
  text(groups: Groups, type: "TEXT" | "MTEXT"): void {
    const handle = handleOf(groups, 5);
    if (handle === undefined || this.words.size >= MOST) return;
    let all = "";
    for (let i = 0; i < groups.count; i++) if (groups.code(i) === 3 && type === "MTEXT") all += groups.text(i);
    this.words.set(handle, plainWords(all + (textOf(groups, 1) ?? ""), type));
  }

  /** Notes: words with all leaders that name them. How many texts are used so, and how many leaders have none. */
  found(): { readonly leaders: readonly ReadLeader[]; readonly texts: number; readonly bare: number } {
    const notes = new Map<string, { tips: Point[]; line: Point; text: string }>();
    let bare = 0;
    for (const { tip, line, words } of this.leaders) {
      const text = this.words.get(words);
      const note = notes.get(words);
      if (!text) bare += 1;
      else if (note) note.tips.push(tip);
      else notes.set(words, { tips: [tip], line, text });
    }
    return { leaders: [...notes.values()], texts: notes.size, bare };
  }
}

const handleOf = (groups: Groups, code: number): string | undefined => textOf(groups, code)?.toUpperCase();
