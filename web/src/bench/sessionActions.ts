import { clearLayout } from "@ash-edge/core/edits";
import type { SnapKind } from "@ash-edge/core/look";
import type { Id } from "@ash-edge/core/numeric";
import { REGISTRY, type Tool } from "@ash-edge/tools";
import type { JobPlace, SessionCore } from "./sessionCore.ts";

type Parts = {
  readonly holds: { readonly askSnap: (kind: SnapKind) => void; readonly takeHold: (which: string) => void };
  readonly viewing: { readonly fit: () => void; readonly fitSelection: () => void; readonly viewBefore: () => void };
  readonly tidying: { readonly openTidy: () => void };
  readonly tracing: { readonly openTracing: () => void };
  readonly numbers: { readonly openNumbers: () => void };
  readonly handling: { readonly toggleHandles: () => void };
  readonly annotating: { readonly showAnnotations: () => void; readonly dimensionAll: () => void };
  readonly tools: { readonly takeTool: (tool: Tool, how?: { readonly fresh?: boolean }) => void };
  /** Resolves when what was done is stored, or can't be stored now. */
  readonly settled: () => Promise<void>;
  /** Goes to another place of the job, with what is selected. */
  readonly openPlace: (place: JobPlace, selected: readonly Id[]) => void;
};

const REGIONS = { sketch: "Sketch card", layers: "Layers" } as const;

/** What stands in the registry: tools are taken up, actions carried out. */
export const makeActions = (core: SessionCore, parts: Parts) => {
  const { get, send, say, sayNo, commit, notify } = core;
  const { holds, viewing, tidying, numbers, tracing, handling, annotating, tools } = parts;

  /** What is proved or released is what is stored, so it must be what is shown. */
  const openPlace = (place: JobPlace): void =>
    void parts.settled().then(() =>
      get().history.failure
        ? say({
            text: `What is shown is not stored, so it can't be ${place === "prove" ? "proved" : "released"}.`,
            tone: "fault",
          })
        : parts.openPlace(place, [...get().selection.ids]),
    );
  const clear = (): void => {
    const cleared = clearLayout(get().history.drawing);
    if (!cleared.ok) return sayNo(cleared.refusal);
    if (commit(cleared.value)) notify("Layout cleared");
  };
  /** To a panel: where they are folded it comes to the front first. */
  const goToPanel = (tab: keyof typeof REGIONS): void => {
    send("panels", { type: "tab", tab });
    setTimeout(() => document.querySelector<HTMLElement>(`[data-region="${REGIONS[tab]}"]`)?.focus());
  };
  const carryOut: Readonly<Record<string, () => void>> = {
    fit: viewing.fit,
    "fit-selection": viewing.fitSelection,
    "view-before": viewing.viewBefore,
    magnifier: () => send("view", { type: "magnifier" }),
    "signs-shown": () => send("view", { type: "signs" }),
    "dimensions-shown": annotating.showAnnotations,
    "dimension-all": annotating.dimensionAll,
    "handles-shown": handling.toggleHandles,
    tidy: tidying.openTidy,
    "make-true": numbers.openNumbers,
    "trace-picture": tracing.openTracing,
    layers: () => goToPanel("layers"),
    release: () => openPlace("release"),
    "write-callouts": () => send("panels", { type: "writing", writing: {} }),
    "clear-layout": clear,
  };

  const take = (id: string, how?: { readonly fresh?: boolean }): void => {
    const found = REGISTRY.find((one) => one.id === id);
    send("panels", { type: "bank", key: undefined });
    send("panels", { type: "offered", callout: undefined });
    if (!found) return;
    if (found.kind !== "action") return tools.takeTool(found, how);
    const [what, which] = [id.slice(0, id.indexOf("-")), id.slice(id.indexOf("-") + 1)];
    if (what === "snap") holds.askSnap(which as SnapKind);
    else if (what === "hold") holds.takeHold(which);
    else carryOut[id]!();
  };
  return {
    take,
    goToPanel,
    openPlace,
    again: (): void => {
      const { lastToolId } = get().hand;
      if (lastToolId) take(lastToolId);
    },
  };
};
