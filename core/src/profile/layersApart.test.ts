import { describe, expect, it } from "vitest";
import { faultsOf, subjectOf } from "../checks/index.ts";
import { applyEdit, mainLayer, newDrawing, PROFILE_LAYER, type Drawing } from "../drawing/index.ts";
import { addLayer, draftEdit, joinPieces, putOnOneLayer } from "../edits/index.ts";
import type { Id } from "../numeric/index.ts";
import { sayFault, sayRefusal } from "../say/index.ts";
import { profileOf } from "./index.ts";

/** Three sides of a square on a customer's layer and the fourth on another. */
const drawn = (other: "own" | "profile"): { drawing: Drawing; layer: Id } => {
  const start = newDrawing("mm");
  const added = addLayer(start, "0", "profile");
  if (!added.ok) throw new Error(added.refusal.code);
  const drawing = applyEdit(start, added.value);
  const layer = added.value.changes[0]!.id;
  const draft = draftEdit(drawing, "Draw", "draw");
  const corners = [
    [0, 0],
    [40, 0],
    [40, 40],
    [0, 40],
  ] as const;
  corners.forEach(([x, y], i) => {
    const [bx, by] = corners[(i + 1) % 4]!;
    draft.add(
      { kind: "piece", a: { x, y }, b: { x: bx, y: by }, bulge: 0 },
      i === 3 && other === "profile" ? PROFILE_LAYER : layer,
    );
  });
  return { drawing: applyEdit(drawing, draft.finish()), layer };
};

describe("ends that meet across layers", () => {
  it("are said with the names of both, joined once they are put on one", () => {
    const { drawing, layer } = drawn("profile");
    const faults = faultsOf(subjectOf(drawing, profileOf(drawing)));
    const fault = faults.find(({ code }) => code === "layers-apart")!;
    expect(sayFault(fault, "mm")).toMatch(/^Ends meet, but lie on the layers (0 and Profile|Profile and 0)\./);
    const joined = joinPieces(drawing);
    // three of them are one chain already; the fourth is why nothing closes
    expect(joined.ok && [joined.value.chains, joined.value.apart]).toEqual([1, { layer: "0", other: "Profile" }]);
    const put = putOnOneLayer(drawing, fault.ids);
    if (!put.ok) throw new Error(put.refusal.code);
    const after = applyEdit(drawing, put.value);
    expect(mainLayer(after)).toBe(layer);
    const closed = joinPieces(after);
    expect(closed.ok && closed.value.contours).toBe(1);
  });

  it("two loose pieces on two layers are refused with that reason, not as standing alone", () => {
    const { drawing } = drawn("profile");
    const last = [...Array(2)].reduce<Drawing>((now) => {
      const joined = joinPieces(now);
      return joined.ok ? applyEdit(now, joined.value.edit) : now;
    }, drawing);
    const again = joinPieces(last);
    expect(again.ok ? "" : sayRefusal(again.refusal, "mm")).toContain("lie on the layers");
  });

  it("the main layer is where most of what is cut lies; Profile in an empty drawing", () => {
    expect(mainLayer(newDrawing("mm"))).toBe(PROFILE_LAYER);
    const { drawing, layer } = drawn("own");
    expect(mainLayer(drawing)).toBe(layer);
  });
});
