import { calloutText } from "@ash-edge/core/callouts";
import { calloutsOf, unitOf, type Drawing } from "@ash-edge/core/drawing";
import { showLength, type Refusal } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";
import { readBlank, typedParts, toolById, isShown, wantsTime, type ToolState, type Tool } from "@ash-edge/tools";
import { Ways } from "./LedgerWriting.tsx";
import { useBench, useSession } from "./SessionContext.tsx";
import { focusBoard } from "./useBenchKeys.ts";

/** Over the top of the board, where it is never cut off: what was said last, what is wrong, what to look out for. */
export const Said = () => {
  const message = useBench((state) => state.panels.message);
  const refused = useBench((state) => state.hand.proposal?.refusal);
  const toolId = useBench((state) => state.hand.toolId);
  const state = useBench((bench) => bench.hand.tool);
  const drawing = useBench((bench) => bench.history.drawing);
  const tool = toolById(toolId);
  const unit = unitOf(drawing);
  const warning = tool && state && otherKindCalled(tool, state, drawing);
  const working = useBench((bench) => bench.work !== undefined);
  // what only takes longer is no fault, and is being done already once it was asked for
  const later = wantsTime(refused);
  const isSaid = refused && refused.code !== "value-empty" && !(later && working);
  const refusal = isSaid ? sayRefusal(refused, unit) : undefined;
  const strip =
    "said card pointer-events-none absolute top-[calc(0.5rem+var(--sentence-over,0px))] left-2 z-10 " +
    "max-w-[calc(100%-1rem)] px-3 py-1.5";
  if (message)
    return (
      <p
        role={message.tone === "fault" ? "alert" : "status"}
        className={`${strip} ${message.tone === "fault" ? "border-fault font-semibold text-fault" : "text-moss"}`}
      >
        {message.text}
        {message.refusal && <Offer refusal={message.refusal} />}
      </p>
    );
  if (warning)
    return (
      <p role="status" className={`${strip} border-caution font-semibold text-caution`}>
        {warning}
      </p>
    );
  return refusal ? (
    <p className={`${strip} ${later ? "text-caution" : "text-fault"}`}>
      {refusal}
      <Offer refusal={refused!} />
    </p>
  ) : null;
};

/** Refusals whose limit works itself, to the last digit. */
const LIMIT_WORKS: ReadonlySet<string> = new Set([
  "radius-too-large",
  "radius-between",
  "radius-too-small",
  "cut-too-large",
  "radius-no-fit",
]);

/** The limit that a refusal names, to be put into the blank in place of what was typed. */
const Offer = ({ refusal }: { refusal: Refusal }) => {
  const { act } = useSession();
  const tool = toolById(useBench((all) => all.hand.toolId));
  const state = useBench((all) => all.hand.tool);
  const unit = useBench((all) => unitOf(all.history.drawing));
  if (refusal.code === "value-asked" && state?.open) {
    const { blank } = state.open;
    return (
      <span className="ml-3 font-normal">
        <Ways refusal={refusal} onTake={(text) => act.takeReading(blank, text)} />
      </span>
    );
  }
  const { limit } = refusal.values;
  if (!tool || !state || typeof limit !== "number" || !LIMIT_WORKS.has(refusal.code)) return null;
  const blank = typedParts(tool, state.choices).find(
    (part) => part.kind === "size" || state.entries[part.name]?.value === refusal.values.typed,
  );
  if (!blank) return null;
  const kind = blank.kind === "size" ? (refusal.values.kind === "Ø" ? ("Ø" as const) : ("R" as const)) : undefined;
  const value = kind === "Ø" ? 2 * limit : limit;
  return (
    <button
      type="button"
      className="pointer-events-auto ml-3 rounded-card border border-fault px-2 py-0.5 font-normal hover:bg-ground"
      onClick={() => {
        act.toolEvent({
          type: "fill",
          blank: blank.name,
          entry: { text: String(Number(value.toPrecision(12))), value },
          ...(kind ? { kind } : {}),
        });
        focusBoard();
      }}
    >
      Take {kind ? `${kind} ` : ""}
      {showLength(value, unit)}
    </button>
  );
};

/** The sketch calls this number, but as the other size: said before the click. */
const otherKindCalled = (tool: Tool, state: ToolState, drawing: Drawing): string | undefined => {
  for (const part of tool.parts) {
    if (part.kind !== "size" || !isShown(part, state.choices)) continue;
    const read =
      state.open?.blank === part.name ? readBlank(part, state.open.text, { unit: unitOf(drawing) }) : undefined;
    const value = read?.ok ? read.value.value : state.entries[part.name]?.value;
    const kind = (read?.ok ? read.value.kind : undefined) ?? state.kinds[part.name]!;
    if (value === undefined) continue;
    const round = calloutsOf(drawing).filter(
      (callout) => callout.value === value && (callout.kind === "radius" || callout.kind === "diameter"),
    );
    const own = kind === "R" ? "radius" : "diameter";
    const other = round.find((callout) => callout.kind !== own);
    if (other && !round.some((callout) => callout.kind === own))
      return (
        `The sketch calls ${calloutText(other, unitOf(drawing))} for the ${other.name}, not ${kind} ` +
        `${showLength(value, unitOf(drawing))}.`
      );
  }
  return undefined;
};
