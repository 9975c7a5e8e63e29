import {
  addCallouts,
  answerCallout,
  calloutText,
  numberText,
  changeCallout,
  readLedgerLine,
  refsAnswering,
  removeCallout,
} from "@ash-edge/core/callouts";
import { curveAt, unitOf, type Callout } from "@ash-edge/core/drawing";
import { angleOf, carrierOf, curveLength } from "@ash-edge/core/geometry";
import { describeRef } from "@ash-edge/core/look";
import { derivedNumber, showLength, toDegrees, type Id, type SizeKind } from "@ash-edge/core/numeric";
import {
  blankForCallout,
  FROM_DATUM,
  isPlace,
  lastPoint,
  litOf,
  offeredCallout,
  placeEntries,
  REGISTRY,
  typedPart,
  type Entry,
  type Hover,
  type Picked,
  type Tool,
} from "@ash-edge/tools";
import type { SessionCore } from "./sessionCore.ts";
import type { Panels } from "./state/index.ts";

/** Values that are not typed: taken from callouts and from geometry; and the callouts themselves. */
export const makeCallouts = (
  core: SessionCore,
  takeCalled: (callout: Callout) => void,
  offerTrue: (callout: Id) => void,
  nextWord: () => void,
) => {
  const { get, send, say, sayNo, commit, toolEvent, activeTool, context, notify } = core;
  /** The clicked thing's own radius, length or angle goes into the lit blank. */
  const takeValue = (hover: Hover): void => {
    const ref = hover.under[0]?.ref;
    const curve = ref && curveAt(get().history.drawing, ref);
    const tool = activeTool();
    const lit = tool && litOf(tool, get().hand.tool!, context());
    const blank = lit?.kind === "blank" ? lit.name : undefined;
    // of a place the x, the y, the distance or the direction that is asked for
    if (tool && blank !== undefined && isPlace(blank)) {
      const state = get().hand.tool!;
      const entry = placeEntries(state.placing ?? FROM_DATUM, hover.at, lastPoint(tool, state), context())?.[blank];
      if (entry) return toolEvent({ type: "fill", blank, entry });
    }
    if (!curve || !tool || !blank)
      return say({
        text: "There is nothing here to take a value from. Click on a line, an arc or a circle.",
        tone: "fault",
      });
    const part = typedPart(tool, blank)!;
    const carrier = carrierOf(curve);
    const unit = unitOf(get().history.drawing);
    const fill = (value: number, kind?: SizeKind): void =>
      toolEvent({
        type: "fill",
        blank,
        entry: { text: showLength(value, unit), value },
        ...(kind ? { kind } : {}),
      });
    if (part.kind === "size" && carrier?.kind === "circle")
      return curve.kind === "circle" ? fill(2 * carrier.radius, "Ø") : fill(carrier.radius, "R");
    if (part.kind === "value" && part.expects === "length" && Number.isFinite(curveLength(curve)))
      return fill(curveLength(curve));
    if (part.kind === "value" && part.expects === "angle" && carrier?.kind === "line")
      return fill(toDegrees(angleOf(carrier.direction)));
    say({ text: `${describeRef(get().history.drawing, ref)} has no value for this blank.`, tone: "fault" });
  };

  /** A callout fills the blank that fits it, answers what was just measured, or offers the tools that fit. */
  const fillFrom = (callout: Callout): void => {
    const tool = activeTool();
    const state = get().hand.tool;
    if (!tool || !state)
      return send("panels", {
        type: "offered",
        callout: get().panels.offered === callout.id ? undefined : callout.id,
      });
    if (tool.answers && state.measured) return linkMeasured(callout, tool, state.measured, state.choices["way"]);
    // with a tool of the bank of dimensions in hand a callout is given its own
    if (tool.once || REGISTRY.some(({ id, bank }) => id === tool.id && bank === "KeyZ")) return takeCalled(callout);
    const { blank, full } = blankForCallout(tool, state, callout, context());
    const unit = unitOf(get().history.drawing);
    if (!blank) {
      const text = calloutText(callout, unit);
      return say({
        text: full
          ? `The blanks of ${tool.name} that ${text} fits are filled. Light the one that it should replace.`
          : `${tool.name} has no blank for ${text}.`,
        tone: "fault",
      });
    }
    const entry: Entry = { text: numberText(callout, unit), value: callout.value, callout: callout.id };
    const kind = callout.kind === "radius" ? "R" : callout.kind === "diameter" ? "Ø" : undefined;
    const says = tool.alsoSays?.(callout);
    const entries = Object.fromEntries(
      Object.entries(says?.values ?? {}).map(([name, value]) => [name, { text: String(derivedNumber(value)), value }]),
    );
    const also = says && { choices: says.choices, entries };
    toolEvent({ type: "fill", blank, entry, ...(kind ? { kind } : {}), ...(also ? { also } : {}) });
  };

  /** The callout whose number is being typed, and the blank. */
  const offered = (): ReturnType<typeof offeredCallout> => {
    const tool = activeTool();
    const state = get().hand.tool;
    return tool && state && offeredCallout(tool, state, context());
  };

  /** Takes the callout that is offered for the number being typed; false where none is. */
  const takeOffered = (): boolean => {
    const found = offered();
    if (!found) return false;
    toolEvent({ type: "revert" });
    toolEvent({ type: "light", blank: found.blank });
    fillFrom(found.callout);
    return true;
  };

  const linkMeasured = (callout: Callout, tool: Tool, measured: readonly Picked[], way: string | undefined): void => {
    const { drawing } = get().history;
    if (!tool.answers?.includes(callout.kind))
      return say({
        text: `${calloutText(callout, unitOf(drawing))} is not answered by what ${tool.name} measures.`,
        tone: "fault",
      });
    const refs = measured.flatMap(({ ref }) => ref ?? []);
    if (refs.length < measured.length)
      return say({
        text: "Measure between places that snaps hold on to: a bare place on the board can't answer a callout.",
        tone: "fault",
      });
    const axis = way === "level" ? "x" : way === "upright" ? "y" : undefined;
    const beside = callout.kind === "radius" || callout.kind === "diameter";
    const edit = answerCallout(drawing, callout.id, refs, { axis, beside });
    if (edit) commit(edit);
  };

  /** Writes down what was typed into the ledger; true when it could be read. */
  const writeCallout = (text: string): boolean => {
    const {
      history: { drawing },
      panels: { writing },
    } = get();
    const read = readLedgerLine(text, unitOf(drawing));
    if (!read.ok) {
      sayNo(read.refusal);
      return false;
    }
    const { callouts } = read.value;
    const [only] = callouts;
    const changed = writing?.id !== undefined && only && changeCallout(drawing, writing.id, only, writing.pin);
    const edit = changed || (callouts.length > 0 ? addCallouts(drawing, callouts, writing?.pin) : undefined);
    if (edit && !commit(edit)) return false;
    say(undefined);
    if (writing?.word) nextWord();
    else send("panels", { type: "writing", writing: {} });
    if (changed) offerTrue(writing!.id!);
    return true;
  };

  /** Writes the lines that can be read, in one step, and gives back those that can't. */
  const writeLines = (lines: readonly string[]): readonly string[] => {
    const unit = unitOf(get().history.drawing);
    const read = lines.map((line) => ({ line, reading: readLedgerLine(line, unit) }));
    const callouts = read.flatMap(({ reading }) => (reading.ok ? reading.value.callouts : []));
    if (callouts.length > 0 && !commit(addCallouts(get().history.drawing, callouts))) return lines;
    return read.flatMap(({ line, reading }) => (reading.ok ? [] : [line]));
  };

  const dropCallout = (callout: Callout): void => {
    const edit = removeCallout(get().history.drawing, callout.id);
    if (!edit || !commit(edit)) return;
    notify(`Callout ${calloutText(callout, unitOf(get().history.drawing))} removed`);
  };

  /** What is selected answers the callout; with nothing selected it is let go. */
  const answerWith = (callout: Callout, ids: readonly Id[]): void => {
    const {
      history: { drawing },
    } = get();
    const edit = answerCallout(drawing, callout.id, refsAnswering(drawing, callout, ids));
    if (edit) commit(edit);
  };

  return {
    takeValue,
    useCallout: fillFrom,
    /** Lights a callout and what it speaks of, in sight, and offers the tools that fit it. */
    showCallout: (callout: Callout): void => {
      const ids = callout.links.map(({ id }) => id);
      send("selection", { type: "lit", ids, callout: callout.id });
      send("panels", { type: "offered", callout: callout.id });
    },
    /** Asks for the place of a callout's dimension. */
    dimensionCallout: takeCalled,
    offered,
    takeOffered,
    writeCallout,
    writeLines,
    dropCallout,
    answerWith,
    setWriting: (writing: Panels["writing"]): void => send("panels", { type: "writing", writing }),
  };
};
