import { findThread, threadLength } from "@ash-edge/core/tables";
import { roundAt } from "@ash-edge/core/drawing";
import { refuse } from "@ash-edge/core/numeric";
import { exampleCircle } from "../example/exampleShapes.ts";
import { nothing, refused, type Tool } from "../tool.ts";
import { annotating, heldBy } from "./dimensioning.ts";

export const threadMarkTool: Tool = {
  kind: "tool",
  id: "thread-mark",
  name: "Thread mark",
  help:
    "Type the thread, M6 or 3/8-16, and click its hole: three quarters of the thread's outer circle, thin, are drawn " +
    "round it and go where the hole goes.",
  drawing: ["M12 4 A8 8 0 1 0 20 12", "M12 12 m-5 0 a5 5 0 1 0 10 0 a5 5 0 1 0 -10 0"],
  example: { cut: [exampleCircle(0, 0, 2.5)], typed: { thread: "M6" }, clicks: [[2.5, 0]] },
  parts: [
    { kind: "thread", name: "thread", label: "thread" },
    { kind: "words", text: "on" },
    { kind: "pick", name: "hole", label: "hole", takes: "curve", round: true },
  ],
  propose: (given, context) => {
    const { drawing, unit } = context;
    const ref = heldBy(given.picks.hole);
    const radius = ref && roundAt(drawing, ref)?.radius;
    if (!ref || radius === undefined) return nothing;
    const found = findThread(given.text("thread") ?? "");
    if (!found.ok) return given.isFirm("hole") ? refused(found) : nothing;
    const size = threadLength(found.value, found.value.diameter, unit);
    if (size <= 2 * radius)
      return given.isFirm("hole") ? refused(refuse("thread-in-hole", { typed: size, limit: 2 * radius })) : nothing;
    return annotating(
      threadMarkTool,
      context,
      [{ kind: "thread mark", refs: [ref], at: { x: 0, y: 0 }, size, text: found.value.name }],
      given.isFirm("hole"),
    );
  },
};
