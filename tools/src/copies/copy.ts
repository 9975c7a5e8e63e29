import { exampleCircle } from "../example/exampleShapes.ts";
import { subtract, moving } from "@ash-edge/core/geometry";
import { nothing, type Tool } from "../tool.ts";
import { what, moved } from "./copying.ts";

export const copy: Tool = {
  kind: "tool",
  id: "copy",
  name: "Copy",
  help:
    "Copies what is selected from one point to another, or by x and y typed, again and again. Sizes called for it " +
    "are called for its copies too.",
  drawing: ["M4 11 L12 11 L12 19 L4 19 Z M12 5 L20 5 L20 13 L14 13", "M12 5 L12 11"],
  example: { cut: [exampleCircle(0, 0, 12)], typed: { x: "40", y: "10" }, clicks: [[12, 0]], finish: true },
  parts: [
    what,
    { kind: "words", text: "from" },
    { kind: "pick", name: "from", label: "point", takes: "point" },
    { kind: "words", text: "to" },
    { kind: "pick", name: "to", label: "new place", takes: "point" },
    { kind: "words", text: "· or by x" },
    { kind: "value", name: "x", label: "by x", expects: "length", stays: false, signed: true },
    { kind: "words", text: "y" },
    { kind: "value", name: "y", label: "by y", expects: "length", stays: false, signed: true },
  ],
  from: "from",
  wants: (given) => ["what", ...((given.value("x") ?? given.value("y")) !== undefined ? [] : ["from", "to"])],
  propose: (given, context) => {
    const { from, to } = given.picks;
    const [x, y] = [given.value("x"), given.value("y")];
    const typed = x !== undefined || y !== undefined;
    if (given.things.length === 0 || (!typed && (!from || !to || !given.isFirm("from")))) return nothing;
    const by = typed ? { x: x ?? 0, y: y ?? 0 } : subtract(to!.at, from!.at);
    const proposal = moved(copy, given.things, moving(by), true, context);
    // the next copy starts from the same point
    return typed ? proposal : { ...proposal, ways: proposal.ways.map((way) => ({ ...way, next: { from: from! } })) };
  },
};
