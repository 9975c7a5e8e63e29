import type { Bounds } from "@ash-edge/core/geometry";
import { fontSize, type Mark, type PaperPage } from "@ash-edge/core/sheet";
import { piecesPath } from "../store/index.ts";

/** A page as an SVG draws it: lines of one look as one path. Places in mm from the lower left corner, y up. */
export type ShownPage = {
  readonly width: number;
  readonly height: number;
  readonly groups: readonly {
    readonly clip?: Bounds;
    readonly moves: boolean;
    readonly paths: readonly {
      readonly d: string;
      readonly width: number;
      readonly dashes: string;
      readonly filled: boolean;
    }[];
    readonly texts: readonly {
      readonly text: string;
      readonly x: number;
      readonly y: number;
      readonly size: number;
      readonly angle: number;
    }[];
    readonly pictures: readonly Extract<Mark, { kind: "picture" }>[];
  }[];
};

export const shownPage = ({ width, height, groups }: PaperPage): ShownPage => ({
  width,
  height,
  groups: groups.map(({ clip, moves = false, marks }) => {
    const paths = new Map<string, { d: string[]; width: number; dashes: string; filled: boolean }>();
    const texts: ShownPage["groups"][number]["texts"][number][] = [];
    const pictures: Extract<Mark, { kind: "picture" }>[] = [];
    for (const mark of marks) {
      if (mark.kind === "picture") pictures.push(mark);
      else if (mark.kind === "text")
        texts.push({ text: mark.text, ...mark.at, size: fontSize(mark.height), angle: mark.angle });
      else {
        const dashes = (mark.dashes ?? []).join(" ");
        const key = `${mark.width} ${dashes} ${mark.filled ?? false}`;
        const path = paths.get(key) ?? { d: [], width: mark.width, dashes, filled: mark.filled ?? false };
        path.d.push(piecesPath(mark.pieces, mark.closed ?? false));
        paths.set(key, path);
      }
    }
    return {
      ...(clip ? { clip } : {}),
      moves,
      paths: [...paths.values()].map(({ d, ...look }) => ({ d: d.join(""), ...look })),
      texts,
      pictures,
    };
  }),
});
