import { exampleBox, exampleCircle } from "../example/exampleShapes.ts";
import { outlineShape, addOutlines } from "@ash-edge/core/edits";
import { refuse } from "@ash-edge/core/numeric";
import { allowanceFor } from "@ash-edge/core/offset";
import { contoursOnce } from "../contoursOnce.ts";
import { nothing, refused, type Tool, type PreviewShape } from "../tool.ts";

export const cutterAllowance: Tool = {
  kind: "tool",
  id: "cutter-allowance",
  name: "Cutter allowance",
  help:
    "Type the cutter's diameter, or the width of the kerf, and press Enter: contours half of it outside of what is " +
    "cut out, and inside of its holes, for machines that follow the line itself. It says where the cutter can't get " +
    "into an inside corner or in between. A release can allow for the cutter by itself.",
  drawing: [
    "M5 19 L5 8 L16 8",
    "M2.5 19 L2.5 8 A2.5 2.5 0 0 1 5 5.5 L16 5.5 M18.5 5.5 m-2.5 0 a2.5 2.5 0 1 0 5 0 a2.5 2.5 0 1 0 -5 0",
  ],
  example: { cut: [exampleBox(0, 0, 70, 40), exampleCircle(35, 20, 10)], typed: { cutter: "8d" }, finish: true },
  parts: [
    { kind: "words", text: "for a cutter of" },
    { kind: "size", name: "cutter", first: "Ø" },
    {
      kind: "choice",
      name: "among",
      label: "which contours",
      options: [
        ["all", "all contours"],
        ["selected", "what is selected"],
      ],
    },
    { kind: "words", text: "·" },
    {
      kind: "choice",
      name: "source",
      label: "what it comes from",
      options: [
        ["keep", "keep the contours"],
        ["replace", "replace them"],
      ],
    },
  ],
  propose: (given, { drawing, selection, layer }) => {
    const radius = given.radius("cutter");
    if (radius === undefined) return nothing;
    const among = given.choice("among") === "selected";
    // inside and outside come from all contours, also where only a hole is asked for
    const all = contoursOnce(drawing).filter(({ role }) => role !== "mark");
    const asked = all.map(({ ids }) => !among || ids.some((id) => selection.has(id)));
    const contours = all.filter((_, i) => asked[i]);
    if (contours.length === 0) return refused(refuse(among ? "nothing-selected" : "not-closed"));
    const made = allowanceFor(
      all.map(({ pieces }) => pieces),
      radius,
    );
    if (made.failed.length > 0) return refused(refuse("offset-fails"));
    const runs = made.runs.filter(({ sources }) => sources.some((i) => asked[i]));
    const unreached = made.unreached.filter(({ contour }) => asked[contour]);
    const vanished = made.vanished.filter((i) => asked[i]);
    const merged = made.merged.filter((sources) => sources.some((i) => asked[i])).flat();
    if (runs.length === 0) return refused(refuse("offset-vanishes", { typed: radius }));
    let id = -1;
    const preview: readonly PreviewShape[] = [
      ...runs.map((run) => ({ shape: outlineShape(run, () => id--) })),
      ...unreached.map(({ at }): PreviewShape => ({ shape: { kind: "point", at } })),
    ];
    const said = [
      `${runs.length} contours`,
      vanished.length > 0 ? `${vanished.length} too small for the cutter` : "",
      merged.length > 0 ? `${merged.length} too close together, cut as one` : "",
      unreached.length > 0 ? `${unreached.length} places it can't get into` : "",
    ]
      .filter(Boolean)
      .join(", ");
    const replace = given.choice("source") === "replace";
    const gone = replace ? contours.flatMap(({ ids }) => ids) : [];
    return {
      ways: [
        {
          preview,
          edit: () => addOutlines(drawing, runs, layer, gone, "Cutter allowance", "cutter-allowance"),
          said: `${said}.`,
        },
      ],
      note: said,
    };
  },
};
