import { describe, expect, it } from "vitest";
import { FAULT_SENTENCES } from "../checks/list.ts";
import { REFUSAL_CODES } from "../numeric/outcome.ts";
import { severityOf, type TidyCode } from "../tidy/things.ts";
import { sayFault, sayJoined, sayRefusal } from "./say.ts";
import { sayFinding } from "./sayFinding.ts";

/**
 * A sentence begins with a capital or a number, ends with a full stop, and has no gaps where numbers or names belong.
 */
const SENTENCE = /^[“A-Z0-9].*\.$/;
const GAP = /undefined|NaN|\?|\[object/;

describe("sentences", () => {
  it("every refusal has a sentence without gaps", () => {
    for (const code of REFUSAL_CODES) {
      const values = {
        text: "x",
        place: 0,
        found: "x",
        what: "Circle",
        typed: 1,
        limit: 2,
        open: 2,
        layer: "Profile",
        letter: "≥",
        held: 3,
        kind: "end",
        line: 3,
        reason: "x",
        gap: 0.1,
        x: 1,
        y: 2,
        deviation: 0.2,
        tolerance: 0.1,
        version: 9,
        known: 2,
        most: 10_000,
        above: 12,
        one: "1250",
        other: "1.250",
        decimals: 3,
        type: "SPLINE",
        process: "plasma",
        width: 3000,
        height: 1500,
        scale: "1 : 1",
        paper: "A4",
        fits: "1 : 2",
        pages: 200,
        wrong: "Marks need a name.",
        count: 3,
        pixels: "1.2",
        spoil: "crosses",
      };
      for (const unit of ["mm", "in"] as const) {
        expect(sayRefusal({ code, values }, unit)).toMatch(/^[“A-Z].*[.?]$/);
        expect(sayRefusal({ code, values }, unit)).not.toMatch(/undefined|NaN|\[object/);
      }
    }
  });

  it("every fault has one, with the numbers that it was given", () => {
    const values = {
      pieces: 4,
      ends: 2,
      gap: 0.31,
      curves: 3,
      cutter: 6,
      layer: "0",
      other: "Profile",
      things: 5,
      points: 7,
      crossings: 9,
      length: 0.02,
      least: 0.05,
      degrees: 0.3,
      radius: 1.5,
      own: 3,
      tool: "a bit of 6",
      limit: 4,
      diameter: 9,
      process: "plasma",
      apart: 2,
      depth: 3,
      parts: 2,
      x: 900,
      y: 400,
      sheet: "a slab",
    };
    expect(Object.keys(FAULT_SENTENCES).length).toBeGreaterThan(10);
    for (const code of Object.keys(FAULT_SENTENCES)) {
      const said = sayFault({ code, severity: "error", ids: [], values }, "mm");
      expect(said).toMatch(SENTENCE);
      expect(said).not.toMatch(GAP);
    }
    expect(sayFault({ code: "open", severity: "error", ids: [], values }, "mm")).toContain("0.31 mm");
    expect(sayFault({ code: "cutter-gone", severity: "error", ids: [], values }, "in")).toContain("Ø 6");
  });

  it("every finding has one; a length that is missing is never a number made up", () => {
    const codes: readonly TidyCode[] = [
      "duplicate",
      "overlap",
      "fragment",
      "gap",
      "tail",
      "open",
      "crossing",
      "shared-edge",
      "tiny",
    ];
    for (const code of codes) {
      const values = { width: 0.02, moves: 0.03, apart: 1.5, length: 0.04 };
      const finding = {
        code,
        severity: severityOf(code),
        at: { x: 0, y: 0 },
        ids: [],
        values,
        fixed: false,
        mendable: true,
      };
      expect(sayFinding(finding, "mm")).toMatch(SENTENCE);
      expect(sayFinding(finding, "mm")).not.toMatch(GAP);
    }
    const nearly = {
      code: "gap",
      severity: "error",
      at: { x: 0, y: 0 },
      ids: [],
      values: { width: 0.02 },
      fixed: false,
      mendable: true,
    } as const;
    expect(sayFinding(nearly, "mm")).toContain("0.02 mm apart");
  });

  it("joining says what it made, closed and left", () => {
    expect(sayJoined({ contours: 1, chains: 0, pieces: 14 })).toBe("1 contour from 14 pieces");
    expect(sayJoined({ contours: 0, chains: 2, pieces: 5, mended: 1, bent: 2, openEnds: 2, nearest: 0.31 })).toBe(
      "2 open chains from 5 pieces, 1 gap closed, 2 arcs with another radius than before · 2 ends open, 0.31 mm apart",
    );
  });
});
