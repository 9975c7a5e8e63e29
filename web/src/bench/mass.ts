import { wrap, type Remote } from "comlink";
import type { Drawing, Edit } from "@ash-edge/core/drawing";
import type { Derived, MassWorker } from "../worker/mass.worker.ts";
import type { Palette } from "./board/palette.ts";
import type { Size, View } from "./board/view.ts";

/**
 * Drawings with more things than this are worked out and painted in a worker, so that the page never waits for them.
 */
export const LARGE = 4000;

export type Painted = { readonly bitmap: ImageBitmap; readonly view: View; readonly size: Size };
type Wanted = {
  readonly view: View;
  readonly size: Size;
  readonly ratio: number;
  readonly palette: Palette;
  readonly signsHidden: boolean;
};

/** The page's hold on the worker that keeps a second copy of a great drawing. */
export type Mass = {
  readonly step: (edit: Edit, after: Drawing) => void;
  /** Asks for a picture; while one is being painted only the newest wish is kept. */
  readonly want: (wanted: Wanted) => void;
  readonly painted: () => Painted | undefined;
  readonly end: () => void;
};

const DERIVE_DELAY_MS = 250;

/** `onDerived` is told what was worked out of which drawing, `onPainted` of every new picture. */
export const makeMass = (
  drawing: Drawing,
  onDerived: (drawing: Drawing, derived: Derived) => void,
  onPainted: () => void,
): Mass => {
  const worker = new Worker(new URL("../worker/mass.worker.ts", import.meta.url), { type: "module" });
  const remote: Remote<MassWorker> = wrap<MassWorker>(worker);
  let latest = drawing;
  let painted: Painted | undefined;
  let wish: Wanted | undefined;
  let last: Wanted | undefined;
  let painting = false;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const paint = async (): Promise<void> => {
    if (painting || !wish) return;
    painting = true;
    const wanted = wish;
    wish = undefined;
    last = wanted;
    const { view, size, ratio, palette, signsHidden } = wanted;
    const bitmap = await remote.paint(view, size, ratio, palette, signsHidden);
    painted?.bitmap.close();
    painted = { bitmap, view, size };
    painting = false;
    onPainted();
    void paint();
  };
  const derive = async (): Promise<void> => {
    const of = latest;
    const derived = await remote.derive();
    onDerived(of, derived);
    wish ??= last; // the roles may have changed
    void paint();
  };
  void remote.start(drawing).then(() => {
    void paint();
    void derive();
  });
  return {
    step: (edit, after) => {
      latest = after;
      void remote.step(edit);
      wish ??= last;
      void paint();
      clearTimeout(timer);
      timer = setTimeout(() => void derive(), DERIVE_DELAY_MS);
    },
    want: (wanted) => {
      wish = wanted;
      void paint();
    },
    painted: () => painted,
    end: () => {
      clearTimeout(timer);
      worker.terminate();
    },
  };
};
