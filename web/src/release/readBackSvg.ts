import type { FoundShape, FoundSvg } from "@ash-edge/core/formats/svg";

/** What each kind of shape is drawn from: nothing else of the file gets into the page. */
const DRAWN_FROM = { path: ["d"], circle: ["cx", "cy", "r"] } as const;

/** So many shapes are measured at a time, before the page may go on with other things. */
const AT_ONCE = 500;

/**
 * What the browser's own SVG engine finds in a file. It measures only what it shows, so each shape is put out of sight
 * for a moment. Rejects when it is stopped.
 */
export const readBackSvg = async (text: string, signal: AbortSignal): Promise<FoundSvg> => {
  const root = new DOMParser().parseFromString(text, "image/svg+xml").documentElement;
  const stage = document.createElementNS("http://www.w3.org/2000/svg", "svg");
  stage.setAttribute("aria-hidden", "true");
  stage.style.cssText = "position:absolute;width:0;height:0";
  document.body.append(stage);
  const found = (shape: SVGElement): FoundShape => {
    const kind = shape.localName === "circle" ? "circle" : "path";
    const shown = document.createElementNS("http://www.w3.org/2000/svg", kind);
    for (const name of DRAWN_FROM[kind]) shown.setAttribute(name, shape.getAttribute(name) ?? "");
    stage.replaceChildren(shown);
    const { x, y, width, height } = shown.getBBox();
    const box = { minX: x, maxX: x + width, minY: -y - height, maxY: -y };
    const layer = shape.closest("g")?.id ?? "";
    return kind === "circle" ? { layer, box, kind } : { layer, box, kind, length: shown.getTotalLength() };
  };
  try {
    const elements = [...root.querySelectorAll<SVGElement>("path, circle")];
    const shapes: FoundShape[] = [];
    for (let i = 0; i < elements.length; i += AT_ONCE) {
      for (const element of elements.slice(i, i + AT_ONCE)) shapes.push(found(element));
      await new Promise((go) => setTimeout(go));
      if (signal.aborted) throw new Error("Stopped.");
    }
    return { width: root.getAttribute("width") ?? "", viewBox: root.getAttribute("viewBox") ?? "", shapes };
  } finally {
    stage.remove();
  }
};
