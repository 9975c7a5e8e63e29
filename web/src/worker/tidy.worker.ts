import { expose } from "comlink";
import { tidy, type Finding, type Thing, type TidyOptions, type TidyResult } from "@ash-edge/core/tidy";

/**
 * Which findings are mended: all, those of a kind, one, or one with everything that lies double; what was left as it is never is.
 */
export type Mends =
  | { readonly which: "all" }
  | { readonly which: "code"; readonly code: string }
  | { readonly which: "key" | "key with doubles"; readonly key: string };

export type TidyInput = {
  readonly things: readonly Thing[];
  readonly options: Pick<TidyOptions, "tolerance" | "ignore" | "sharedEdges">;
  readonly mends: Mends;
  readonly left: ReadonlySet<string>;
};

const accepts = ({ mends, left }: TidyInput): ((finding: Omit<Finding, "fixed">) => boolean) => {
  switch (mends.which) {
    case "all":
      return ({ key }) => !left.has(key);
    case "code":
      return ({ code, key }) => code === mends.code && !left.has(key);
    case "key":
      return ({ key }) => key === mends.key;
    case "key with doubles":
      return ({ key, code }) => key === mends.key || (!left.has(key) && (code === "duplicate" || code === "overlap"));
  }
};

const work = (input: TidyInput, report: (part: number) => void): TidyResult =>
  tidy(input.things, { ...input.options, accept: accepts(input), report });

export const worker = { work };
export type TidyWorker = typeof worker;
expose(worker);
