import type { NewCallout } from "@ash-edge/core/drawing";
import type { JobHead } from "@ash-edge/core/formats/job";
import type { Meant } from "./pencil.ts";

/** A demo job: its head, its callouts with their pins in pixels of the picture, and how its sketch is drawn. */
export type Sketch = {
  readonly id: string;
  readonly unit: "mm" | "in";
  readonly head: JobHead;
  readonly width: number;
  readonly height: number;
  readonly svg: string;
  readonly meant: readonly Meant[];
  readonly callouts: readonly (Omit<NewCallout, "pin"> & {
    readonly pin: { readonly x: number; readonly y: number };
  })[];
  /** Taken askew, as a photo on a bench top, instead of scanned. */
  readonly askew?: boolean;
};

export const head = (number: string, name: string, rest: Partial<JobHead>): JobHead => ({
  number,
  name,
  customer: "Fernhollow line",
  material: "",
  thickness: "",
  quantity: 1,
  due: "",
  ...rest,
});
